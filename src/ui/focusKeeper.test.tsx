// @vitest-environment jsdom
import { act, cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { useState } from 'react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { FocusKeeper } from './FocusKeeper';
import { MessagesProvider, useSay } from './messages';

afterEach(() => {
  cleanup();
  vi.useRealTimers();
});

/** A list whose rows go, a part that goes as a whole, and a button that is off while it works. */
function Page() {
  const [rows, setRows] = useState(['one', 'two', 'three']);
  const [isOpen, setOpen] = useState(true);
  const [isBusy, setBusy] = useState(false);
  return (
    <main>
      <FocusKeeper />
      <ul>
        {rows.map((row) => (
          <li key={row}>
            <button onClick={() => setRows(rows.filter((one) => one !== row))}>{row}</button>
          </li>
        ))}
      </ul>
      <button data-place="slip">slip</button>
      {isOpen && (
        <section data-focus-back='[data-place="slip"]'>
          <button onClick={() => setOpen(false)}>close</button>
        </section>
      )}
      <button disabled={isBusy} onClick={() => setBusy(true)}>
        save
      </button>
      <button onClick={() => setBusy(false)}>done</button>
    </main>
  );
}
const press = (name: string) => {
  const button = screen.getByRole('button', { name });
  act(() => button.focus());
  fireEvent.click(button);
};
const focused = () => document.activeElement?.textContent;

describe('the focus', () => {
  it('goes to what stands in the place of what went away, as long as there is something', async () => {
    render(<Page />);
    press('two');
    await waitFor(() => expect(focused()).toBe('three'));
    press('three');
    await waitFor(() => expect(focused()).toBe('one'));
    press('one');
    await waitFor(() => expect(document.activeElement).not.toBe(document.body));
  });

  it('goes back to where a part says, when that goes with all that is in it', async () => {
    render(<Page />);
    press('close');
    await waitFor(() => expect(focused()).toBe('slip'));
  });

  it('stays with a button that is off for a moment, and is let go by pressing on nothing', async () => {
    render(<Page />);
    press('save');
    fireEvent.click(screen.getByRole('button', { name: 'done' }));
    await waitFor(() => expect(focused()).toBe('save'));
    fireEvent.pointerDown(screen.getByRole('main'));
    act(() => (document.activeElement as HTMLElement).blur());
    press('two');
    fireEvent.pointerDown(screen.getByRole('main'));
    act(() => (document.activeElement as HTMLElement).blur());
    await act(() => Promise.resolve());
    expect(document.activeElement).toBe(document.body);
  });
});

function Talker({ undo }: { undo: () => void }) {
  const say = useSay();
  return (
    <>
      <button onClick={() => say({ text: 'Moved.', deed: { label: 'Undo', run: undo } })}>move</button>
      <button onClick={() => say({ text: 'Not moved.', wrong: true })}>fail</button>
    </>
  );
}

describe('a message', () => {
  it('is polite unless something failed, and its Undo is had by a key', () => {
    const undo = vi.fn();
    render(
      <MessagesProvider>
        <Talker undo={undo} />
      </MessagesProvider>,
    );
    fireEvent.click(screen.getByRole('button', { name: 'move' }));
    expect(screen.getByText('Moved.').closest('[aria-live]')!.getAttribute('aria-live')).toBe('polite');
    expect(screen.queryByRole('alert')).toBeNull();
    fireEvent.keyDown(document.body, { key: 'u', code: 'KeyU' });
    expect(undo).toHaveBeenCalledTimes(1);
    expect(screen.queryByText('Moved.')).toBeNull();
    fireEvent.click(screen.getByRole('button', { name: 'fail' }));
    expect(screen.getByRole('alert').textContent).toContain('Not moved.');
  });

  it('goes by itself, but not while somebody points at it', () => {
    vi.useFakeTimers();
    render(
      <MessagesProvider>
        <Talker undo={vi.fn()} />
      </MessagesProvider>,
    );
    fireEvent.click(screen.getByRole('button', { name: 'move' }));
    const messages = document.querySelector('.messages')!;
    fireEvent.pointerEnter(messages);
    act(() => void vi.advanceTimersByTime(60_000));
    expect(screen.queryByText('Moved.')).not.toBeNull();
    fireEvent.pointerLeave(messages);
    act(() => void vi.advanceTimersByTime(13_000));
    expect(screen.queryByText('Moved.')).toBeNull();
  });
});
