'use client';

import { Only } from '@/ui/shell';
import Button from 'react-bootstrap/Button';
import { FORMAT_LABELS } from '@/core/rulesheets/types';
import type { PostSheet } from '@/core/posts/sheet';
import { dayAndTime } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { usePostDeed } from './usePostDeed';
import type { PostEditor } from './usePostEditor';

/** What nobody knows of a post that may be out, and what went out otherwise than its sheet showed: both want a decision. */
export function WhatBecameOfIt({
  editor,
  sheet,
  zone,
  onOpen,
}: {
  editor: PostEditor;
  sheet: PostSheet;
  zone: string;
  /** Opens the post that was made of what was not sent. */
  onOpen: (postId: string) => void;
}) {
  const say = useSay();
  const { doIt, busy } = usePostDeed(editor, sheet.id);
  const [unsure] = sheet.maybeOut;
  const { takenDown } = sheet;
  const isPublished = sheet.stage === 'published';
  const isSending = sheet.stage === 'scheduled' && ['waiting', 'sending'].includes(sheet.delivery?.state ?? '');
  return (
    <>
      {unsure && !isSending && (
        <div className="notice is-wrong" role="status">
          <b>It may be published{isPublished ? ' twice' : ''}.</b>{' '}
          {unsure.isTried
            ? `A try on ${unsure.networkName} got no answer (${dayAndTime(unsure.since, zone)}).`
            : `The data was restored (${dayAndTime(unsure.since, zone)}), and what ${unsure.networkName} has of it since is not known yet.`}{' '}
          {unsure.isAsked
            ? 'Bimlo keeps asking, and sends nothing more of it until it knows.'
            : 'The network does not say, so please look.'}
          <div className="deeds">
            <a
              className="btn btn-outline-primary btn-sm"
              href={`/standins/${unsure.network}`}
              target="_blank"
              rel="noreferrer"
            >
              Look on {unsure.networkName}
            </a>
            <Only deed="send">
              <Button size="sm" variant="outline-primary" disabled={busy} onClick={() => void doIt('askNow')}>
                Ask now
              </Button>
              <Button size="sm" variant="outline-primary" disabled={busy} onClick={() => void doIt('notOut')}>
                {isPublished ? 'It is published once' : 'It is not published'}
              </Button>
            </Only>
          </div>
          {!isPublished && (
            <Only deed="send">
              <p className="soft small-text">If it is published, mark it as published with its address.</p>
            </Only>
          )}
        </div>
      )}
      {takenDown && (
        <div className={takenDown.doneAt === null ? 'notice is-wrong' : 'notice'} role="status">
          <b>
            {takenDown.doneAt === null
              ? 'It is to be taken down by hand.'
              : `It was taken down ${dayAndTime(takenDown.doneAt, zone)}.`}
          </b>{' '}
          <span dir="auto">{takenDown.reason}</span>
          {takenDown.doneAt === null && (
            <Only deed="send">
              <div className="deeds">
                {sheet.address && (
                  <a className="btn btn-outline-primary btn-sm" href={sheet.address} target="_blank" rel="noreferrer">
                    See it there
                  </a>
                )}
                <Button size="sm" variant="outline-primary" disabled={busy} onClick={() => void doIt('sayTakenDown')}>
                  It is gone
                </Button>
              </div>
            </Only>
          )}
        </div>
      )}
      {isPublished && sheet.delivery?.isPractice && (
        <p className="soft small-text">Practice: it went to a made-up network, nobody can read it.</p>
      )}
      {sheet.notSent && (
        <div className="notice" role="status">
          <b>It was sent with other text than what was typed last.</b> This sheet shows what was sent. Not sent:
          <pre className="not-sent">{sheet.notSent.words.caption || sheet.notSent.words.headline || 'no caption'}</pre>
          <p className="soft small-text">
            {FORMAT_LABELS[sheet.notSent.format]}, {sheet.notSent.pictures}{' '}
            {sheet.notSent.pictures === 1 ? 'picture' : 'pictures'}
          </p>
          <Only deed="send">
            <div className="deeds">
              <Button size="sm" variant="outline-primary" disabled={busy} onClick={() => void doIt('leaveAsSent')}>
                Keep what was sent
              </Button>
              <Button size="sm" variant="outline-primary" disabled={busy} onClick={() => void makeAnother()}>
                Make a new post from these words
              </Button>
            </div>
          </Only>
        </div>
      )}
    </>
  );

  async function makeAnother() {
    const made = await doIt('sendAnew');
    if (!made?.outcome.postId) return;
    say({ text: 'A new post has what was not sent. Schedule it when it is right.' });
    onOpen(made.outcome.postId);
  }
}
