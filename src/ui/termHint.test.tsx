// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { afterEach, expect, it } from 'vitest';
import { TERMS, type Term } from '@/core/terms';
import { TermHint } from './TermHint';
import { renderScreen } from './testScreen';

afterEach(cleanup);

it('explains a term to whoever reaches it by Tab, and lets go of it again', async () => {
  renderScreen(<TermHint term="horizon">Horizon</TermHint>);
  const term = screen.getByText('Horizon');
  expect(screen.queryByRole('tooltip')).toBeNull();
  fireEvent.focus(term);
  const hint = await screen.findByRole('tooltip');
  expect(hint.textContent).toBe(TERMS.horizon);
  expect(term.getAttribute('aria-describedby')).toBe(hint.id);
});

it.each(Object.keys(TERMS) as Term[])('says what %s is in whole sentences, short enough to be read', (term) => {
  expect(TERMS[term]).toMatch(/^[A-Z].*\.$/);
  expect(TERMS[term].length).toBeLessThan(180);
});
