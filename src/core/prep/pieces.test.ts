import { describe, expect, it } from 'vitest';
import { KIND_LABELS, PIECE_KINDS } from '../pieces/kinds';
import { earliestDay } from '../pieces/piece';
import { partsWith } from '../posts/parts';
import { FORMATS } from '../rulesheets/types';
import { capital, withArticle } from '../words';
import { progressOfSteps } from './progress';
import { SHIPPED_PREP } from './shipped';
import { readPrep } from './step';
import { ofPiece, PIECE_SUBJECTS, PREP_SUBJECTS, SUBJECT_LABELS } from './subject';

describe('what a prep sheet is for', () => {
  it('is every format and every kind of piece, each once and with a name', () => {
    expect(PREP_SUBJECTS).toHaveLength(FORMATS.length + PIECE_KINDS.length);
    expect(new Set(PREP_SUBJECTS).size).toBe(PREP_SUBJECTS.length);
    for (const subject of PREP_SUBJECTS) expect(SUBJECT_LABELS[subject]).toMatch(/^[a-z ]+$/);
  });

  it('tells an article that is posted from one that is a piece', () => {
    expect(ofPiece('article')).not.toBe('article');
    expect(SUBJECT_LABELS[ofPiece('article')]).toBe(KIND_LABELS.article);
  });

  it.each(PIECE_SUBJECTS)('ships with steps that may be kept, in the order of their days: %s', (subject) => {
    const lines = SHIPPED_PREP[subject];
    expect(readPrep(lines)).toMatchObject({ ok: true });
    expect(lines.map(({ lead }) => lead)).toEqual(lines.map(({ lead }) => lead).sort((a, b) => b - a));
  });

  it('asks nothing of a plain message', () => expect(SHIPPED_PREP['piece:message']).toEqual([]));
});

describe('the progress of steps', () => {
  const step = (work: 'words' | 'editing', lead: number, doneOn: string | null = null) => ({ work, lead, doneOn });
  it('counts those before publishing, by sort of work in the order of the work', () =>
    expect(
      progressOfSteps([step('editing', 2), step('words', 5, '2026-11-20'), step('words', 0), step('words', -1)]),
    ).toEqual([
      { work: 'words', done: 1, all: 2 },
      { work: 'editing', done: 0, all: 1 },
    ]));
  it('is none without steps', () => expect(progressOfSteps([])).toEqual([]));
});

describe('the earliest day of posts', () => {
  it.each([
    [[], null],
    [[null], null],
    [['2026-12-02', null, '2026-11-30'], '2026-11-30'],
    [['2027-01-01', '2026-12-31'], '2026-12-31'],
  ])('of %j is %s', (days, expected) => expect(earliestDay(days)).toBe(expected));
});

describe('parts beside the pictures of now', () => {
  const part = (id: string, pictureId: string | null) => ({ id, text: id, pictureId });
  it('lose a picture that was taken away, and keep their words and order', () =>
    expect(partsWith([part('1', 'a'), part('2', 'gone'), part('3', null)], [{ id: 'a' }, { id: 'b' }])).toEqual([
      part('1', 'a'),
      part('2', null),
      part('3', null),
    ]));
});

describe('words', () => {
  it.each([
    ['talk', 'a talk'],
    ['episode', 'an episode'],
    ['article', 'an article'],
    ['Editor', 'an Editor'],
  ])('%s has its article', (noun, expected) => expect(withArticle(noun)).toBe(expected));
  it('begin a sentence', () => expect([capital('a photo'), capital('')]).toEqual(['A photo', '']));
});
