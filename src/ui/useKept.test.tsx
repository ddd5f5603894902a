// @vitest-environment jsdom
import { act, renderHook } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { useKept } from './useKept';

afterEach(() => sessionStorage.clear());
const open = (place = 'idea.new', initial = { title: '', note: 'usual' }) =>
  renderHook(() => useKept(place, initial)).result;

it('what is typed is there again when the dialog is opened again, until it is done', () => {
  const first = open();
  expect(first.current.wasKept).toBe(false);
  act(() => first.current.set({ title: 'Rings' }));
  act(() => first.current.set({ note: 'At dusk' }));
  const again = open();
  expect(again.current).toMatchObject({ wasKept: true, typed: { title: 'Rings', note: 'At dusk' } });
  expect(open('idea.other').current.typed).toEqual({ title: '', note: 'usual' });
  again.current.forget();
  expect(open().current.typed).toEqual({ title: '', note: 'usual' });
});

it('what nobody typed is not kept, and two changes at once are both there', () => {
  const first = open();
  act(() => first.current.fill({ note: 'filled in' }));
  expect(first.current.typed.note).toBe('filled in');
  expect(open().current.wasKept).toBe(false);
  act(() => {
    first.current.set({ title: 'Moon' });
    first.current.set({ note: 'both' });
  });
  expect(open().current.typed).toEqual({ title: 'Moon', note: 'both' });
});

it('a browser without room loses the copy, not what is typed', () => {
  const full = vi.spyOn(Storage.prototype, 'setItem').mockImplementation(() => {
    throw new DOMException('full', 'QuotaExceededError');
  });
  const first = open();
  act(() => first.current.set({ title: 'Rings' }));
  full.mockRestore();
  expect(first.current.typed.title).toBe('Rings');
  expect(open().current.wasKept).toBe(false);
});
