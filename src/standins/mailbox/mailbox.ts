import { mkdir, readdir, readFile, rename, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { createTransport } from 'nodemailer';
import PostalMime from 'postal-mime';
import type { Mail } from '@/core/notices/mail';

/** A mail as the mailbox shows it. */
interface KeptMail {
  name: string;
  to: string;
  from: string;
  subject: string;
  text: string;
  /** As it says itself: an ISO instant; empty where it does not. */
  date: string;
}

/**
 * The stand-in for a mail server: every mail becomes a file of its own in a folder, as it would go over the wire (RFC 5322, `.eml`).
 *
 * @param from who sends
 * @param now gives the date that mails bear
 */
export function mailboxIn(folder: string, from: string, now: () => string): (mail: Mail) => Promise<void> {
  const transport = createTransport({ streamTransport: true, buffer: true, newline: 'windows' });
  return async ({ to, subject, text, messageId }) => {
    const date = now();
    const { message } = await transport.sendMail({ from, to, subject, text, messageId, date: new Date(date) });
    await mkdir(folder, { recursive: true });
    const name = `${date.replaceAll(':', '-')} ${messageId.replace(/[^\w-]/g, '').slice(0, 36)}.eml`;
    // Whole or not at all: somebody may look into the folder meanwhile.
    await writeFile(join(folder, `.${name}.part`), message as Buffer);
    await rename(join(folder, `.${name}.part`), join(folder, name));
  };
}

/** The mails of a mailbox, the last ones first. */
export async function listKeptMails(folder: string, most: number): Promise<KeptMail[]> {
  const names = await readdir(folder).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return [];
    throw error;
  });
  const last = names
    .filter((name) => name.endsWith('.eml') && !name.startsWith('.'))
    .sort()
    .reverse()
    .slice(0, most);
  return Promise.all(
    last.map(async (name) => {
      const mail = await PostalMime.parse(await readFile(join(folder, name)));
      const address = (one: { address?: string } | undefined) => one?.address ?? '';
      return {
        name,
        to: (mail.to ?? []).map(address).join(', '),
        from: address(mail.from),
        subject: mail.subject ?? '',
        text: mail.text ?? '',
        date: mail.date ?? '',
      };
    }),
  );
}
