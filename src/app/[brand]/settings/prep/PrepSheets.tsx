'use client';

import { useFromServer } from '@/ui/useFromServer';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { withNeighbour } from '@/core/group';
import { withArticle } from '@/core/words';
import { BLANK_STEP, CRAFT_LABELS, leadWords, WORK_LABELS, type PrepLine } from '@/core/prep/step';
import { minutesWords } from '@/core/prep/load';
import { PIECE_SUBJECTS, SUBJECT_LABELS, type PrepSubject } from '@/core/prep/subject';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { Problem } from '../Problem';
import { useSetting } from '../useSetting';
import { StepForm, StepPlace } from '../../sheet/StepForm';
import { useLeave, useUnsaved } from '@/ui/LeaveGuard';
import { WordButton } from '@/ui/WordButton';

interface Sheet {
  subject: PrepSubject;
  /** The brand set it; otherwise it is the one that ships. */
  isOwn: boolean;
  lines: PrepLine[];
  version: number;
}

const isOfPiece = (subject: PrepSubject): boolean => PIECE_SUBJECTS.includes(subject);

/** Prep sheets by format and kind of piece: the steps in their order, each changed in its place. */
export function PrepSheets({ sheets }: { sheets: readonly Sheet[] }) {
  const [subject, setSubject] = useState(sheets[0]!.subject);
  const leave = useLeave();
  const sheet = sheets.find((one) => one.subject === subject) ?? sheets[0]!;
  return (
    <div className="prep-sheets">
      <nav aria-label="Prep sheets">
        {[
          { name: 'Posts', own: sheets.filter((one) => !isOfPiece(one.subject)) },
          { name: 'Pieces', own: sheets.filter((one) => isOfPiece(one.subject)) },
        ].map(({ name, own }) => (
          <div key={name} role="group" aria-label={name}>
            <span className="soft small-text">{name}</span>
            {own.map((one) => (
              <button
                key={one.subject}
                type="button"
                aria-current={one === sheet ? 'true' : undefined}
                onClick={() => leave(() => setSubject(one.subject))}
              >
                {SUBJECT_LABELS[one.subject]} <span className="figures soft">{one.lines.length}</span>
              </button>
            ))}
          </div>
        ))}
      </nav>
      <OneSheet key={sheet.subject} sheet={sheet} />
    </div>
  );
}

function OneSheet({ sheet }: { sheet: Sheet }) {
  const { brand, people } = useShell();
  const say = useSay();
  const [lines, setLines] = useFromServer<readonly PrepLine[]>(sheet.lines);
  const [open, setOpen] = useState<number | 'new' | null>(null);
  const setting = useSetting(sheet.version);
  useUnsaved(JSON.stringify(lines) !== JSON.stringify(sheet.lines));
  const isChanged = JSON.stringify(lines) !== JSON.stringify(sheet.lines);

  async function write(method: 'POST' | 'DELETE', body: object, done: string) {
    const answer = await setting.save<{ lines: PrepLine[] }>(method, '/api/settings/prep', {
      brandId: brand.id,
      subject: sheet.subject,
      ...body,
    });
    if (answer.kind !== 'done') return;
    setLines(answer.value.lines);
    say({ text: done });
  }
  const change = (next: readonly PrepLine[]) => {
    setLines(next);
    setOpen(null);
  };
  const who = ({ ownerId, craft }: PrepLine): string =>
    people.find(({ id }) => id === ownerId)?.name ??
    (craft
      ? withArticle(CRAFT_LABELS[craft])
      : isOfPiece(sheet.subject)
        ? 'whoever owns the piece'
        : 'whoever owns the post');

  return (
    <section aria-label={`Prep of ${withArticle(SUBJECT_LABELS[sheet.subject])}`}>
      <p className="soft">
        {isOfPiece(sheet.subject)
          ? `A piece that is ${withArticle(SUBJECT_LABELS[sheet.subject])} gets these steps, counted back from its earliest post.`
          : `Every new ${SUBJECT_LABELS[sheet.subject]} gets these steps, counted back from its day.`}{' '}
        {sheet.isOwn ? (
          <WordButton onClick={() => void write('DELETE', {}, 'The steps that ship with Bimlo hold again.')}>
            Use the steps that ship with Bimlo
          </WordButton>
        ) : (
          'They ship with Bimlo: change what you do otherwise.'
        )}
      </p>
      <ol className="prep-lines">
        {lines.map((line, index) => (
          <li key={index}>
            <WordButton
              className="title"
              aria-expanded={open === index}
              onClick={() => setOpen(open === index ? null : index)}
            >
              {line.title}
            </WordButton>
            <span>{who(line)}</span>
            <span>{leadWords(line.lead, line.leadIn)}</span>
            <span className="figures">{line.minutes === null ? '' : minutesWords(line.minutes)}</span>
            <span className="soft">
              {WORK_LABELS[line.work]}
              {line.needed && ', needed'}
            </span>
            {open === index && (
              <StepForm
                step={line}
                deed="Change the step"
                onSave={(next) => change(lines.map((one, at) => (at === index ? next : one)))}
                onClose={() => setOpen(null)}
              >
                <StepPlace
                  index={index}
                  count={lines.length}
                  onShift={(by) => change(withNeighbour(lines, index, by))}
                  onRemove={() => change(lines.filter((_line, at) => at !== index))}
                />
              </StepForm>
            )}
          </li>
        ))}
      </ol>
      {open === 'new' ? (
        <StepForm
          step={BLANK_STEP}
          deed="Add the step"
          onSave={(line) => change([...lines, line])}
          onClose={() => setOpen(null)}
        />
      ) : (
        <WordButton onClick={() => setOpen('new')}>Add a step</WordButton>
      )}
      <Problem of={setting} onTheirs={() => change(sheet.lines)} />
      {isChanged && (
        <p className="mt-2">
          <Button
            onClick={() =>
              void write(
                'POST',
                { lines },
                isOfPiece(sheet.subject) ? 'Saved. New pieces get these steps.' : 'Saved. New posts get these steps.',
              )
            }
          >
            Save these steps
          </Button>{' '}
          <WordButton onClick={() => change(sheet.lines)}>Cancel</WordButton>
        </p>
      )}
    </section>
  );
}
