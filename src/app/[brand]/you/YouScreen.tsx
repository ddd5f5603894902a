'use client';

import { useRouter } from 'next/navigation';
import { useState, useSyncExternalStore } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Table from 'react-bootstrap/Table';
import { call, problemOf } from '@/ui/api';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { dayAndTime } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { PASSWORD_HINT, PasswordField } from '@/ui/PasswordField';
import { useShell } from '@/ui/shell';
import { useEntryForm } from '@/ui/useEntryForm';

interface SignInRow {
  id: string;
  begunAt: string;
  lastAt: string;
  address: string;
  agent: string;
  isThis: boolean;
}

/** One’s name to sign in with, one’s password, and the browsers one is signed in with. */
export function YouScreen({
  signInName,
  hasPassword,
  signIns,
}: {
  signInName: string;
  hasPassword: boolean;
  signIns: readonly SignInRow[];
}) {
  const { me } = useShell();
  return (
    <>
      <header className="place-head">
        <h1>{me.name}</h1>
        <span className="soft">
          {me.role}, signs in as {signInName}
        </span>
      </header>
      <div className="place-body settings two-columns">
        <section>
          <h2>{hasPassword ? 'Change your password' : 'Set a password'}</h2>
          {!hasPassword && (
            <p className="soft">
              You use Bimlo alone on this machine, without signing in. With a password you sign in, and can invite
              others.
            </p>
          )}
          <OwnPassword hasPassword={hasPassword} signInName={signInName} />
          <PlainHttpNote />
        </section>
        {signIns.length > 0 && <SignIns rows={signIns} />}
      </div>
    </>
  );
}

function OwnPassword({ hasPassword, signInName }: { hasPassword: boolean; signInName: string }) {
  const [present, setPresent] = useState('');
  const [password, setPassword] = useState('');
  const { send, isBusy, again, at, elsewhere } = useEntryForm(['present', 'password']);
  const say = useSay();
  const router = useRouter();
  const done = () => {
    setPresent('');
    setPassword('');
    again();
    say({ text: hasPassword ? 'Password changed. You are signed out everywhere else.' : 'Password set.' });
    router.refresh();
  };
  return (
    <Form
      className="own-password"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void send('/api/password', { present, password }, done);
      }}
    >
      <input
        className="visually-hidden"
        autoComplete="username"
        value={signInName}
        readOnly
        tabIndex={-1}
        aria-hidden
      />
      {hasPassword && (
        <PasswordField
          id="password-present"
          label="Current password"
          autoComplete="current-password"
          value={present}
          onChange={(event) => setPresent(event.target.value)}
          wrong={at('present')}
        />
      )}
      <PasswordField
        id="password-new"
        label={hasPassword ? 'New password' : 'Password'}
        hint={PASSWORD_HINT}
        autoComplete="new-password"
        value={password}
        onChange={(event) => setPassword(event.target.value)}
        wrong={at('password')}
      />
      <FieldRefusal>{elsewhere}</FieldRefusal>
      <Button type="submit" variant="outline" disabled={isBusy || password === ''}>
        {hasPassword ? 'Change password' : 'Set password'}
      </Button>
    </Form>
  );
}

/** Where one is signed in, each to be seen, all to be ended. */
function SignIns({ rows }: { rows: readonly SignInRow[] }) {
  const { brand } = useShell();
  const [problem, setProblem] = useState<string | null>(null);
  async function signOut(everywhere: boolean) {
    const answer = await call('POST', '/api/sign-out', { everywhere });
    setProblem(problemOf(answer));
    if (answer.kind === 'done') location.assign('/sign-in');
  }
  return (
    <section className="sign-ins">
      <h2>Where you are signed in</h2>
      <Table bsPrefix="settings-table">
        <thead>
          <tr>
            <th scope="col">Browser</th>
            <th scope="col">Address</th>
            <th scope="col">Since</th>
            <th scope="col">Last used</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ id, agent, address, begunAt, lastAt, isThis }) => (
            <tr key={id}>
              <th scope="row">
                {isThis ? 'This browser' : 'Another browser'}
                <span className="agent soft" title={agent}>
                  {agent}
                </span>
              </th>
              <td className="figures">{address}</td>
              <td className="figures">{dayAndTime(begunAt, brand.zone)}</td>
              <td className="figures">{dayAndTime(lastAt, brand.zone)}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      <div className="d-flex-row">
        <Button variant="outline" onClick={() => void signOut(false)}>
          Sign out
        </Button>
        <Button variant="outline" onClick={() => void signOut(true)}>
          Sign out everywhere
        </Button>
      </div>
      <FieldRefusal>{problem}</FieldRefusal>
    </section>
  );
}

const never = () => () => undefined;

/** Says what browsers do not do where Bimlo is reached by plain HTTP. */
function PlainHttpNote() {
  const isPlain = useSyncExternalStore(
    never,
    () => !isSecureContext,
    () => false,
  );
  return isPlain ? (
    <p className="soft">
      This address is plain HTTP, so the browser shows no page of Bimlo’s while it cannot be reached, and neither
      installs it nor lets it notify you. What you type can be read on the network. HTTPS mends all of it: see
      docs/running.md.
    </p>
  ) : null;
}
