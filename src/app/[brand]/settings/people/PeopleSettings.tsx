'use client';

import { counted } from '@/core/words';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { Controller } from 'react-hook-form';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { CRAFT_LABELS, CRAFTS, type Craft } from '@/core/prep/step';
import { USUAL_WEEKDAYS } from '@/core/prep/workdays';
import { minutesWords } from '@/core/prep/load';
import type { Person } from '@/usecases/people/reading';
import type { Role } from '@/core/rights/may';
import { call, problemOf } from '@/ui/api';
import { weekdayWord } from '@/core/rhythm/entry';
import { useSay } from '@/ui/messages';
import { useMay, useShell } from '@/ui/shell';
import { Weekdays } from '@/ui/Weekdays';
import { SpanList, type Span } from '../SpanList';
import { PersonEntry, type Entry } from './PersonEntry';
import { RightsTable } from './RightsTable';
import { useSettingForm } from '../useSettingForm';
import { useLeave } from '@/ui/LeaveGuard';
import { WordButton } from '@/ui/WordButton';
import Table from 'react-bootstrap/Table';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { Field } from '@/ui/Field';

interface PersonRow extends Person {
  brandIds: string[];
  daysOff: readonly Span[];
  openSteps: number;
  version: number;
  /** How they sign in; null for those who may not know. */
  entry: Entry | null;
}

const ROLES: Record<Role, string> = { manager: 'manager', maker: 'maker', reviewer: 'reviewer' };

/** Whether somebody can sign in, in a word or two. */
const entryWords = (entry: Entry | null) => (entry?.hasPassword ? 'yes' : entry?.link ? 'invited' : 'not invited');

/** The people of a brand as a table; one is opened to be changed, or archived once their steps are handed over. */
export function PeopleSettings({
  people,
  brands,
  brandId,
  zone,
}: {
  people: readonly PersonRow[];
  /** Brands of whoever looks. */
  brands: readonly { id: string; name: string }[];
  brandId: string;
  zone: string;
}) {
  const [open, setOpen] = useState<string | null>(null);
  const opened = people.find(({ id }) => id === open) ?? null;
  const mayChange = useMay()('manageHouse');
  const { entry, me } = useShell();
  const showsEntry = mayChange && entry !== 'chosen';
  const leave = useLeave();
  return (
    <>
      <div className="two-columns">
        <section>
          <Table bsPrefix="settings-table">
            <thead>
              <tr>
                <th scope="col">Name</th>
                <th scope="col">Role</th>
                <th scope="col">Skills</th>
                <th scope="col">Works</th>
                <th scope="col">Open steps</th>
                {showsEntry && <th scope="col">Signs in</th>}
              </tr>
            </thead>
            <tbody>
              {people.map((person) => (
                <tr key={person.id}>
                  <th scope="row">
                    <span className="dot" style={{ background: person.color }} aria-hidden="true" />{' '}
                    {mayChange ? (
                      <WordButton aria-expanded={open === person.id} onClick={() => leave(() => setOpen(person.id))}>
                        {person.name}
                      </WordButton>
                    ) : (
                      person.name
                    )}
                  </th>
                  <td>{ROLES[person.role]}</td>
                  <td>{person.crafts.map((craft) => CRAFT_LABELS[craft]).join(', ')}</td>
                  <td className="figures">
                    {person.weekdays.map((day) => weekdayWord(day).slice(0, 2)).join(' ')},{' '}
                    {minutesWords(person.minutesPerDay)}
                  </td>
                  <td className="figures">{person.openSteps}</td>
                  {showsEntry && <td>{person.id === me.id ? 'yes' : entryWords(person.entry)}</td>}
                </tr>
              ))}
            </tbody>
          </Table>
          {open !== null && (
            <WordButton className="mt-2" onClick={() => leave(() => setOpen(null))}>
              Add somebody
            </WordButton>
          )}
        </section>
        {mayChange && (
          <section>
            <h2>{opened ? opened.name : 'Somebody new'}</h2>
            <PersonForm key={open ?? 'new'} person={opened} brands={brands} brandId={brandId} zone={zone} />
            {opened?.entry && <PersonEntry key={`entry-${opened.id}`} person={opened} entry={opened.entry} />}
            {opened && (
              <Archive key={`archive-${opened.id}`} person={opened} people={people} onDone={() => setOpen(null)} />
            )}
          </section>
        )}
      </div>
      <RightsTable />
    </>
  );
}

