'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { PasswordField } from '@/ui/PasswordField';
import { useEntryForm } from '@/ui/useEntryForm';
import { Field } from '@/ui/Field';

/**
 * Signs somebody in.
 *
 * @param to the path that was wanted
 * @param canAnybody whether anybody has a password yet
 */
export function SignInForm({ to, canAnybody }: { to: string; canAnybody: boolean }) {
  const [name, setName] = useState('');
  const [password, setPassword] = useState('');
  const { send, isBusy, at, elsewhere } = useEntryForm(['password']);
  return (
    <main className="place-body who-page">
      <p className="begin-mark">Bimlo</p>
      <h1>Sign in</h1>
      {!canAnybody && (
        <p>
          Nobody has a password yet. On the machine that Bimlo runs on, stop it and set one with{' '}
          <code>npm run password -- [name]</code>.
        </p>
      )}
      <Form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void send('/api/sign-in', { name, password }, () => location.assign(to));
        }}
      >
        <Field id="sign-in-name" label="Name">
          <Form.Control
            autoFocus
            autoComplete="username"
            autoCapitalize="none"
            spellCheck={false}
            dir="auto"
            value={name}
            onChange={(event) => setName(event.target.value)}
          />
        </Field>
        <PasswordField
          id="sign-in-password"
          label="Password"
          autoComplete="current-password"
          value={password}
          onChange={(event) => setPassword(event.target.value)}
          wrong={at('password')}
        />
        <FieldRefusal>{elsewhere}</FieldRefusal>
        <Button type="submit" disabled={isBusy || name.trim() === '' || password === ''}>
          Sign in
        </Button>
      </Form>
      <p className="soft">Forgotten your password? A manager can make you a link for a new one.</p>
    </main>
  );
}
