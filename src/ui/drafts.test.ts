import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { chosenDraft, chosenIn, claimDrafts, dropDraft, editOf, isClaimed, keepDraft, listDrafts } from './drafts';
import { drawnFor } from './personOnScreen';

/** The browser's storage, as far as drafts use it. */
class MemoryStorage {
  private readonly kept = new Map<string, string>();
  full = false;
  get length() {
    return this.kept.size;
  }
  key = (index: number) => [...this.kept.keys()][index] ?? null;
  getItem = (key: string) => this.kept.get(key) ?? null;
  setItem = (key: string, value: string) => {
    if (this.full) throw new DOMException('full', 'QuotaExceededError');
    this.kept.set(key, value);
  };
  removeItem = (key: string) => void this.kept.delete(key);
}

let storage: MemoryStorage;
beforeEach(() => {
  storage = new MemoryStorage();
  vi.stubGlobal('localStorage', storage);
});
afterEach(() => vi.unstubAllGlobals());

const draft = { at: '/api/posts/a', field: 'caption', text: 'new', base: 'old', version: 3 } as const;

describe('drafts', () => {
  it('are kept for each post and field, the last text winning', () => {
    keepDraft({ ...draft, text: 'n' });
    keepDraft(draft);
    keepDraft({ ...draft, field: 'link' });
    keepDraft({ ...draft, at: '/api/posts/b' });
    expect(listDrafts('/api/posts/a')).toEqual([draft, { ...draft, field: 'link' }]);
    expect(listDrafts()).toHaveLength(3);
  });

  it('are those of the person on screen: who comes after them has none, and finds their own again', () => {
    drawnFor('ada');
    keepDraft(draft);
    drawnFor('bo');
    expect([listDrafts(), listDrafts('/api/posts/a')]).toEqual([[], []]);
    keepDraft({ ...draft, text: 'of Bo' });
    drawnFor('ada');
    expect(listDrafts()).toEqual([draft]);
    drawnFor('');
  });

  it('go when their text is saved', () => {
    keepDraft(draft);
    dropDraft('/api/posts/a', 'caption');
    dropDraft('/api/posts/a', 'caption');
    expect(listDrafts()).toEqual([]);
  });

  it('leave what others keep in the storage alone', () => {
    storage.setItem('other', 'not ours');
    keepDraft(draft);
    expect(listDrafts()).toEqual([draft]);
  });

  it('say when the browser keeps nothing', () => {
    storage.full = true;
    expect(keepDraft(draft)).toBe(false);
  });

  it('are left to the editors that have them on screen, until the last of those is gone', () => {
    const [one, other] = [claimDrafts('/api/posts/a'), claimDrafts('/api/posts/a')];
    one();
    expect(isClaimed('/api/posts/a')).toBe(true);
    other();
    expect(isClaimed('/api/posts/a')).toBe(false);
    expect(isClaimed('/api/pieces/a')).toBe(false);
  });

  it('of parts are told by the id of their part', () => {
    expect(editOf({ caption: 'x' })).toEqual({ caption: 'x' });
    expect(editOf({ caption: 'x', 'part:1': 'y', 'part:2': '' })).toEqual({
      caption: 'x',
      partTexts: { 1: 'y', 2: '' },
    });
  });

  it('of something chosen are told as what was chosen', () => {
    const chosen = chosenDraft('/api/pieces/a', 'channelIds', ['pl'], [], 3);
    expect([chosenIn(chosen), chosenIn(draft)]).toEqual(['channelIds', null]);
    expect(editOf({ [chosen.field]: chosen.text })).toEqual({ channelIds: ['pl'] });
  });
});
