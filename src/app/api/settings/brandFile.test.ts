import { afterEach, beforeEach, expect, it } from 'vitest';
import fc from 'fast-check';
import type { BrandFile, BrandFilePart } from '@/core/exchange/brandFile';
import type { Fits } from '@/core/shelf/fits';
import { SHELF_KINDS } from '@/core/shelf/shelf';
import { BLANK_STEP } from '@/core/prep/step';
import type { Refusal } from '@/core/refusal';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import { readBrandFileText } from '@/app/server/brandFileFields';
import { keepPillar } from '@/usecases/brands/themes';
import { bringBrandFile } from '@/usecases/exchange/brandFile';
import { makeWorld, valueOf } from '@/usecases/testWorld';
import { undoChange } from '@/usecases/undo/undoChange';
import { makeApp, send, type TestApp } from '../testApp';
import { GET, POST } from './file/route';

let app: TestApp;
beforeEach(async () => void (app = await makeApp()));
afterEach(() => app.close());

const taken = async (): Promise<BrandFile> => (await (await send(GET, { query: 'brand=moor' })).json()) as BrandFile;

async function bring(text: string, apply: '' | 'whole') {
  const body = new FormData();
  body.set('brandId', app.brandId);
  body.set('apply', apply);
  body.set('file', new File([text], 'moor.json'));
  const response = await send(POST, { body });
  return { status: response.status, body: (await response.json()) as BrandFilePart[] & { refusal?: Refusal } };
}

const word = fc
  .string({ unit: 'grapheme-ascii', minLength: 1, maxLength: 12 })
  .map((text) => `x${text.replace(/ +/g, ' ').trim()}`);
const day = fc.integer({ min: 1, max: 28 }).map((of) => `2026-12-${String(of).padStart(2, '0')}`);

const ROW = {
  ...{ network: 'photoFeed' as const, format: 'photo' as const, count: 2 },
  ...{ source: { of: 'whole' as const }, offset: 1, gap: 2 },
};

/** Settings of any kind, as they may be set. */
const anyFile: fc.Arbitrary<BrandFile> = fc.record({
  ...{ kind: fc.constant('bimlo brand settings' as const), edition: fc.constant(1) },
  shelf: fc.uniqueArray(
    fc.record({
      ...{ kind: fc.constantFrom(...SHELF_KINDS.filter((kind) => kind !== 'link' && kind !== 'hashtags')) },
      ...{ title: word, text: word, source: word },
      fits: fc.constantFrom<Fits>({}, { weekdays: [1, 3] }, { kinds: ['talk'], about: 'bells', until: '2027-01-05' }),
    }),
    { maxLength: 4, selector: ({ kind, title }) => `${kind} ${title.toLowerCase()}` },
  ),
  names: fc.uniqueArray(
    fc.record({
      ...{ kind: fc.constantFrom('person' as const, 'place' as const), name: word },
      handles: fc.constantFrom<Record<string, string>>({}, { pithline: '@dome', glassrow: '@dome.night' }),
    }),
    { maxLength: 3, selector: ({ kind, name }) => `${kind} ${name.toLowerCase()}` },
  ),
  rhythms: fc.uniqueArray(
    fc.record({
      channel: fc.constantFrom('PL', 'GR', 'CW'),
      entries: fc.uniqueArray(
        fc.record({
          recurrence: fc.integer({ min: 1, max: 7 }).map((weekday) => ({ kind: 'weekly' as const, weekday, every: 1 })),
          ...{
            time: fc.constantFrom('09:00', '14:30'),
            format: fc.constant(null),
            until: fc.constantFrom(null, '17:00'),
          },
          ...{ theme: fc.constantFrom('', 'Sky') },
          ...{
            pillar: fc.constantFrom('', 'Night sky'),
            from: fc.constantFrom(null, '2026-12-01'),
            to: fc.constant(null),
          },
        }),
        { minLength: 1, maxLength: 3, selector: ({ recurrence, time }) => `${recurrence.weekday} ${time}` },
      ),
      pauses: fc.array(
        day.map((from) => ({ name: 'Rest', from, to: '2026-12-31' })),
        { maxLength: 1 },
      ),
    }),
    { maxLength: 3, selector: ({ channel }) => channel },
  ),
  ruleSheets: fc.constantFrom(
    [],
    [{ ...SHIPPED_RULE_SHEETS[0]!, hashtagLimit: 3 }],
    [{ ...SHIPPED_RULE_SHEETS[0]!, slug: 'harbour-board', name: 'Harbour board', automatic: false }],
  ),
  prepSheets: fc.uniqueArray(
    fc.record({
      subject: fc.constantFrom('photo' as const, 'carousel' as const, 'piece:talk' as const),
      lines: fc.array(
        fc
          .record({ title: word, who: fc.constantFrom('', 'Mana'), lead: fc.integer({ min: -9, max: 9 }) })
          .map((line) => {
            const { ownerId: _ownerId, ...blank } = BLANK_STEP;
            return { ...blank, ...line };
          }),
        { maxLength: 3 },
      ),
    }),
    { maxLength: 2, selector: ({ subject }) => subject },
  ),
  fanOuts: fc.constantFrom<BrandFile['fanOuts']>(
    [],
    [
      {
        ...{ slug: 'moon-week', name: 'Moon week', for: 'talk' as const, isStanding: true },
        rows: [ROW],
      },
    ],
  ),
});