function PersonForm({
  person,
  brands,
  brandId,
  zone,
}: {
  person: PersonRow | null;
  brands: readonly { id: string; name: string }[];
  brandId: string;
  zone: string;
}) {
  const say = useSay();
  const { entry } = useShell();
  const kept = {
    name: person?.name ?? '',
    role: person?.role ?? ('maker' as Role),
    zone: person?.zone ?? zone,
    crafts: person?.crafts ?? ([] as Craft[]),
    weekdays: person?.weekdays ?? [...USUAL_WEEKDAYS],
    hoursPerDay: (person?.minutesPerDay ?? 360) / 60,
    color: person?.color ?? '#5C6470',
    brandIds: person?.brandIds.filter((id) => brands.some((brand) => brand.id === id)) ?? [brandId],
    daysOff: person?.daysOff ?? ([] as readonly Span[]),
  };
  const { register, control, handleSubmit, save, refusalOf, problem } = useSettingForm(kept, person?.version ?? 0);

  const submit = handleSubmit(({ hoursPerDay, daysOff, ...fields }) =>
    save(
      '/api/settings/people',
      {
        ...fields,
        id: person?.id ?? null,
        minutesPerDay: Math.round(hoursPerDay * 60),
        daysOff: daysOff.map(({ name, from, to }) => ({ name, from, to })),
      },
      () =>
        say({
          text: person
            ? 'Saved. The dates of open steps are worked out again.'
            : entry === 'chosen'
              ? `${fields.name.trim()} works here now.`
              : `${fields.name.trim()} works here now. Click the name to invite them.`,
        }),
    ),
  );

  return (
    <Form onSubmit={(event) => void submit(event)} noValidate>
      <div className="d-flex-row mb-3">
        <Field id="person-name" label="Name" refusal={refusalOf('name')}>
          <Form.Control dir="auto" {...register('name')} />
        </Field>
        <Field id="person-role" label="Role" refusal={refusalOf('role')}>
          <Form.Select {...register('role')}>
            {Object.entries(ROLES).map(([role, label]) => (
              <option key={role} value={role}>
                {label}
              </option>
            ))}
          </Form.Select>
        </Field>
      </div>
      <fieldset className="weekdays mb-3">
        <legend className="form-label">Skills</legend>
        {CRAFTS.map((craft) => (
          <label key={craft}>
            <input type="checkbox" value={craft} {...register('crafts')} /> {CRAFT_LABELS[craft]}
          </label>
        ))}
      </fieldset>
      <Controller
        name="weekdays"
        control={control}
        render={({ field: { value, onChange } }) => <Weekdays legend="Works on" chosen={value} onChange={onChange} />}
      />
      <FieldRefusal tied>{refusalOf('weekdays')}</FieldRefusal>
      <div className="d-flex-row mb-3">
        <Field id="person-hours" label="Hours a day">
          <Form.Control
            type="number"
            min={0}
            max={24}
            step={0.5}
            {...register('hoursPerDay', { valueAsNumber: true })}
          />
        </Field>
        <Field id="person-zone" label="Time zone" refusal={refusalOf('zone')}>
          <Form.Control dir="auto" {...register('zone')} />
        </Field>
        <Field id="person-color" label="Colour">
          <Form.Control type="color" {...register('color')} />
        </Field>
      </div>
      {brands.length > 1 && (
        <fieldset className="weekdays mb-3">
          <legend className="form-label">Works for</legend>
          {brands.map(({ id, name }) => (
            <label key={id}>
              <input type="checkbox" value={id} {...register('brandIds')} /> {name}
            </label>
          ))}
          <FieldRefusal tied>{refusalOf('brandIds')}</FieldRefusal>
        </fieldset>
      )}
      <Controller
        name="daysOff"
        control={control}
        render={({ field: { value, onChange } }) => <SpanList legend="Days off" spans={value} onChange={onChange} />}
      />
      <FieldRefusal tied>{refusalOf('daysOff')}</FieldRefusal>
      {problem()}
      <Button type="submit" variant={person ? 'primary' : 'outline'} className="mt-2">
        {person ? `Save ${person.name}` : 'Add them'}
      </Button>
    </Form>
  );
}

/** Archives a person; open steps go to somebody else with it. */
function Archive({ person, people, onDone }: { person: PersonRow; people: readonly PersonRow[]; onDone: () => void }) {
  const { me } = useShell();
  const router = useRouter();
  const say = useSay();
  const [stepsTo, setStepsTo] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  if (person.id === me.id) return null;

  async function archive() {
    const answer = await call<{ handed: number }>('DELETE', '/api/settings/people', {
      id: person.id,
      stepsTo: stepsTo || null,
    });
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    const { handed } = answer.value;
    say({ text: `${person.name} is archived${handed > 0 ? `, ${counted(handed, 'step')} reassigned` : ''}.` });
    onDone();
    router.refresh();
  }

  return (
    <div className="archive-person">
      {person.openSteps > 0 && (
        <label>
          {person.openSteps === 1 ? 'One open step goes' : `${person.openSteps} open steps go`} to{' '}
          <select value={stepsTo} onChange={(event) => setStepsTo(event.target.value)}>
            <option value="">… choose</option>
            {people
              .filter(({ id }) => id !== person.id)
              .map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
          </select>
        </label>
      )}
      <WordButton className="wrong" onClick={() => void archive()}>
        Archive {person.name}
      </WordButton>
      <FieldRefusal>{problem}</FieldRefusal>
    </div>
  );
}
