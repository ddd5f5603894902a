import { noticeWords, placeOfNotice, type Notice } from './notice';

/** A mail as it is handed to whoever carries it. */
export interface Mail {
  to: string;
  subject: string;
  text: string;
  /** Tells it from any other; sent again it is the same (RFC 5322, 3.6.4). */
  messageId: string;
}

const SUBJECTS: Record<Notice['kind'], string> = {
  dueByHand: 'Post by hand',
  notSent: 'Not sent',
  unsure: 'Not known whether it is out',
  held: 'Held back',
  takeDown: 'Take down by hand',
};

/** A notice as a mail. @param base the address that Bimlo is opened at */
export function mailOfNotice(notice: Notice, to: string, base: string): Mail {
  return {
    to,
    subject: `${SUBJECTS[notice.kind]}: ${notice.title} (${notice.brand.name})`.replace(/\s+/g, ' '),
    text: [
      noticeWords(notice),
      `Open it: ${new URL(placeOfNotice(notice), base).href}`,
      `You get this because your mail address stands in Bimlo. It is changed, and quiet hours are set, here: ${
        new URL(`/${notice.brand.slug}/notices`, base).href
      }`,
    ].join('\n\n'),
    messageId: `<${notice.id}@bimlo.invalid>`,
  };
}

/** When a mail that could not be handed over is tried again, in milliseconds from then: a minute, two, four, up to an hour. */
export const mailWaitMs = (tries: number): number => Math.min(60, 2 ** Math.max(0, tries - 1)) * 60_000;

/** How long after its notice a mail is still worth sending, in milliseconds. */
export const MAIL_WORTH_MS = 24 * 3_600_000;
