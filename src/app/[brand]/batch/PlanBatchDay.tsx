'use client';

import { useRouter } from 'next/navigation';
import { useState, type FormEvent } from 'react';
import Button from 'react-bootstrap/Button';
import { minutesTogether, minutesWords } from '@/core/prep/load';
import { WORK_LABELS, WORKS, type Work } from '@/core/prep/step';
import { readTypedTime } from '@/core/time/typed';
import type { BatchStep } from '@/usecases/prep/reading';
import { call, problemOf } from '@/ui/api';
import { shortDate } from '@/ui/format';
import { OnlyTyped, useShell } from '@/ui/shell';
import { HolderSign } from '../HolderOfStep';
import { DateField } from '@/ui/DateField';
import { WordButton } from '@/ui/WordButton';
import { FieldRefusal } from '@/ui/FieldRefusal';

const NONE: readonly string[] = [];

/** Steps of one sort are picked and given a day. */
export function PlanBatchDay({ work, steps, tomorrow }: { work: Work; steps: readonly BatchStep[]; tomorrow: string }) {
  const { brand, people } = useShell();
  const router = useRouter();
  // By kind of work: what was picked of one is still picked after another was looked at.
  const [pickedOf, setPickedOf] = useState<Partial<Record<Work, readonly string[]>>>({});
  const picked = pickedOf[work] ?? NONE;
  const setPicked = (ids: readonly string[]) => setPickedOf((all) => ({ ...all, [work]: ids }));
  const [typedName, setName] = useState<string | null>(null);
  const name = typedName ?? `A day of ${WORK_LABELS[work]}`;
  const [day, setDay] = useState(tomorrow);
  const [startsAt, setStartsAt] = useState('10:00');
  const [problem, setProblem] = useState<string | null>(null);
  const minutes = minutesTogether(steps.filter(({ id }) => picked.includes(id)));

  async function make(event: FormEvent) {
    event.preventDefault();
    const answer = await call<{ id: string }>('POST', '/api/batch', {
      brandId: brand.id,
      work,
      name,
      day,
      startsAt: readTypedTime(startsAt) ?? startsAt,
      stepIds: picked,
    });
    setProblem(problemOf(answer));
    if (answer.kind === 'done') router.push(`/${brand.slug}/batch/${answer.value.id}`);
  }

  return (
    <>
      <header className="place-head">
        <h1>A batch day</h1>
        <span className="soft">Several steps of one kind, done in one sitting.</span>
      </header>
      <OnlyTyped deed="planBatchDays">
        <form className="place-body batch" onSubmit={(event) => void make(event)} noValidate>
          <p className="batch-sorts">
            {WORKS.map((one) => (
              <WordButton
                key={one}

                aria-pressed={one === work}
                onClick={() => router.push(`/${brand.slug}/batch?work=${one}`)}
              >
                {WORK_LABELS[one]}
              </WordButton>
            ))}
          </p>
          {steps.length === 0 && <p className="soft">There is no open step of this kind.</p>}
          <ul className="batch-steps">
            {steps.map((step) => (
              <li key={step.id}>
                <label>
                  <input
                    type="checkbox"
                    checked={picked.includes(step.id)}
                    onChange={(event) =>
                      setPicked(event.target.checked ? [...picked, step.id] : picked.filter((one) => one !== step.id))
                    }
                  />
                  <b dir="auto">{step.title}</b>
                  <HolderSign holder={step.holder} />
                  <span dir="auto">{step.holder.title}</span>
                </label>
                <span className="soft">{people.find(({ id }) => id === step.ownerId)?.name ?? 'nobody'}</span>
                <span className="soft figures">
                  {step.holder.date ? `due ${shortDate(step.holder.date)}` : 'no date'}
                </span>
                <span className="figures">{step.minutes === null ? '' : minutesWords(step.minutes)}</span>
              </li>
            ))}
          </ul>
          <div className="batch-make">
            <label>
              Name <input dir="auto" value={name} onChange={(event) => setName(event.target.value)} />
            </label>
            <span>
              on <DateField label="On" value={day} onChange={setDay} />
            </span>
            <label>
              from <input dir="auto" size={6} value={startsAt} onChange={(event) => setStartsAt(event.target.value)} />
            </label>
            <Button type="submit" disabled={picked.length === 0}>
              {picked.length === 0
                ? 'Pick steps for it'
                : `Create a batch day with ${picked.length === 1 ? '1 step' : `${picked.length} steps`}, ${minutesWords(minutes)}`}
            </Button>
          </div>
          <FieldRefusal>{problem}</FieldRefusal>
        </form>
      </OnlyTyped>
    </>
  );
}
