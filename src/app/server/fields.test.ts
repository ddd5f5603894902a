import { describe, expect, it } from 'vitest';
import { date, fields, format, id, ids, text, time, version } from './fields';
import { readBody } from './request';

const schema = fields({
  version,
  title: text('Title'),
  date,
  time: time.optional(),
  channelIds: ids('Channels').optional(),
  format: format.optional(),
});
const ask = (body: unknown) =>
  readBody(
    new Request('http://x', { method: 'POST', body: typeof body === 'string' ? body : JSON.stringify(body) }),
    schema,
  );
const good = { version: 1, title: 'Moon', date: null };

describe('reading a request', () => {
  it('takes what fits, texts untouched', async () =>
    expect(await ask({ ...good, title: '  Moon ' })).toEqual({ ok: true, value: { ...good, title: '  Moon ' } }));

  it.each([
    ['no JSON', '{', 'notJson', undefined],
    ['a missing version', { ...good, version: undefined }, 'badField', 'version'],
    ['a number for a title', { ...good, title: 7 }, 'badField', 'title'],
    ['a date that no calendar has', { ...good, date: '2026-02-31' }, 'badField', 'date'],
    ['a time that no clock shows', { ...good, time: '25:00' }, 'badField', 'time'],
    ['a channel that is no id', { ...good, channelIds: ['x'] }, 'badField', 'channelIds[0]'],
    ['a format that does not exist', { ...good, format: 'hologram' }, 'badField', 'format'],
    ['a field that does not exist', { ...good, colour: 'red' }, 'badField', undefined],
  ])('refuses %s and names the field', async (_name, body, code, field) => {
    const read = await ask(body);
    expect(read.ok || [read.refusal.code, read.refusal.field]).toEqual([code, field]);
  });

  it('says the mend for a date', async () => {
    const read = await ask({ ...good, date: '2026-02-31' });
    expect(read.ok || read.refusal.message).toBe('There is no 2026-02-31. That month ends on the 28.');
  });

  it('refuses more than it takes at once', async () => {
    const read = await ask({ ...good, title: 'x'.repeat(6_000_001) });
    expect(read.ok || read.refusal.code).toBe('tooBig');
  });

  it('asks for an id where one is needed', async () => {
    await expect(id('Brand').validate('7')).rejects.toThrow('Brand is not an identifier.');
    await expect(id('Brand').validate(undefined)).rejects.toThrow('Brand is missing.');
  });
});

it.each([
  [null, 'What was sent is missing.'],
  [[], 'What was sent has to be an object with fields.'],
  [{ ...good, version: 1.5 }, 'version has to be a whole number.'],
  [{ ...good, channelIds: 7 }, 'channelIds has to be a list.'],
  [{ ...good, channelIds: [null] }, 'channelIds, number 1 is missing.'],
])('says in plain words what is wrong with %j', async (body, message) =>
  expect(await ask(body)).toMatchObject({ ok: false, refusal: { message } }),
);
