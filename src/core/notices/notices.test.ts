import { describe, expect, it } from 'vitest';
import { mailOfNotice, mailWaitMs } from './mail';
import { isLead, NOTICE_KINDS, noticeWords, placeOfNotice, type Notice } from './notice';
import { afterQuiet, readMailAddress } from './ways';

const NOTICE: Notice = {
  ...{ id: 'n', kind: 'dueByHand', postId: 'p', title: 'Rings', channel: 'Homestoop', isSettled: false, readAt: null },
  brand: { slug: 'moor', name: 'Moor', zone: 'Europe/Lisbon' },
  madeAt: '2026-11-25T14:15:00.000Z',
  dueAt: '2026-11-25T14:30:00.000Z',
};

it('a notice says what is to be done with which post, on the clock of its brand, and leads there', () => {
  expect(noticeWords(NOTICE)).toBe('“Rings” on Homestoop is to be posted by hand: Wed 25 Nov 14:30.');
  expect(placeOfNotice(NOTICE)).toBe('/moor/by-hand/p');
  expect(new Set(NOTICE_KINDS.map((kind) => noticeWords({ ...NOTICE, kind }))).size).toBe(NOTICE_KINDS.length);
  expect(placeOfNotice({ ...NOTICE, kind: 'held' })).toBe('/moor/calendar?post=p');
  expect([0, 30, 1440, -1, 1441, 2.5].map(isLead)).toEqual([true, true, true, false, false, false]);
});

it('a mail leads to the same place, at the address that Bimlo is opened at, and its subject is one line', () => {
  const mail = mailOfNotice(
    { ...NOTICE, title: 'Rings\r\nBcc: x@y.example' },
    'ada@moor.example',
    'https://plan.example',
  );
  expect(mail.subject).toBe('Post by hand: Rings Bcc: x@y.example (Moor)');
  expect(mail.text).toContain('https://plan.example/moor/by-hand/p');
  expect(mail.messageId).toBe('<n@bimlo.invalid>');
  expect([1, 2, 3, 20].map((tries) => mailWaitMs(tries) / 60_000)).toEqual([1, 2, 4, 60]);
});

describe('a mail address', () => {
  it.each(['', 'ada@moor.example', ' ada.brook+post@mail.moor.example '])('may be “%s”', (text) =>
    expect(readMailAddress(text)).toEqual({ ok: true, value: text.trim() }),
  );
  it.each([
    'ada',
    'ada@moor',
    'a@b.example, c@d.example',
    'Ada <a@b.example>',
    'a@b.example\r\nBcc: c',
    `${'a'.repeat(250)}@b.example`,
  ])('is never “%s”', (text) => expect(readMailAddress(text).ok).toBe(false));
});

describe('quiet hours', () => {
  const night = { from: '21:00', to: '07:30' };
  it.each([
    ['2026-11-25T20:59:00.000Z', '2026-11-25T20:59:00.000Z'],
    ['2026-11-25T21:00:00.000Z', '2026-11-26T07:30:00.000Z'],
    ['2026-11-26T07:29:00.000Z', '2026-11-26T07:30:00.000Z'],
    ['2026-11-26T07:30:00.000Z', '2026-11-26T07:30:00.000Z'],
    // Over the night in which the clocks go forward.
    ['2027-03-27T22:00:00.000Z', '2027-03-28T06:30:00.000Z'],
  ])('let what comes at %s go at %s', (now, then) => expect(afterQuiet(now, 'Europe/Lisbon', night)).toBe(then));

  it('may lie within a day, or be none', () => {
    const noon = { from: '12:00', to: '13:00' };
    expect(afterQuiet('2026-11-25T12:30:00.000Z', 'Europe/Lisbon', noon)).toBe('2026-11-25T13:00:00.000Z');
    expect(afterQuiet('2026-11-25T12:30:00.000Z', 'Europe/Lisbon', null)).toBe('2026-11-25T12:30:00.000Z');
  });
});
