'use client';

import { useRouter } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import { whoWaits } from '@/core/prep/waiting';
import { stepState } from '@/core/prep/countBack';
import { groupBy } from '@/core/group';
import { minutesTogether, minutesWords, type DayLoad } from '@/core/prep/load';
import type { DeskStep } from '@/usecases/prep/reading';
import type { DeskSteps } from '@/usecases/desk/loadDeskSteps';
import { call, problemOf } from '@/ui/api';
import { shortDate } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { useMay, useShell, type Shell } from '@/ui/shell';
import { useMadeMessage } from '../useMadeMessage';
import { HolderLink, HolderSign } from '../HolderOfStep';
import { WordButton } from '@/ui/WordButton';

/** The steps of a person by day, ticked where they stand; a manager hands them over, many at once. */
export function StepList({ steps, person }: { steps: DeskSteps; person: Shell['people'][number] }) {
  const { me, people, today } = useShell();
  const may = useMay();
  const router = useRouter();
  const say = useSay();
  const sayMade = useMadeMessage();
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [picked, setPicked] = useState<ReadonlySet<string> | null>(null);

  async function tick(step: DeskStep, isDone: boolean) {
    setTicked((now) => toggled(now, step.id, isDone));
    const answer = await call('POST', `/api/steps/${step.id}`, { done: isDone });
    const problem = problemOf(answer);
    if (problem) {
      setTicked((now) => toggled(now, step.id, !isDone));
      return say({ text: problem, wrong: true });
    }
    if (!isDone) return;
    say({ text: `Done: ${step.title}.`, deed: { label: 'Undo', run: () => void tick(step, false) } });
  }

  async function handOver(personId: string) {
    const answer = await call<{ count: number; changeId: string | null }>('POST', '/api/steps/hand', {
      ids: [...picked!],
      personId,
    });
    const problem = problemOf(answer);
    if (problem) return say({ text: problem, wrong: true });
    if (answer.kind !== 'done') return;
    const { count, changeId } = answer.value;
    const name = people.find(({ id }) => id === personId)?.name;
    const label = `Reassigned ${count === 1 ? '1 step' : `${count} steps`} to ${name}`;
    setPicked(null);
    if (changeId) return sayMade({ label, changeId });
    say({ text: `${label}.` });
    router.refresh();
  }

  const waiting = whoWaits([...steps.late, ...steps.today, ...steps.ahead].filter(({ id }) => !ticked.has(id)));
  const groups = [
    { key: 'late', name: 'Late', rows: steps.late, count: steps.counts.late, load: undefined },
    {
      key: 'today',
      name: 'Today',
      rows: steps.today,
      count: steps.today.length,
      load: steps.loads.find(({ date }) => date === today),
    },
    ...[...groupBy(steps.ahead, ({ day }) => day!)].map(([date, rows]) => ({
      key: date,
      name: shortDate(date),
      rows,
      count: rows.length,
      load: steps.loads.find((load) => load.date === date),
    })),
  ];
  const row = (step: DeskStep) => (
    <StepRow
      key={step.id}
      step={step}
      isTicked={ticked.has(step.id)}
      picked={picked}
      onTick={(isDone) => void tick(step, isDone)}
      onPick={(isPicked) => setPicked((now) => toggled(now!, step.id, isPicked))}
    />
  );
  return (
    <section aria-label="Steps" className="step-list">
      <h2>
        {person.id === me.id ? 'My steps' : `${person.name}’s steps`}
        {may('doSteps') &&
          (picked ? (
            <span className="push hand-over small-text">
              {picked.size} picked
              <select
                aria-label="Reassign the picked steps to"
                value=""
                disabled={picked.size === 0}
                onChange={(event) => void handOver(event.target.value)}
              >
                <option value="">reassign to …</option>
                {people.map(({ id, name }) => (
                  <option key={id} value={id}>
                    {name}
                  </option>
                ))}
              </select>
              <WordButton onClick={() => setPicked(null)}>Cancel</WordButton>
            </span>
          ) : (
            <WordButton className="push small-text" onClick={() => setPicked(new Set())}>
              Reassign…
            </WordButton>
          ))}
      </h2>
      {waiting.length > 0 && (
        <p className="waiting-on">
          {person.id === me.id ? 'Waiting for you' : `Waiting for ${person.name}`}:{' '}
          {waiting.map(({ personId, count, title }, index) => (
            <span key={personId}>
              {index > 0 && ', '}
              <b>{people.find(({ id }) => id === personId)?.name ?? 'somebody'}</b>{' '}
              {count === 1 ? `for “${title}”` : `for ${count} steps, first “${title}”`}
            </span>
          ))}
        </p>
      )}
      {groups
        .filter(({ key, rows }) => rows.length > 0 || key === 'today')
        .map(({ key, name, rows, count, load }) => (
          <div key={key} role="group" aria-label={name} className={`step-day is-${key}`}>
            <h3>
              {name} <span className="figures soft">{count}</span>
              {load && <Load load={load} />}
              {picked && rows.length > 0 && (
                <Button
                  variant="outline"
                  size="sm"
                  onClick={() => setPicked(new Set([...picked, ...rows.map(({ id }) => id)]))}
                >
                  Pick these
                </Button>
              )}
            </h3>
            {alike(rows).map((group) =>
              group.length < FOLD_FROM ? (
                group.map(row)
              ) : (
                <AlikeSteps key={group[0]!.id} steps={group}>
                  {group.map(row)}
                </AlikeSteps>
              ),
            )}
            {rows.length === 0 && <p className="soft">No step is due today.</p>}
            {count > rows.length && <p className="soft small-text">and {count - rows.length} more</p>}
          </div>
        ))}
      {steps.counts.later > 0 && (
        <p className="soft small-text">
          {steps.counts.later} {steps.counts.later === 1 ? 'step' : 'steps'} further ahead.
        </p>
      )}
      {steps.unowned.length > 0 && (
        <div role="group" aria-label="Nobody yet" className="step-day">
          <h3>
            Nobody yet <span className="figures soft">{steps.unowned.length}</span>
          </h3>
          {steps.unowned.map(row)}
        </div>
      )}
    </section>
  );
}

