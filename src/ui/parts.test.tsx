// @vitest-environment jsdom
import { act, cleanup, fireEvent, renderHook, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { NO_UNDO, recordChange } from '@/core/captions/undo';
import { ChannelChoice } from './ChannelChoice';
import { InPlace } from './InPlace';
import { insertText } from './insertText';
import { useSay, type Message } from './messages';
import { drawnFor, personOnScreen } from './personOnScreen';
import { fakeServer, renderOnScreen, renderScreen } from './testScreen';
import { keepUndoStack, undoStackOf } from './undoStore';
import { useDeed } from './useDeed';
import { useInTurn } from './useInTurn';
import { useUploads } from './useUploads';
import { Weekdays } from './Weekdays';

afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('a date or time edited in place', () => {
  const open = (type: 'date' | 'time', value: string) => {
    const onCommit = vi.fn();
    renderScreen(<InPlace label="When" type={type} value={value} shown={value || 'none'} onCommit={onCommit} />);
    fireEvent.click(screen.getByRole('button'));
    return { onCommit, field: screen.getByLabelText('When') };
  };
  const type = (field: HTMLElement, value: string) => fireEvent.change(field, { target: { value } });

  it.each([
    ['1430', '14:30'],
    ['9', '09:00'],
    ['2.15 pm', '14:15'],
    ['', ''],
  ])('takes a time as people type it: %s', (typed, expected) => {
    const { onCommit, field } = open('time', '08:00');
    type(field, typed);
    fireEvent.keyDown(field, { key: 'Enter' });
    expect(onCommit).toHaveBeenCalledWith(expected);
  });

  it('keeps what is no time in the field, marked', () => {
    const { onCommit, field } = open('time', '08:00');
    type(field, 'noonish');
    fireEvent.blur(field);
    expect(onCommit).not.toHaveBeenCalled();
    expect(screen.getByLabelText('When').getAttribute('aria-invalid')).toBe('true');
  });

  it('keeps the old on Escape, and says nothing where nothing changed', () => {
    const { onCommit, field } = open('date', '2026-12-01');
    type(field, '2026-12-02');
    fireEvent.keyDown(field, { key: 'Escape' });
    expect(screen.getByRole('button').textContent).toBe('2026-12-01');
    fireEvent.click(screen.getByRole('button'));
    fireEvent.blur(screen.getByLabelText('When'));
    expect(onCommit).not.toHaveBeenCalled();
  });
});

describe('putting a text where the caret stands', () => {
  const field = (value: string, start: number, end = start) => {
    const area = document.createElement('textarea');
    document.body.append(area);
    area.value = value;
    area.setSelectionRange(start, end);
    return area;
  };

  it.each([
    ['into nothing', '', 0, 0, '#stars', '#stars'],
    ['behind a word', 'See', 3, 3, '#stars', 'See #stars'],
    ['before a word', 'tonight', 0, 0, '#stars', '#stars tonight'],
    ['between words', 'See tonight', 4, 4, '#stars', 'See #stars tonight'],
    ['in place of what is marked', 'See it tonight', 4, 6, '@rosa', 'See @rosa tonight'],
    ['an emoji as close as it is put', 'See', 3, 3, '🌠', 'See🌠'],
    ['before a full stop', 'See.', 3, 3, '@rosa', 'See @rosa.'],
  ])('%s', (_name, value, start, end, text, expected) => {
    const area = field(value, start, end);
    const typed = vi.fn();
    area.addEventListener('input', typed);
    insertText(area, text);
    expect([area.value, typed.mock.calls.length, document.activeElement]).toEqual([expected, 1, area]);
    area.remove();
  });
});

describe('one after another', () => {
  const later = <T,>(value: T, ms: number) => new Promise<T>((resolve) => setTimeout(() => resolve(value), ms));

  it('keeps the order, however long each takes', async () => {
    vi.useFakeTimers();
    const { result } = renderHook(() => useInTurn());
    const seen: string[] = [];
    const works = [30, 10, 0].map((ms, index) =>
      result.current(async () => {
        seen.push(`begin ${index}`);
        await later(null, ms);
        seen.push(`end ${index}`);
        return index;
      }),
    );
    await vi.advanceTimersByTimeAsync(100);
    expect(await Promise.all(works)).toEqual([0, 1, 2]);
    expect(seen).toEqual(['begin 0', 'end 0', 'begin 1', 'end 1', 'begin 2', 'end 2']);
  });

  it('goes on after one that failed, which its caller learns', async () => {
    const { result } = renderHook(() => useInTurn());
    const failing = result.current(() => Promise.reject(new Error('broken')));
    const next = result.current(async () => 'done');
    await expect(failing).rejects.toThrow('broken');
    expect(await next).toBe('done');
  });
});

describe('messages', () => {
  function Speaker({ message }: { message: Message }) {
    const say = useSay();
    return (
      <button type="button" onClick={() => say(message)}>
        speak
      </button>
    );
  }
  const speak = (message: Message) => {
    renderScreen(<Speaker message={message} />);
    fireEvent.click(screen.getByText('speak'));
  };
  beforeEach(() => void vi.useFakeTimers());
  const wait = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

  it('go by themselves, those with a deed later', async () => {
    speak({ text: 'Saved.' });
    await wait(4_900);
    expect(screen.queryByText('Saved.')).not.toBeNull();
    await wait(200);
    expect(screen.queryByText('Saved.')).toBeNull();
    cleanup();
    speak({ text: 'Deleted.', deed: { label: 'Undo', run: vi.fn() } });
    await wait(11_900);
    expect(screen.queryByText('Deleted.')).not.toBeNull();
    await wait(200);
    expect(screen.queryByText('Deleted.')).toBeNull();
  });

  it('that tell of something wrong stay until they are closed', async () => {
    speak({ text: 'Not saved.', wrong: true });
    await wait(60_000);
    fireEvent.click(screen.getByRole('button', { name: 'Close this message' }));
    expect(screen.queryByText('Not saved.')).toBeNull();
  });

  it('offer a deed once', () => {
    const run = vi.fn();
    speak({ text: 'Deleted.', deed: { label: 'Undo', run } });
    fireEvent.click(screen.getByText('Undo'));
    expect([run.mock.calls.length, screen.queryByText('Deleted.')]).toEqual([1, null]);
  });

  it('are four at most', () => {
    speak({ text: 'Again.' });
    for (let n = 0; n < 6; n++) fireEvent.click(screen.getByText('speak'));
    expect(screen.getAllByText('Again.')).toHaveLength(4);
  });
});

describe('a deed on the server', () => {
  it('is busy while it is done, and says why it was not', async () => {
    fakeServer(() => ({ refusal: { code: 'no', message: 'Not today.' } }));
    const { result } = renderOnScreen(() => useDeed());
    let answer: unknown;
    await act(async () => {
      const running = result.current.run('POST', '/api/x', {});
      answer = await running;
    });
    expect(answer).toMatchObject({ kind: 'refused' });
    expect([result.current.busy, screen.queryByText('Not today.') !== null]).toEqual([false, true]);
  });
});

describe('taking several files in', () => {
  const files = ['a', 'b', 'c'].map((name) => new File(['x'], `${name}.jpg`));
  const refused = (code: string) => ({ kind: 'refused', refusal: { code, message: `${code}!` } }) as const;

  it('goes one after the other and tells what was refused', async () => {
    const { result } = renderHook(() =>
      useUploads(async ({ name }) => (name === 'b.jpg' ? refused('notAPicture') : { kind: 'done', value: {} })),
    );
    let outcome: unknown;
    await act(async () => void (outcome = await result.current.take(files)));
    expect(outcome).toEqual({
      taken: 2,
      refused: [{ fileName: 'b.jpg', problem: 'notAPicture!' }],
      stopped: false,
    });
    expect(result.current.progress).toBeNull();
  });

  it.each(['diskFull', 'tooManyPictures', 'notYours'])(
    'ends where no further file could be taken: %s',
    async (code) => {
      const send = vi.fn(async () => refused(code));
      const { result } = renderHook(() => useUploads(send));
      await act(async () => void (await result.current.take(files)));
      expect(send).toHaveBeenCalledTimes(1);
    },
  );

  it('is stopped between two files', async () => {
    const { result } = renderHook(() =>
      useUploads(async ({ name }) => {
        if (name === 'a.jpg') result.current.stop();
        return { kind: 'done', value: {} };
      }),
    );
    let outcome: unknown;
    await act(async () => void (outcome = await result.current.take(files)));
    expect(outcome).toEqual({ taken: 1, refused: [], stopped: true });
  });
});

describe('a screen', () => {
  it('says for whom it was drawn, before anything below it asks', () => {
    drawnFor('somebody else');
    const seen: string[] = [];
    const Below = () => void seen.push(personOnScreen());
    renderScreen(<Below />);
    expect(seen[0]).toBe('mana');
  });
});

describe('steps back kept in the tab', () => {
  it('survive a reload, and a full store lets them go', () => {
    sessionStorage.clear();
    keepUndoStack('a', 'caption', recordChange(NO_UNDO, 'One', 'Two', 0));
    expect(undoStackOf('a', 'caption')).toEqual({ past: ['One'], future: [], at: -Infinity });
    expect(undoStackOf('a', 'title')).toEqual(NO_UNDO);
    const full = vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    keepUndoStack('a', 'caption', recordChange(NO_UNDO, 'One', 'Three', 0));
    full.mockRestore();
    expect(undoStackOf('a', 'caption')).toEqual(NO_UNDO);
  });
});

describe('choices of several', () => {
  it('weekdays are added in their order and taken away', () => {
    const onChange = vi.fn();
    renderScreen(<Weekdays legend="Works on" chosen={[3]} onChange={onChange} />);
    fireEvent.click(screen.getByLabelText('Mon'));
    expect(onChange).toHaveBeenLastCalledWith([1, 3]);
    fireEvent.click(screen.getByLabelText('Wed'));
    expect(onChange).toHaveBeenLastCalledWith([]);
  });

  it('channels are added and taken away', () => {
    const onChange = vi.fn();
    renderScreen(<ChannelChoice legend="For" chosen={[]} onChange={onChange} />);
    fireEvent.click(screen.getByLabelText(/Pithline/));
    expect(onChange).toHaveBeenLastCalledWith(['pl']);
    cleanup();
    renderScreen(<ChannelChoice legend="For" chosen={['pl']} onChange={onChange} />);
    fireEvent.click(screen.getByLabelText(/Pithline/));
    expect(onChange).toHaveBeenLastCalledWith([]);
  });
});