it('settings go out as JSON and come in again the same, into the same brand and into an empty folder', async () => {
  const pillar = { name: 'Night sky', color: '#123456' };
  valueOf(await keepPillar(app.work, app.brandId, null, pillar));
  await fc.assert(
    fc.asyncProperty(anyFile, async (asked) => {
      const brought = await bring(JSON.stringify(asked), 'whole');
      expect(brought.status, JSON.stringify(brought.body)).toBe(200);
      expect(brought.body.filter(({ becomes }) => becomes === 'leftOut')).toEqual([]);
      const out = await taken();
      const same = await bring(JSON.stringify(out), 'whole');
      expect(same.body.every(({ becomes }) => becomes === 'same')).toBe(true);
      for (const part of ['shelf', 'names', 'rhythms', 'prepSheets', 'fanOuts'] as const)
        expect(out[part]).toEqual(expect.arrayContaining<unknown>(asked[part]));
      const empty = await makeWorld();
      try {
        valueOf(await keepPillar(empty.work, empty.brandId, null, pillar));
        const file = valueOf(readBrandFileText(JSON.stringify(out)));
        valueOf(await bringBrandFile(empty.work, empty.brandId, file));
        const again = valueOf(await bringBrandFile(empty.work, empty.brandId, file));
        expect(again.filter(({ becomes }) => becomes !== 'same')).toEqual([]);
      } finally {
        await empty.close();
      }
    }),
    { numRuns: 6 },
  );
}, 300_000);

it('knows what it brought in again, however it was spaced', async () => {
  const spaced = {
    ...{ kind: 'bimlo brand settings', edition: 1 },
    shelf: [{ kind: 'reply', title: 'Thank  you', text: ' Thanks! ', source: ' us ' }],
    names: [{ kind: 'person', name: ' Ada  Pell', handles: { pithline: 'ada' } }],
    prepSheets: [{ subject: 'story', lines: [{ ...BLANK_STEP, ownerId: undefined, title: 'Draw  it', who: '' }] }],
    fanOuts: [{ slug: 'odd', name: 'Odd  week', for: 'talk', isStanding: false, rows: [ROW] }],
  };
  const first = await bring(JSON.stringify(spaced), 'whole');
  expect(first.body.map(({ becomes }) => becomes)).not.toContain('leftOut');
  const again = await bring(JSON.stringify(spaced), 'whole');
  expect(again.body.map(({ becomes }) => becomes)).toEqual(['same', 'same', 'same', 'same']);
});

