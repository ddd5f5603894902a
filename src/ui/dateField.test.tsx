// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { I18nProvider } from 'react-aria-components';
import { afterEach, describe, expect, it, vi } from 'vitest';
import DateFieldParts from './DateFieldParts';
import { renderScreen } from './testScreen';

afterEach(cleanup);

function draw(locale: string, start = '2026-11-08', more: { onSubmit?: () => void } = {}) {
  const onChange = vi.fn();
  function Field() {
    const [value, setValue] = useState(start);
    return (
      <form
        onSubmit={(event) => {
          event.preventDefault();
          more.onSubmit?.();
        }}
      >
        <I18nProvider locale={locale}>
          <DateFieldParts
            label="Date"
            value={value}
            onChange={(date) => {
              onChange(date);
              setValue(date);
            }}
          />
        </I18nProvider>
      </form>
    );
  }
  renderScreen(<Field />);
  return onChange;
}
const parts = () => screen.getAllByRole('spinbutton');
const shown = () =>
  [...screen.getByRole('group', { name: /Date/ }).querySelectorAll('.date-field-part')]
    .map((part) => part.textContent)
    .join('')
    .replace(/[\u2066-\u2069\u200e\u200f]/g, '');

describe('a date field', () => {
  it.each([
    ['en-GB', '08/11/2026'],
    ['en-US', '11/08/2026'],
    ['de-DE', '08.11.2026'],
    ['sv-SE', '2026-11-08'],
    ['ja-JP', '2026/11/08'],
  ])('is written as %s writes it: %s', (locale, text) => {
    draw(locale);
    expect(shown()).toBe(text);
  });

  it.each([
    ['en-GB', 0],
    ['en-US', 1],
  ])('in %s, a key up in the part of the day gives the next day', (locale, index) => {
    const onChange = draw(locale);
    fireEvent.keyDown(parts()[index]!, { key: 'ArrowUp' });
    expect(onChange).toHaveBeenLastCalledWith('2026-11-09');
  });

  it('without a date says what belongs where, and gives none while one is half typed', () => {
    const onChange = draw('en-GB', '');
    expect(shown()).toMatch(/^dd\/mm\/yyyy$/);
    fireEvent.keyDown(parts()[0]!, { key: 'ArrowUp' });
    expect(onChange).not.toHaveBeenCalled();
  });

  it('lets Enter send its form', () => {
    const onSubmit = vi.fn();
    draw('en-GB', '2026-11-08', { onSubmit });
    fireEvent.keyDown(parts()[0]!, { key: 'Enter' });
    expect(onSubmit).toHaveBeenCalledOnce();
  });
});
