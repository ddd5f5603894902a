'use client';

import { useEffect, useState } from 'react';
import { useForm } from 'react-hook-form';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { Refusal } from '@/core/refusal';
import { weekdayWord } from '@/core/rhythm/entry';
import { call, problemOf } from '@/ui/api';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { ZONES } from '@/ui/zones';
import { PASSWORD_HINT, PasswordField } from '@/ui/PasswordField';
import { BeginSteps } from './BeginSteps';
import { Field } from '@/ui/Field';

interface Fields {
  person: string;
  password: string;
  name: string;
  zone: string;
  weekStart: number;
}

/** Who one is and what the brand is called; then its other three steps. */
export function BeginForm({
  isFirst,
  isOnlyHere,
  mayMake,
}: {
  isFirst: boolean;
  /** Whether no other machine reaches this Bimlo: then a password can wait. */
  isOnlyHere: boolean;
  mayMake: boolean;
}) {
  const { register, handleSubmit, setValue, setFocus } = useForm<Fields>({
    defaultValues: { person: '', password: '', name: '', zone: 'UTC', weekStart: 1 },
  });
  const [problem, setProblem] = useState<{ field: string | undefined; message: string } | null>(null);
  const [isBusy, setBusy] = useState(false);
  // Where the reader is, only their browser knows.
  useEffect(() => setValue('zone', Intl.DateTimeFormat().resolvedOptions().timeZone), [setValue]);

  const submit = handleSubmit(async ({ person, password, ...brand }) => {
    setBusy(true);
    const answer = isFirst
      ? await call<{ slug: string }>('POST', '/api/begin', { person, password, brand })
      : await call<{ slug: string }>('POST', '/api/settings/brands', { id: null, ...brand, daysOff: [] });
    if (answer.kind === 'done') return location.assign(`/${answer.value.slug}/begin`);
    setBusy(false);
    const refusal: Partial<Refusal> = answer.kind === 'refused' ? answer.refusal : {};
    setProblem({ field: refusal.field, message: problemOf(answer)! });
    const [field] = (['person', 'password', 'name', 'zone'] as const).filter((one) => one === refusal.field);
    if (field) setFocus(field);
  });
  const at = (field: keyof Fields) => problem?.field === field && problem.message;
  const isElsewhere = problem && !['person', 'password', 'name', 'zone'].includes(problem.field ?? '');

  return (
    <>
      {isFirst && <p className="begin-mark">Bimlo</p>}
      <h1>{isFirst ? 'Begin with a brand' : 'A new brand'}</h1>
      <p className="soft">
        {isFirst
          ? 'A brand is whom posts are for: a company, a club, a person. A few short steps, and all but this one can be left for later.'
          : 'A few short steps, and all but this one can be left for later.'}
      </p>
      <BeginSteps current="brand" slug={null} />
      {!mayMake ? (
        <p>Only a manager makes brands. Ask one.</p>
      ) : (
        <Form onSubmit={(event) => void submit(event)} noValidate>
          {isFirst && (
            <Field
              id="begin-person"
              label="Your name"
              hint="You are its manager. Others come in step 3."
              refusal={at('person')}
              className="mb-3"
            >
              <Form.Control autoFocus autoComplete="name" dir="auto" {...register('person')} />
            </Field>
          )}
          {isFirst && (
            <PasswordField
              id="begin-password"
              label={isOnlyHere ? 'Password (optional)' : 'Password'}
              hint={
                isOnlyHere
                  ? 'Alone on this machine you can do without until you invite somebody.'
                  : `This Bimlo can be reached from other machines. ${PASSWORD_HINT}`
              }
              autoComplete="new-password"
              wrong={at('password')}
              {...register('password')}
            />
          )}
          <Field id="begin-name" label="The brand’s name" refusal={at('name')} className="mb-3">
            <Form.Control autoFocus={!isFirst} autoComplete="organization" dir="auto" {...register('name')} />
          </Field>
          <Field
            id="begin-zone"
            label="Time zone"
            hint="All dates and times of its posts are meant here."
            refusal={at('zone')}
            className="mb-3"
          >
            <Form.Select {...register('zone')}>
              {ZONES.map((zone) => (
                <option key={zone}>{zone}</option>
              ))}
            </Form.Select>
          </Field>
          <Field id="begin-week" label="The week starts on" className="mb-3">
            <Form.Select {...register('weekStart', { valueAsNumber: true })}>
              {[1, 2, 3, 4, 5, 6, 7].map((day) => (
                <option key={day} value={day}>
                  {weekdayWord(day)}
                </option>
              ))}
            </Form.Select>
          </Field>
          <FieldRefusal>{isElsewhere && problem.message}</FieldRefusal>
          <Button type="submit" disabled={isBusy}>
            Next: channels
          </Button>
        </Form>
      )}
    </>
  );
}
