// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { LeaveGuard, useLeave, useUnsaved } from './LeaveGuard';
import { renderScreen, router } from './testScreen';

function Form() {
  const [typed, setTyped] = useState('');
  const [other, setOther] = useState(false);
  const leave = useLeave();
  useUnsaved(typed !== '');
  return (
    <>
      <input aria-label="Name" value={typed} onChange={(event) => setTyped(event.target.value)} />
      <button type="button" onClick={() => leave(() => setOther(true))}>
        Another
      </button>
      {other && <p>The other</p>}
      <a href="/moor/desk">Desk</a>
    </>
  );
}

const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }));
const type = (value: string) => fireEvent.change(screen.getByLabelText('Name'), { target: { value } });
const follow = () => fireEvent.click(screen.getByRole('link', { name: 'Desk' }));

beforeEach(() => {
  router.push.mockClear();
  renderScreen(
    <LeaveGuard>
      <Form />
    </LeaveGuard>,
  );
});
afterEach(cleanup);

describe('a form with changes', () => {
  it('is asked about before a link is followed, and stays, or is left', () => {
    type('Mana');
    expect(follow()).toBe(false);
    press('Stay here');
    expect(router.push).not.toHaveBeenCalled();
    follow();
    press('Leave without saving');
    expect(router.push.mock.calls).toEqual([['/moor/desk']]);
  });

  it('is asked about before another is chosen in its place', () => {
    type('Mana');
    press('Another');
    expect(screen.queryByText('The other')).toBeNull();
    press('Leave without saving');
    expect(screen.getByText('The other')).toBeTruthy();
  });

  it('is asked about before the page is closed', () => {
    const closes = () => dispatchEvent(new Event('beforeunload', { cancelable: true }));
    expect(closes()).toBe(true);
    type('Mana');
    expect(closes()).toBe(false);
    type('');
    expect(closes()).toBe(true);
  });
});

it('a form without changes is left at once', () => {
  follow();
  press('Another');
  expect(screen.queryByText('Leave without saving?')).toBeNull();
  expect(screen.getByText('The other')).toBeTruthy();
});
