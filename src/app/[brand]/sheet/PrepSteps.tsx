'use client';

import { useState } from 'react';
import { orderBreakers, squeezeWords, stepState, type StepState } from '@/core/prep/countBack';
import { withNeighbour } from '@/core/group';
import { withArticle } from '@/core/words';
import { BLANK_STEP, CRAFT_LABELS, leadWords } from '@/core/prep/step';
import type { SheetStep } from '@/core/posts/sheet';
import { shortDate } from '@/ui/format';
import { InPlace } from '@/ui/InPlace';
import { useShell } from '@/ui/shell';
import { StepForm, StepPlace } from './StepForm';
import { WordButton } from '@/ui/WordButton';
import { TermHint } from '@/ui/TermHint';

/** What a state adds to a step’s day; the others speak for themselves. */
const STATE_WORDS: Partial<Record<StepState, string>> = { late: 'late', squeezed: 'too little time', today: 'today' };

const NONE: ReadonlySet<string> = new Set();

/** Writes something of a prep. @returns whether it was done; what was not has been said. */
export type WritePrep = (method: 'POST' | 'PATCH' | 'DELETE', path: string, body: object) => Promise<boolean>;

/** The prep of a post or piece: what is to be done by whom on which day, counted back from its day. */
export function PrepSteps({
  steps,
  offered = NONE,
  path,
  write,
  renew,
}: {
  steps: readonly SheetStep[];
  /** Steps whose work is seen to be done. */
  offered?: ReadonlySet<string>;
  /** Where steps are added and put in order. */
  path: string;
  write: WritePrep;
  /** Takes the steps of its prep sheet. */
  renew: { label: string; run: () => void };
}) {
  const { today } = useShell();
  const [open, setOpen] = useState<string | null>(null);
  const [adding, setAdding] = useState(false);
  const [ticking, setTicking] = useState<ReadonlyMap<string, boolean>>(new Map());
  const states = steps.map((step) => stepState(step, today));
  const breakers = new Set(orderBreakers(steps).map(({ id }) => id));
  const done = states.filter((state) => state === 'done').length;

  /** Shows at once; when it was not to be, the step shows again as it stands. */
  async function tick(step: SheetStep, isDone: boolean) {
    setTicking((now) => new Map(now).set(step.id, isDone));
    await write('POST', `/api/steps/${step.id}`, { done: isDone });
    setTicking((now) => new Map([...now].filter(([id]) => id !== step.id)));
  }
  const change = (step: SheetStep, part: object) =>
    write('PATCH', `/api/steps/${step.id}`, { version: step.version, ...part });

  function shift(index: number, by: -1 | 1) {
    const ids = withNeighbour(steps, index, by).map(({ id }) => id);
    void write('PATCH', path, { ids });
  }

  return (
    <section className="words prep" aria-label="Prep">
      <div className="words-label">
        <TermHint term="prep">Prep</TermHint>
        <span className="figures soft">{steps.length > 0 && `${done} of ${steps.length}`}</span>
        <span className="attention small-text">{squeezeWords(states)}</span>
        <WordButton className="push" onClick={() => setAdding(true)}>
          Add a step
        </WordButton>
      </div>
      {steps.length === 0 && !adding && (
        <p className="soft">
          No steps. <WordButton onClick={renew.run}>{renew.label}</WordButton>
        </p>
      )}
      <ol className="prep-steps">
        {steps.map((step, index) => (
          <li key={step.id} data-step={step.id} className={`prep-step is-${states[index]}`}>
            <input
              type="checkbox"
              aria-label={`Done: ${step.title}`}
              checked={ticking.get(step.id) ?? step.doneOn !== null}
              onChange={(event) => void tick(step, event.target.checked)}
            />
            <WordButton
              className="title"
              aria-expanded={open === step.id}
              onClick={() => setOpen(open === step.id ? null : step.id)}
            >
              {step.title}
            </WordButton>
            <Who step={step} />
            <span className="when">
              <InPlace
                label={`Day of ${step.title}`}
                type="date"
                className="figures"
                value={step.day ?? ''}
                shown={step.day ? shortDate(step.day) : leadWords(step.lead, step.leadIn)}
                disabled={step.doneOn !== null}
                onCommit={(date) => void change(step, { pinned: date || null })}
              />
              {STATE_WORDS[states[index]!] && <b className="state">{STATE_WORDS[states[index]!]}</b>}
              {step.pinned && (
                <WordButton
                  className="small-text"
                  aria-label={`Unpin ${step.title}`}
                  title="Stays on this day when the post moves"
                  onClick={() => void change(step, { pinned: null })}
                >
                  pinned
                </WordButton>
              )}
            </span>
            {offered.has(step.id) && !ticking.has(step.id) && (
              <WordButton className="note small-text" onClick={() => void tick(step, true)}>
                Looks done: tick it<span className="visually-hidden"> ({step.title})</span>
              </WordButton>
            )}
            {step.note && open !== step.id && (
              <span dir="auto" className="note soft">
                {step.note}
              </span>
            )}
            {breakers.has(step.id) && (
              <span className="note attention">Pinned after a step that comes later in the order.</span>
            )}
            {open === step.id && (
              <StepForm
                step={step}
                deed="Change the step"
                onSave={async (line) => {
                  if (await change(step, line)) setOpen(null);
                }}
                onClose={() => setOpen(null)}
              >
                <StepPlace
                  index={index}
                  count={steps.length}
                  onShift={(by) => shift(index, by)}
                  onRemove={() => void write('DELETE', `/api/steps/${step.id}`, {})}
                />
              </StepForm>
            )}
          </li>
        ))}
      </ol>
      {adding && (
        <StepForm
          step={BLANK_STEP}
          deed="Add the step"
          onSave={async (line) => {
            if (await write('POST', path, line)) setAdding(false);
          }}
          onClose={() => setAdding(false)}
        />
      )}
    </section>
  );
}

/** Who does a step: a person, a craft nobody is named for yet, or who did it. */
function Who({ step }: { step: SheetStep }) {
  const { people } = useShell();
  const nameOf = (id: string | null) => people.find((person) => person.id === id)?.name;
  const name = nameOf(step.ownerId);
  if (step.doneOn !== null) {
    const isForAnother = name !== undefined && step.doneBy !== step.ownerId;
    return (
      <span className="who soft">{[nameOf(step.doneBy), isForAnother && `for ${name}`].filter(Boolean).join(' ')}</span>
    );
  }
  if (name) return <span className="who">{name}</span>;
  return <span className="who attention">{step.craft ? withArticle(CRAFT_LABELS[step.craft]) : 'nobody'}</span>;
}
