'use client';

import { useRouter } from 'next/navigation';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { Person } from '@/usecases/people/reading';
import { call, problemOf } from '@/ui/api';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { dayAndTime } from '@/ui/format';
import { useShell } from '@/ui/shell';
import { useCopy } from '@/ui/useCopy';
import { WordButton } from '@/ui/WordButton';
import { Field } from '@/ui/Field';

/** How far somebody can sign in. */
export interface Entry {
  hasPassword: boolean;
  /** The link that was made for them and holds yet. */
  link: { purpose: 'invitation' | 'password'; expiresAt: string } | null;
}

/** How somebody signs in: they are invited, or get a link for another password. The link is shown once, to be handed on. */
export function PersonEntry({ person, entry }: { person: Person; entry: Entry }) {
  const { brand, me, entry: how } = useShell();
  const router = useRouter();
  const copy = useCopy();
  const [made, setMade] = useState<{ link: string; expiresAt: string } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  if (how === 'chosen' || person.id === me.id) return null;

  async function makeLink() {
    const answer = await call<{ link: string; expiresAt: string }>('POST', '/api/settings/people/link', {
      personId: person.id,
    });
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    setMade(answer.value);
    router.refresh();
  }
  async function takeBack() {
    const answer = await call('DELETE', '/api/settings/people/link', { personId: person.id });
    setProblem(problemOf(answer));
    if (answer.kind !== 'done') return;
    setMade(null);
    router.refresh();
  }
  const until = (instant: string) => <span className="figures">{dayAndTime(instant, brand.zone)}</span>;
  const { link, hasPassword } = entry;

  return (
    <div className="person-entry">
      <h3>Signing in</h3>
      <p>
        {hasPassword ? (
          <>
            Signs in as <b>{person.slug}</b>.
          </>
        ) : link ? (
          <>Invited. The invitation holds until {until(link.expiresAt)}.</>
        ) : (
          'Cannot sign in yet: not invited.'
        )}
        {hasPassword && link && <> A link for a new password holds until {until(link.expiresAt)}.</>}
      </p>
      {made ? (
        <>
          <Field
            id="entry-link"
            label={`Send this link to ${person.name}`}
            hint={<>It works once, until {until(made.expiresAt)}. It is not shown again.</>}
          >
            <Form.Control readOnly value={made.link} onFocus={(event) => event.target.select()} />
          </Field>
          <Button variant="outline" className="mt-2" onClick={() => void copy('Link', made.link)}>
            Copy link
          </Button>
        </>
      ) : (
        <Button variant="outline" onClick={() => void makeLink()}>
          {hasPassword ? 'Make a link for a new password' : link ? 'Make another invitation' : `Invite ${person.name}`}
        </Button>
      )}{' '}
      {link && <WordButton onClick={() => void takeBack()}>Cancel the link</WordButton>}
      <FieldRefusal>{problem}</FieldRefusal>
    </div>
  );
}
