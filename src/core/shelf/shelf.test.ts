import { describe, expect, it } from 'vitest';
import { insertedText, mentionOf, readAsset, readName, readShelfWords } from './shelf';

const item = { kind: 'quote' as const, title: ' First  look ', text: ' Who stuck it there? ', source: 'A visitor' };

describe('the shelf', () => {
  it('tidies what is put on it', () =>
    expect(readShelfWords(item)).toEqual({
      ok: true,
      value: { kind: 'quote', title: 'First look', text: 'Who stuck it there?', source: 'A visitor', fits: {} },
    }));

  it('gives hashtags their signs, each once', () =>
    expect(readShelfWords({ ...item, kind: 'hashtags', text: 'NightSky, #rings #RINGS' })).toMatchObject({
      value: { text: '#NightSky #rings' },
    }));

  it.each([
    [{ title: '  ' }, 'emptyTitle', 'title'],
    [{ text: ' ' }, 'emptyText', 'text'],
    [{ text: 'x'.repeat(10_001) }, 'longText', 'text'],
    [{ kind: 'link' as const, text: 'moor.example' }, 'badLink', 'text'],
    [{ kind: 'hashtags' as const, text: '#1 #2' }, 'badHashtag', 'text'],
  ])('refuses %j as %s', (change, code, field) =>
    expect(readShelfWords({ ...item, ...change })).toMatchObject({ ok: false, refusal: { code, field } }),
  );

  it('puts a quote in with its marks and source, everything else as it is', () => {
    expect(insertedText({ ...item, text: 'Why?' })).toBe('“Why?” (A visitor)');
    expect(insertedText({ ...item, text: 'Why?', source: '' })).toBe('“Why?”');
    expect(insertedText({ ...item, kind: 'reply', text: 'Yes.' })).toBe('Yes.');
  });
});

describe('names', () => {
  it('get their @, and lose empty handles', () =>
    expect(
      readName({ kind: 'person', name: 'Wen', handles: { glassrow: 'wen', pithline: ' @wensato', inkfold: ' ' } }),
    ).toEqual({
      ok: true,
      value: { kind: 'person', name: 'Wen', handles: { glassrow: '@wen', pithline: '@wensato' } },
    }));

  it.each(['two words', 'a@b', 'x'.repeat(101)])('refuse the handle %j', (handle) =>
    expect(readName({ kind: 'place', name: 'Dome', handles: { glassrow: handle } })).toMatchObject({
      ok: false,
      refusal: { code: 'badHandle' },
    }),
  );

  it('are said by handle where there is one', () => {
    const wen = { name: 'Wen', handles: { glassrow: '@wen' } };
    expect(mentionOf(wen, 'glassrow')).toBe('@wen');
    expect(mentionOf(wen, 'pithline')).toBe('Wen');
  });
});

describe('the brand sheet', () => {
  it('takes colours as hex', () => {
    expect(readAsset('colour', 'Night', ' #141c33 ')).toEqual({ ok: true, value: { name: 'Night', value: '#141C33' } });
    expect(readAsset('colour', 'Night', 'blue')).toMatchObject({ ok: false, refusal: { code: 'badColour' } });
  });
  it('takes fonts by any words', () =>
    expect(readAsset('font', 'Moor Serif', 'headlines')).toMatchObject({ ok: true, value: { value: 'headlines' } }));
});
