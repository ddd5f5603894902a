import { notFound, redirect } from 'next/navigation';
import { bimlo } from '@/runtime/bimlo';
import { isMailReal, mailboxOf } from '@/runtime/mailer';
import { listKeptMails } from '@/standins/mailbox/mailbox';
import { loadWays } from '@/usecases/notices/ways';
import { isDemo, whoAsks } from '../../server/who';

/** Mails that are shown, the last ones. */
const SHOWN = 50;

/** The mailbox that ships with Bimlo: what would go out by mail. Outside of a demo everybody finds their own there. */
export default async function MailboxPage() {
  if (isMailReal()) notFound();
  const app = await bimlo();
  const who = (await whoAsks(app)) ?? redirect('/sign-in?to=/standins/mailbox');
  const { mailAddress } = await loadWays(app.db, who.id);
  const mails = (await listKeptMails(mailboxOf(app.folder), SHOWN)).filter(({ to }) => isDemo() || to === mailAddress);
  return (
    <main className="notice-board">
      <header>
        <h1>Mailbox</h1>
        <p className="soft">
          A stand-in that comes with Bimlo: what goes out by mail stands here, until a mail server is set (
          <code>SMTP_URL</code>).
        </p>
      </header>
      {mails.length === 0 && <p className="soft">No mail went out yet.</p>}
      {mails.map(({ name, to, subject, text, date }) => (
        <article key={name} data-mail={to}>
          <div className="soft small-text">
            <b>{to}</b> · <span className="figures">{date.slice(0, 16).replace('T', ' ')} UTC</span>
          </div>
          <h2 dir="auto">{subject}</h2>
          <p dir="auto" className="mail-text">
            {linked(text)}
          </p>
        </article>
      ))}
    </main>
  );
}

/** A text with its addresses as links. */
const linked = (text: string) =>
  text.split(/(\bhttps?:\/\/\S+)/).map((part, at) =>
    at % 2 === 1 ? (
      <a key={at} href={part}>
        {part}
      </a>
    ) : (
      part
    ),
  );
