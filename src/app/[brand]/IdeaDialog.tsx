'use client';

import { useRouter } from 'next/navigation';
import { useRef, useState, type SyntheticEvent } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Dialog } from '@/ui/Dialog';
import { ABOUT_FIELDS, ofEachAboutField, pieceText, type AboutField } from '@/core/pieces/texts';
import { call, UNREACHABLE } from '@/ui/api';
import { ChannelChoice } from '@/ui/ChannelChoice';
import { useKept } from '@/ui/useKept';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { Field } from '@/ui/Field';

/** An idea as far as it is edited here. */
interface EditedIdea extends Record<AboutField, string> {
  id: string;
  version: number;
  suggestedChannelIds: string[];
}

/** Catches an idea, or edits one. A title and Enter is enough. */
export function IdeaDialog({ idea, onClose }: { idea?: EditedIdea; onClose: () => void }) {
  const { brand } = useShell();
  const router = useRouter();
  const say = useSay();
  const { typed, set, forget } = useKept(idea ? `idea.${idea.id}.${idea.version}` : `idea.new.${brand.id}`, {
    ...ofEachAboutField((name) => idea?.[name] ?? ''),
    channelIds: idea?.suggestedChannelIds ?? [],
  });
  const { title, channelIds } = typed;
  const [problem, setProblem] = useState<{ field?: string; message: string } | null>(null);

  const titleField = useRef<HTMLInputElement>(null);

  /** @param goesOn whether another is caught after it */
  async function save(event: SyntheticEvent, goesOn = false) {
    event.preventDefault();
    const answer = idea
      ? await call('PATCH', `/api/pieces/${idea.id}`, { version: idea.version, ...typed })
      : await call('POST', '/api/pieces', { brandId: brand.id, ...typed });
    if (answer.kind === 'refused') return setProblem(answer.refusal);
    if (answer.kind === 'unreachable') return setProblem({ message: UNREACHABLE });
    say({ text: idea ? `Saved “${title.trim()}”.` : `Caught “${title.trim()}”. It is in Ideas and in the tray.` });
    router.refresh();
    if (!goesOn) {
      forget();
      return onClose();
    }
    // What it is suggested for stays: ideas that come together often are for the same.
    set(ofEachAboutField(() => ''));
    setProblem(null);
    titleField.current?.focus();
  }

  return (
    <Dialog
      title={idea ? 'Edit the idea' : 'Catch an idea'}
      onClose={onClose}
      onSubmit={(event) => void save(event)}
      deeds={
        <>
          <Button type="submit">{idea ? 'Save the idea' : 'Catch it'}</Button>
          {!idea && (
            <Button variant="outline-primary" onClick={(event) => void save(event, true)}>
              Catch it and another
            </Button>
          )}
        </>
      }
      onCancel={() => {
        forget();
        onClose();
      }}
    >
      {ABOUT_FIELDS.map((name) => {
        const { label, isLine, isLink } = pieceText(name);
        const control = {
          ...{ dir: 'auto', value: typed[name] },
          onChange: (event: { target: { value: string } }) => set({ [name]: event.target.value }),
        };
        return (
          <Field
            key={name}
            id={`idea-${name}`}
            label={label}
            refusal={problem?.field === name && problem.message}
            className="mb-3"
          >
            {isLine ? (
              <Form.Control
                {...control}
                {...(name === 'title' && { ref: titleField, autoFocus: true, autoComplete: 'off' })}
                {...(isLink && { placeholder: 'https://' })}
              />
            ) : (
              <Form.Control {...control} as="textarea" rows={3} />
            )}
          </Field>
        );
      })}
      <ChannelChoice legend="Suggested for" chosen={channelIds} onChange={(ids) => set({ channelIds: ids })} />
      {problem && !ABOUT_FIELDS.some((name) => name === problem.field) && (
        <FieldRefusal>{problem.message}</FieldRefusal>
      )}
    </Dialog>
  );
}
