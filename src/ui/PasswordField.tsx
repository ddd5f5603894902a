'use client';

import { useState, type ComponentProps, type ReactNode } from 'react';
import { PASSWORD_LIMITS } from '@/core/signIn/password';
import { Field } from './Field';

/** What is said of a password that somebody chooses. */
export const PASSWORD_HINT = `At least ${PASSWORD_LIMITS.least} characters. A few words that do not belong together are good.`;

/** A password that is typed, which can be shown; with what is wrong with it. */
export function PasswordField({
  id,
  label,
  hint,
  wrong,
  ...field
}: {
  id: string;
  label: string;
  hint?: ReactNode;
  wrong: ReactNode;
} & ComponentProps<'input'>) {
  const [isShown, setShown] = useState(false);
  return (
    <Field id={id} label={label} hint={hint} refusal={wrong}>
      <div className="password-field">
        <input
          id={id}
          className="form-control"
          type={isShown ? 'text' : 'password'}
          dir="auto"
          spellCheck={false}
          autoCapitalize="none"
          {...field}
        />
        <label>
          <input type="checkbox" checked={isShown} onChange={(event) => setShown(event.target.checked)} /> Show
        </label>
      </div>
    </Field>
  );
}
