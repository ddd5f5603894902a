import { afterEach, beforeEach, expect, it } from 'vitest';
import type { Mail } from '@/core/notices/mail';
import { declareOut, schedulePost } from '../delivery/schedule';
import { codeOf, makeWorld, valueOf, type TestWorld } from '../testWorld';
import { sendMails } from './mail';
import { tellPeople } from './tell';
import { loadWays, mailTrouble, setWays } from './ways';

let world: TestWorld;
let mails: Mail[];
let down: boolean;
beforeEach(async () => {
  world = await makeWorld();
  [mails, down] = [[], false];
  valueOf(await setWays(world.work, { mailAddress: 'ada@moor.example', quiet: null }));
});
afterEach(() => world.close());

async function dueAt(time: string) {
  const post = await world.makePost('homestoop', { date: '2026-11-23', time });
  valueOf(await schedulePost(world.work, post.id, post.version));
  return world.post(post.id);
}
const mailer = (mail: Mail) => {
  if (down) return Promise.reject(new Error('nobody answers'));
  mails.push(mail);
  return Promise.resolve();
};
/** What goes on by itself at that time of the day. @returns mails handed over */
async function at(time: string) {
  world.goTo(`2026-11-23T${time}:00.000Z`);
  await tellPeople(world.work);
  return sendMails(world.work, mailer, 'https://plan.example');
}

it('what is due by hand is mailed once, with the way to it', async () => {
  const post = await dueAt('14:30');
  expect([await at('14:29'), await at('14:30'), await at('14:31')]).toEqual([0, 1, 0]);
  expect(mails).toMatchObject([{ to: 'ada@moor.example' }]);
  expect(mails[0]!.text).toContain(`https://plan.example/moor/by-hand/${post.id}`);
});

it('a mail that nobody takes is tried again, later each time, and not lost', async () => {
  await dueAt('14:30');
  down = true;
  await at('14:30');
  await at('14:31');
  const [row] = await world.db.rows('select mail_tries, mail_problem from notices');
  expect(row).toEqual({ mail_tries: 2, mail_problem: 'nobody answers' });
  expect(await mailTrouble(world.db, world.work.actorId)).toBe('nobody answers');
  down = false;
  expect([await at('14:32'), await at('14:33'), await at('14:34')]).toEqual([0, 1, 0]);
  expect(await mailTrouble(world.db, world.work.actorId)).toBeNull();
});

it('a mail that is given up after a day is still told of', async () => {
  await dueAt('14:30');
  down = true;
  await at('14:30');
  world.goTo('2026-11-24T15:00:00.000Z');
  down = false;
  expect(await sendMails(world.work, mailer, 'https://plan.example')).toBe(0);
  expect(await mailTrouble(world.db, world.work.actorId)).toBe('nobody answers');
});

it('nobody is mailed in quiet hours, nor of what was dealt with meanwhile', async () => {
  valueOf(await setWays(world.work, { mailAddress: 'ada@moor.example', quiet: { from: '14:00', to: '16:00' } }));
  const [kept, done] = [await dueAt('14:30'), await dueAt('14:40')];
  expect([await at('14:30'), await at('15:59')]).toEqual([0, 0]);
  valueOf(await declareOut(world.work, done.id, done.version, ''));
  expect(await at('16:00')).toBe(1);
  expect(mails[0]!.text).toContain(kept.id);
});

it('who gives no address is not mailed, and none is taken that is none', async () => {
  expect(codeOf(await setWays(world.work, { mailAddress: 'ada', quiet: null }))).toBe('badMailAddress');
  const same = { mailAddress: '', quiet: { from: '08:00', to: '08:00' } };
  expect(codeOf(await setWays(world.work, same))).toBe('badQuiet');
  valueOf(await setWays(world.work, { mailAddress: '', quiet: { from: '21:00', to: '07:00' } }));
  expect(await loadWays(world.db, world.work.actorId)).toEqual({
    mailAddress: '',
    quiet: { from: '21:00', to: '07:00' },
  });
  await dueAt('14:30');
  expect(await at('14:30')).toBe(0);
});
