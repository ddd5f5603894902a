// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { fakeServer, renderScreen } from '@/ui/testScreen';
import { BrandForm } from './BrandForm';

const BRAND = {
  id: 'b',
  name: 'Moor',
  zone: 'Europe/Lisbon',
  weekStart: 1,
  weekdays: [1, 2, 3, 4, 5],
  wordsPerMinute: 150,
  encoreDays: 60,
  asksSignOff: false,
  makersSend: null,
  makersExchange: false,
  delivers: 'networks' as const,
};
const form = (version = 4) => <BrandForm brand={BRAND} daysOff={[]} version={version} />;
const field = (label: string) => screen.getByLabelText<HTMLInputElement>(label);
const saveIt = () => fireEvent.click(screen.getByRole('button', { name: 'Save the brand' }));

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

describe('the form of a setting', () => {
  it('sends every field as what it is, at the version it was read at', async () => {
    const server = fakeServer(() => ({ value: {} }));
    renderScreen(form());
    fireEvent.change(field('Name'), { target: { value: 'Fell' } });
    fireEvent.change(field('The week starts on'), { target: { value: '7' } });
    fireEvent.change(field('Words a minute, spoken'), { target: { value: '140' } });
    fireEvent.click(field('Sat'));
    saveIt();
    await screen.findByText('Saved.');
    expect(server.calls[0]).toMatchObject({
      seen: '"4"',
      body: {
        name: 'Fell',
        weekStart: 7,
        wordsPerMinute: 140,
        weekdays: [1, 2, 3, 4, 5, 6],
        asksSignOff: false,
        delivers: 'networks',
      },
    });
  });

  it('shows a refusal beside its field, which takes the focus, and no more once it is mended', async () => {
    const message = 'People speak 60 to 300 words a minute.';
    const server = fakeServer(() => ({ refusal: { code: 'badPace', field: 'wordsPerMinute', message } }));
    renderScreen(form());
    saveIt();
    const refusal = await screen.findByText(message);
    expect(refusal.closest('div:not(.field-refusal)')!.contains(field('Words a minute, spoken'))).toBe(true);
    await waitFor(() => expect(document.activeElement).toBe(field('Words a minute, spoken')));
    server.answer = () => ({ value: {} });
    saveIt();
    await screen.findByText('Saved.');
    expect(screen.queryByText(message)).toBeNull();
  });

  it('shows a refusal of a field that has no place of its own, or of the whole, at its end', async () => {
    const server = fakeServer(() => ({
      refusal: { code: 'badWeekStart', field: 'weekStart', message: 'A week starts on one of seven days.' },
    }));
    renderScreen(form());
    saveIt();
    await screen.findByText('A week starts on one of seven days.');
    server.answer = () => ({ refusal: { code: 'gone', message: 'That brand is gone.' } });
    saveIt();
    await screen.findByText('That brand is gone.');
    expect(screen.queryByText('A week starts on one of seven days.')).toBeNull();
  });

  it('takes what somebody else saved meanwhile for what was typed, when asked to', async () => {
    fakeServer(() => ({ refusal: { code: 'stale', message: 'Somebody saved this meanwhile.' } }));
    const { rerender } = renderScreen(form());
    fireEvent.change(field('Name'), { target: { value: 'Mine' } });
    saveIt();
    await screen.findByText(/Somebody saved this/);
    rerender(<BrandForm brand={{ ...BRAND, name: 'Theirs' }} daysOff={[]} version={5} />);
    expect(field('Name').value).toBe('Mine');
    fireEvent.click(screen.getByRole('button', { name: 'Show theirs instead of mine' }));
    expect(field('Name').value).toBe('Theirs');
  });
});
