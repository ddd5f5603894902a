'use client';

import { useRouter } from 'next/navigation';
import { useRef, useState, type FormEvent } from 'react';
import { withNeighbour } from '@/core/group';
import { beginnings, minutesTogether, minutesWords } from '@/core/prep/load';
import type { BatchDay, BatchStep } from '@/usecases/prep/reading';
import { call, problemOf } from '@/ui/api';
import { shortDate, spokenDate } from '@/ui/format';
import { InPlace } from '@/ui/InPlace';
import { useSay } from '@/ui/messages';
import { OnlyTyped, useShell } from '@/ui/shell';
import { useInTurn } from '@/ui/useInTurn';
import { HolderLink, HolderSign } from '../../HolderOfStep';
import { WordButton } from '@/ui/WordButton';

/** The running order of a batch day with its times; ticks here are ticks of the steps themselves. */
export function BatchDayScreen({ batch: initial, steps: initialSteps }: { batch: BatchDay; steps: BatchStep[] }) {
  const { brand, people, today } = useShell();
  const router = useRouter();
  const say = useSay();
  const [batch, setBatch] = useState(initial);
  const [steps, setSteps] = useState<readonly BatchStep[]>(initialSteps);
  const [typed, setTyped] = useState('');
  const present = useRef(initial);
  const inTurn = useInTurn();

  /** Changes the day from what it is when its turn comes. */
  const change = (part: (now: BatchDay) => object): Promise<boolean> =>
    inTurn(async () => {
      const { version } = present.current;
      const answer = await call<BatchDay>('PATCH', `/api/batch/${batch.id}`, { version, ...part(present.current) });
      const problem = problemOf(answer);
      if (problem) say({ text: problem, wrong: true });
      if (answer.kind !== 'done') return false;
      present.current = answer.value;
      setBatch(answer.value);
      return true;
    });

  async function order(next: readonly BatchStep[]) {
    const before = steps;
    setSteps(next);
    if (!(await change(() => ({ stepIds: next.map(({ id }) => id) })))) setSteps(before);
  }

  async function tick(step: BatchStep, isDone: boolean) {
    const put = (doneOn: string | null) =>
      setSteps((all) => all.map((one) => (one.id === step.id ? { ...one, doneOn } : one)));
    put(isDone ? today : null);
    const problem = problemOf(await call('POST', `/api/steps/${step.id}`, { done: isDone }));
    if (!problem) return;
    put(step.doneOn);
    say({ text: problem, wrong: true });
  }

  async function callOff() {
    const problem = problemOf(await call('DELETE', `/api/batch/${batch.id}`, {}));
    if (problem) return say({ text: problem, wrong: true });
    say({ text: 'The batch day is cancelled. Its open steps count back from their posts again.' });
    router.push(`/${brand.slug}/desk`);
  }

  async function addNeed(event: FormEvent) {
    event.preventDefault();
    if (typed.trim() === '') return;
    if (await change(({ needs }) => ({ needs: [...needs, { text: typed, done: false }] }))) setTyped('');
  }

  const begins = beginnings(batch.startsAt, steps);
  const swap = (index: number, by: -1 | 1) => void order(withNeighbour(steps, index, by));
  return (
    <OnlyTyped deed="planBatchDays">
      <header className="place-head">
        <h1 dir="auto">{batch.name}</h1>
        <span className="soft">
          <InPlace
            label="Day"
            type="date"
            value={batch.day}
            shown={spokenDate(batch.day)}
            onCommit={(day) => void (day && change(() => ({ day })))}
          />{' '}
          from{' '}
          <InPlace
            label="Beginning"
            type="time"
            className="figures"
            value={batch.startsAt}
            shown={batch.startsAt}
            onCommit={(startsAt) => void (startsAt && change(() => ({ startsAt })))}
          />{' '}
          · {steps.length} steps, {minutesWords(minutesTogether(steps))}
        </span>
        <WordButton className="push" onClick={() => void callOff()}>
          Cancel the batch day
        </WordButton>
      </header>
      <div className="place-body desk batch">
        <section aria-label="Running order">
          <h2>Running order</h2>
          <ol className="batch-steps is-running">
            {steps.map((step, index) => (
              <li key={step.id} className={step.doneOn ? 'is-done' : ''}>
                <span className="figures">{begins[index]}</span>
                <label>
                  <input
                    type="checkbox"
                    aria-label={`Done: ${step.title} of ${step.holder.title}`}
                    checked={step.doneOn !== null}
                    onChange={(event) => void tick(step, event.target.checked)}
                  />
                  <b dir="auto">{step.title}</b>
                  <HolderSign holder={step.holder} />
                </label>
                <HolderLink step={step} day={batch.day} />
                <span className="soft small-text">
                  {people.find(({ id }) => id === step.ownerId)?.name}
                  {step.holder.date && `, due ${shortDate(step.holder.date)}`}
                </span>
                <span className="figures">{step.minutes === null ? '' : minutesWords(step.minutes)}</span>
                <span className="order">
                  <WordButton
                    aria-label={`${step.title} of ${step.holder.title} earlier`}
                    disabled={index === 0}
                    onClick={() => swap(index, -1)}
                  >
                    ↑
                  </WordButton>
                  <WordButton
                    aria-label={`${step.title} of ${step.holder.title} later`}
                    disabled={index === steps.length - 1}
                    onClick={() => swap(index, 1)}
                  >
                    ↓
                  </WordButton>
                  <WordButton
                    className="soft"
                    aria-label={`Take ${step.title} of ${step.holder.title} out`}
                    onClick={() => void order(steps.filter(({ id }) => id !== step.id))}
                  >
                    Remove
                  </WordButton>
                </span>
              </li>
            ))}
          </ol>
          {steps.length === 0 && <p className="soft">Nothing is left in it.</p>}
        </section>
        <section aria-label="What is needed">
          <h2>What is needed</h2>
          <ul className="batch-needs">
            {batch.needs.map((need, index) => (
              <li key={index}>
                <label>
                  <input
                    type="checkbox"
                    checked={need.done}
                    onChange={(event) =>
                      void change(({ needs }) => ({
                        needs: needs.map((one, at) => (at === index ? { ...one, done: event.target.checked } : one)),
                      }))
                    }
                  />{' '}
                  {need.text}
                </label>
                <WordButton
                  className="soft"
                  aria-label={`Remove ${need.text}`}
                  onClick={() => void change(({ needs }) => ({ needs: needs.filter((_need, at) => at !== index) }))}
                >
                  Remove
                </WordButton>
              </li>
            ))}
          </ul>
          <form onSubmit={(event) => void addNeed(event)}>
            <input
              dir="auto"
              aria-label="Something to have at hand"
              placeholder="Something to have at hand"
              value={typed}
              onChange={(event) => setTyped(event.target.value)}
            />{' '}
            <WordButton type="submit">Add</WordButton>
          </form>
        </section>
      </div>
    </OnlyTyped>
  );
}
