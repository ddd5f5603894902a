import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { createServer, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { listKeptMails } from '@/standins/mailbox/mailbox';
import { isMailReal, mailboxOf, mailerOf } from './mailer';

const MAIL = {
  to: 'ada@moor.example',
  subject: 'Post by hand: Ringe über dem Moor',
  text: 'Öffne es:\n\nhttps://plan.example/moor/by-hand/p',
  messageId: '<n@bimlo.invalid>',
};
const CLOCK = { now: () => '2026-11-25T14:30:00.000Z' };

let root: string;
let server: Server | undefined;
beforeEach(async () => (root = await mkdtemp(join(tmpdir(), 'bimlo-mail-'))));
afterEach(async () => {
  vi.unstubAllEnvs();
  server?.close();
  server = undefined;
  await rm(root, { recursive: true });
});

/** A mail server as small as can be (RFC 5321), that keeps what it was told. */
async function receiver(greeting: string): Promise<{ port: number; heard: () => string }> {
  let heard = '';
  let isData = false;
  server = createServer((socket) => {
    socket.write(`${greeting}\r\n`);
    socket.on('error', () => {});
    socket.on('data', (part) => {
      const text = part.toString();
      heard += text;
      if (isData) {
        if (!heard.endsWith('\r\n.\r\n')) return;
        isData = false;
        socket.write('250 taken\r\n');
      } else if (/^DATA/im.test(text)) {
        isData = true;
        socket.write('354 go on\r\n');
      } else if (/^QUIT/im.test(text)) socket.end('221 bye\r\n');
      else socket.write('250 fine\r\n');
    });
  });
  await new Promise<void>((resolve) => server!.listen(0, '127.0.0.1', resolve));
  return { port: (server.address() as { port: number }).port, heard: () => heard };
}

it('puts mails into the mailbox of the data folder until a server is set, one file each, as they would be sent', async () => {
  const mailer = mailerOf({ root }, CLOCK);
  await mailer(MAIL);
  await mailer({ ...MAIL, messageId: '<m@bimlo.invalid>' });
  const box = mailboxOf({ root });
  const names = await readdir(box);
  expect(names).toHaveLength(2);
  expect(names.every((name) => name.endsWith('.eml'))).toBe(true);
  expect(await readFile(join(box, names[0]!), 'utf8')).toMatch(/^From: Bimlo <bimlo@bimlo\.invalid>\r\n/);
  const [kept] = await listKeptMails(box, 1);
  expect(kept).toMatchObject({ to: MAIL.to, subject: MAIL.subject, date: CLOCK.now() });
  expect(kept!.text.trim()).toBe(MAIL.text);
  expect(await listKeptMails(join(root, 'nowhere'), 5)).toEqual([]);
  expect(isMailReal()).toBe(false);
});

it('hands mails to a real server where one is set', async () => {
  const { port, heard } = await receiver('220 harbour.example');
  vi.stubEnv('SMTP_URL', `smtp://127.0.0.1:${port}`);
  vi.stubEnv('MAIL_FROM', 'Moor <post@moor.example>');
  await mailerOf({ root }, CLOCK)(MAIL);
  expect(heard()).toContain('MAIL FROM:<post@moor.example>');
  expect(heard()).toContain('RCPT TO:<ada@moor.example>');
  expect(heard()).toContain('Message-ID: <n@bimlo.invalid>');
  expect(await readdir(root)).toEqual([]);
});

it('says why a server does not take a mail, or that it is gone', async () => {
  const { port } = await receiver('554 no mail here');
  vi.stubEnv('SMTP_URL', `smtp://127.0.0.1:${port}`);
  await expect(mailerOf({ root }, CLOCK)(MAIL)).rejects.toThrow(/no mail here|greeting/i);
  server!.close();
  vi.stubEnv('SMTP_URL', 'smtp://127.0.0.1:1');
  await expect(mailerOf({ root }, CLOCK)(MAIL)).rejects.toThrow(/ECONNREFUSED/);
});
