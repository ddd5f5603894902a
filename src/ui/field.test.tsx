// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import Form from 'react-bootstrap/Form';
import { afterEach, expect, it, vi } from 'vitest';
import { Dialog } from './Dialog';
import { Field } from './Field';
import { PasswordField } from './PasswordField';

afterEach(cleanup);

/** What a field is described by, in the order in which it is read out. */
const described = (field: HTMLElement) =>
  (field.getAttribute('aria-describedby') ?? '').split(' ').map((id) => document.getElementById(id)?.textContent);

it('a field has its label, and is described by its hint and by why it was refused', () => {
  const field = (refusal: string | null) => (
    <Field id="time" label="Time" hint="Hours and minutes" refusal={refusal}>
      <Form.Control />
    </Field>
  );
  const { rerender } = render(field('That is no time.'));
  const time = screen.getByLabelText('Time');
  expect(described(time)).toEqual(['Hours and minutes', 'That is no time.']);
  expect(time.getAttribute('aria-invalid')).toBe('true');
  rerender(field(null));
  expect(described(time)).toEqual(['Hours and minutes']);
  expect(time.hasAttribute('aria-invalid')).toBe(false);
});

it('a password that is refused is marked itself, not what shows it', () => {
  render(<PasswordField id="password" label="Password" hint="A few words" wrong="It is too short." />);
  expect(described(screen.getByLabelText('Password'))).toEqual(['A few words', 'It is too short.']);
  expect(screen.getByRole('checkbox').hasAttribute('aria-invalid')).toBe(false);
});

it('a dialog is named by its title, sent by Enter, and left by Escape, the cross or “Cancel”', () => {
  const [onSubmit, onCancel, onClose] = [vi.fn((event: Event | object) => event), vi.fn(), vi.fn()];
  render(
    <Dialog
      title="Plan it"
      onSubmit={(event) => {
        event.preventDefault();
        onSubmit(event);
      }}
      onCancel={onCancel}
      onClose={onClose}
      deeds={<button type="submit">Plan</button>}
    >
      When?
    </Dialog>,
  );
  const dialog = screen.getByRole('dialog', { name: 'Plan it' });
  fireEvent.submit(dialog.querySelector('form')!);
  fireEvent.click(screen.getByRole('button', { name: 'Cancel' }));
  expect([onSubmit, onCancel, onClose].map((called) => called.mock.calls.length)).toEqual([1, 1, 0]);
  fireEvent.click(screen.getByRole('button', { name: 'Close' }));
  fireEvent.keyDown(dialog, { key: 'Escape', code: 'Escape' });
  expect(onClose).toHaveBeenCalledTimes(2);
});