it('is looked at before it comes in, names what may not, and is undone part by part', async () => {
  const file = {
    ...{ kind: 'bimlo brand settings', edition: 1 },
    shelf: [
      { kind: 'reply', title: 'Thanks', text: 'Thank you!', source: '' },
      { kind: 'link', title: 'Site', text: 'no link', source: '' },
    ],
    rhythms: [{ channel: 'ZZ', entries: [], pauses: [] }],
    prepSheets: [{ subject: 'photo', lines: [{ ...BLANK_STEP, ownerId: undefined, title: 'Draw', who: 'Zoe' }] }],
  };
  const seen = await bring(JSON.stringify(file), '');
  expect(seen.body.map(({ what, becomes }) => [what, becomes])).toEqual([
    ['Reply “Thanks”', 'new'],
    ['Link “Site”', 'leftOut'],
    ['Rhythm of ZZ', 'leftOut'],
    ['Prep sheet: photo', 'leftOut'],
  ]);
  expect((await taken()).shelf).toEqual([]);
  const told = await bring(JSON.stringify(file), 'whole');
  expect(told.body[1]).toMatchObject({
    becomes: 'leftOut',
    reason: expect.stringContaining('begins with http') as string,
  });
  expect((await taken()).shelf).toHaveLength(1);
  valueOf(await undoChange(app.work, app.brandId, null));
  expect((await taken()).shelf).toEqual([]);
});

const HEAD = '{"kind":"bimlo brand settings","edition":1';
it.each([
  ['{', 'not JSON'],
  ['[]', 'no file of a brand’s settings'],
  ['null', 'no file of a brand’s settings'],
  [`${HEAD},"ruleSheets":[{"slug":"x","caption":1}]}`, 'ruleSheets, number 1'],
  [`${HEAD},"shelf":[${Array(2_001).fill('{}').join(',')}]}`, 'shelf has to have at most 2000 entries.'],
  ['{"kind":"other","edition":1}', 'no file of a brand’s settings'],
  ['{"kind":"bimlo brand settings","edition":2}', 'another Bimlo'],
  ['{"kind":"bimlo brand settings","edition":1,"shelf":[{"kind":"reply"}]}', 'shelf, number 1, '],
  ['{"kind":"bimlo brand settings","edition":1,"users":[]}', 'users'],
  [`${'['.repeat(200_000)}${']'.repeat(200_000)}`, 'not JSON'],
])('%# is refused', async (text, message) => {
  const { status, body } = await bring(text, 'whole');
  expect([status, body.refusal?.message]).toEqual([422, expect.stringContaining(message)]);
});

it('is a manager’s', async () => {
  app.actAs(app.otherWork.actorId);
  expect((await send(GET, { query: 'brand=moor' })).status).toBe(403);
  expect((await bring('{}', '')).status).toBe(403);
});

it('tells before what would be left out, and the same when it is brought in', async () => {
  const has = await taken();
  const entry = {
    ...{ recurrence: { kind: 'weekly' as const, weekday: 2, every: 1 }, time: '99:99', format: null, theme: '' },
    ...{ pillar: '', from: null, to: null },
  };
  const file = JSON.stringify({
    ...has,
    shelf: [{ kind: 'reply', title: '', text: 'Thank you', source: '' }],
    rhythms: [{ channel: 'PL', entries: [entry], pauses: [] }],
    ruleSheets: [{ ...has.ruleSheets[0]!, name: 'x'.repeat(100_000) }],
  });
  for (const apply of ['', 'whole'] as const) {
    const left = (await bring(file, apply)).body.filter(({ becomes }) => becomes === 'leftOut');
    expect(left.map(({ reason }) => reason)).toEqual([
      expect.stringContaining('name'),
      'Give it a title: a few words are enough.',
      expect.stringContaining('99:99'),
    ]);
    expect(JSON.stringify(left).length).toBeLessThan(1_000);
  }
});
