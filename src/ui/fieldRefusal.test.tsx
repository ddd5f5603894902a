// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, expect, it } from 'vitest';
import { FieldRefusal } from './FieldRefusal';

afterEach(cleanup);

const Form = ({ why, tied = true }: { why: string | null; tied?: boolean }) => (
  <form>
    <div>
      <input aria-label="Name" />
    </div>
    <div>
      <input aria-label="Time" aria-describedby="hint" />
      <span id="hint">Hours and minutes</span>
    </div>
    <FieldRefusal tied={tied}>{why}</FieldRefusal>
    <input aria-label="Note" />
  </form>
);
const time = () => screen.getByLabelText('Time');

it('a reason describes the field before it, beside what described it, for as long as it stands', () => {
  const { rerender } = render(<Form why="That is no time." />);
  const described = time().getAttribute('aria-describedby')!.split(' ');
  expect(described[0]).toBe('hint');
  expect(document.getElementById(described[1]!)!.textContent).toBe('That is no time.');
  expect(time().getAttribute('aria-invalid')).toBe('true');
  for (const other of ['Name', 'Note']) expect(screen.getByLabelText(other).hasAttribute('aria-invalid')).toBe(false);
  rerender(<Form why={null} />);
  expect(time().getAttribute('aria-describedby')).toBe('hint');
  expect(time().hasAttribute('aria-invalid')).toBe(false);
});

it('a reason about the whole form is an alert and describes no field', () => {
  render(<Form why="Nothing is chosen." tied={false} />);
  expect(screen.getByRole('alert').textContent).toBe('Nothing is chosen.');
  expect(time().hasAttribute('aria-invalid')).toBe(false);
});
