'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { PASSWORD_HINT, PasswordField } from '@/ui/PasswordField';
import { useEntryForm } from '@/ui/useEntryForm';

/** Lets somebody choose their password, and lets them in with it. */
export function JoinForm({
  linkKey,
  name,
  signInName,
  isInvitation,
}: {
  linkKey: string;
  name: string;
  /** What they type to sign in; their name does too, where nobody else has it. */
  signInName: string;
  isInvitation: boolean;
}) {
  const [password, setPassword] = useState('');
  const { send, isBusy, at, elsewhere } = useEntryForm(['password']);
  return (
    <>
      <h1>{isInvitation ? `Welcome, ${name}` : `A new password, ${name}`}</h1>
      <p>
        {isInvitation ? 'You are invited to work here. Choose a password.' : 'Choose a new password.'} From then on you
        sign in as <b>{signInName}</b>.
      </p>
      <Form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void send('/api/join', { key: linkKey, password }, () => location.assign('/'));
        }}
      >
        {/* So that what keeps passwords keeps the name with it. */}
        <input
          className="visually-hidden"
          autoComplete="username"
          value={signInName}
          readOnly
          tabIndex={-1}
          aria-hidden
        />
        <PasswordField
          id="join-password"
          label="Password"
          hint={PASSWORD_HINT}
          autoFocus
          autoComplete="new-password"
          value={password}
          onChange={(event) => setPassword(event.target.value)}
          wrong={at('password')}
        />
        <FieldRefusal>{elsewhere}</FieldRefusal>
        <Button type="submit" disabled={isBusy}>
          Save and sign in
        </Button>
      </Form>
    </>
  );
}