/** From so many steps of one name on a day, they are folded into one line. */
const FOLD_FROM = 3;

/** Steps of one day by their name, in the order of the first of each. */
const alike = (steps: readonly DeskStep[]): DeskStep[][] => [...groupBy(steps, ({ title }) => title).values()];

/** Steps of one name as one line that unfolds: how many, for which channels, how long in all. */
function AlikeSteps({ steps, children }: { steps: readonly DeskStep[]; children: ReactNode }) {
  const [isOpen, setIsOpen] = useState(false);
  const signs = [...groupBy(steps, ({ holder }) => holder.callSign)];
  return (
    <>
      <div className="desk-row step-row">
        <WordButton className="what" aria-expanded={isOpen} onClick={() => setIsOpen(!isOpen)}>
          {isOpen ? '–' : '+'} {steps[0]!.title}, {steps.length} times
        </WordButton>
        <span className="signs">
          {signs.map(([sign, own]) => (
            <HolderSign key={sign} holder={own[0]!.holder} />
          ))}
        </span>
        <span className="figures small-text minutes push">{minutesWords(minutesTogether(steps))}</span>
      </div>
      {isOpen && <div className="alike">{children}</div>}
    </>
  );
}

/** The minutes of a day against the person's time. */
function Load({ load: { minutes, capacity, isTooMuch } }: { load: DayLoad }) {
  return (
    <span className={`figures small-text push${isTooMuch ? ' attention' : ' soft'}`}>
      {minutesWords(minutes)} of {capacity === 0 ? 'a day off' : minutesWords(capacity)}
      {isTooMuch && ': too much'}
    </span>
  );
}

function StepRow({
  step,
  isTicked,
  picked,
  onTick,
  onPick,
}: {
  step: DeskStep;
  isTicked: boolean;
  /** The steps picked to be handed over; null while none are picked. */
  picked: ReadonlySet<string> | null;
  onTick: (isDone: boolean) => void;
  onPick: (isPicked: boolean) => void;
}) {
  const { brand, brands, people, me, today } = useShell();
  const may = useMay();
  const nameOf = (id: string | null) => people.find((person) => person.id === id)?.name;
  const { holder, after, before } = step;
  const waitsFor = after && after.ownerId !== step.ownerId ? nameOf(after.ownerId) : undefined;
  const waiting = before && before.ownerId !== step.ownerId ? nameOf(before.ownerId) : undefined;
  return (
    <div className={`desk-row step-row${isTicked ? ' is-done' : ''}`}>
      <input
        type="checkbox"
        aria-label={picked ? `Pick ${step.title} of ${holder.title}` : `Done: ${step.title} of ${holder.title}`}
        checked={picked ? picked.has(step.id) : isTicked}
        disabled={!may('doSteps')}
        onChange={(event) => (picked ? onPick(event.target.checked) : onTick(event.target.checked))}
      />
      <span dir="auto" className="what" title={step.title}>
        {step.title}
      </span>
      <HolderSign holder={holder} />
      <HolderLink step={step} day={today} />
      {holder.brandSlug !== brand.slug && (
        <span className="small-text soft">{brands.find(({ slug }) => slug === holder.brandSlug)?.name}</span>
      )}
      <span className="push small-text soft">
        {waitsFor
          ? `after ${waitsFor}: ${after!.title}`
          : waiting
            ? `then ${waiting === me.name ? 'you' : waiting}`
            : ''}
      </span>
      <span className="figures small-text minutes">{step.minutes === null ? '' : minutesWords(step.minutes)}</span>
      {step.day! < today && (
        <span className="small-text late-word">
          {stepState(step, today) === 'squeezed' ? 'too little time' : `since ${shortDate(step.day!)}`}
        </span>
      )}
    </div>
  );
}

function toggled(set: ReadonlySet<string>, id: string, isIn: boolean): ReadonlySet<string> {
  const next = new Set(set);
  if (isIn) next.add(id);
  else next.delete(id);
  return next;
}
