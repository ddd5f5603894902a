'use client';

import Link from 'next/link';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { FORMAT_LABELS } from '@/core/rulesheets/types';
import { STAGE_LABELS } from '@/core/stages/stages';
import { counted } from '@/core/words';
import type { ShownCorrection } from '@/usecases/corrections/reading';
import { CallSign } from '@/ui/CallSign';
import { Dialog } from '@/ui/Dialog';
import { shortDate } from '@/ui/format';
import { useMay, useShell } from '@/ui/shell';
import { CorrectedTexts } from '../../../sheet/CorrectedTexts';

type Targets = { id: string; version: number }[];

const targetsOf = (posts: readonly ShownCorrection[]): Targets => posts.map(({ id, version }) => ({ id, version }));

/** The posts that say what a piece said, each with its texts before and after, corrected or left in one step. */
export function CorrectionsDialog({
  title,
  unsent,
  out,
  isBusy,
  problem,
  onDecide,
  onClose,
}: {
  title: string;
  /** Those that are not out. */
  unsent: readonly ShownCorrection[];
  out: readonly ShownCorrection[];
  isBusy: boolean;
  problem: string | null;
  onDecide: (deed: 'correct' | 'leave', posts: Targets) => void;
  onClose: () => void;
}) {
  const may = useMay()('changePosts');
  const [unchosen, setUnchosen] = useState<ReadonlySet<string>>(new Set());
  const chosen = unsent.filter(({ id, texts }) => texts.length > 0 && !unchosen.has(id));

  function toggle(id: string) {
    const next = new Set(unchosen);
    if (!next.delete(id)) next.add(id);
    setUnchosen(next);
  }

  return (
    <Dialog
      title="The source changed"
      size="xl"
      onClose={onClose}
      onCancel={onClose}
      deeds={
        may && (
          <>
            <Button disabled={isBusy || chosen.length === 0} onClick={() => onDecide('correct', targetsOf(chosen))}>
              Correct {counted(chosen.length, 'post')}
            </Button>
            <Button
              variant="outline-primary"
              disabled={isBusy}
              onClick={() => onDecide('leave', targetsOf([...unsent, ...out]))}
            >
              Leave all as they are
            </Button>
          </>
        )
      }
    >
      <p className="soft">
        These posts were made from “{title}” before it was corrected. Scheduled ones are scheduled again with the new
        words; signed-off ones ask for a new sign-off.
      </p>
      <ul className="corrections">
        {unsent.map((post) => (
          <li key={post.id}>
            <label>
              <input
                type="checkbox"
                checked={!unchosen.has(post.id) && post.texts.length > 0}
                disabled={!may || post.texts.length === 0}
                onChange={() => toggle(post.id)}
              />
              <Face post={post} />
            </label>
            <CorrectedTexts texts={post.texts} gone={post.gone} />
          </li>
        ))}
      </ul>
      {out.length > 0 && (
        <section aria-label="Published with the old words">
          <h3>Published with the old words</h3>
          <ul className="corrections">
            {out.map((post) => (
              <li key={post.id}>
                <Face post={post} />
                {post.address && (
                  <a href={post.address} target="_blank" rel="noreferrer">
                    See it<span className="visually-hidden">: {post.title}</span>
                  </a>
                )}
                <CorrectedTexts texts={post.texts} gone={post.gone} />
              </li>
            ))}
          </ul>
        </section>
      )}
      {problem && (
        <p className="wrong" role="alert">
          {problem}
        </p>
      )}
    </Dialog>
  );
}

function Face({ post }: { post: ShownCorrection }) {
  const { brand, channels } = useShell();
  const channel = channels.find(({ id }) => id === post.channelId);
  return (
    <span className="corrections-face">
      {channel && <CallSign sign={channel.callSign} color={channel.color} name={channel.name} />}
      <Link
        dir="auto"
        href={`/${brand.slug}/calendar?post=${post.id}${post.date ? `&date=${post.date}` : ''}`}
        prefetch={false}
      >
        {post.title}
      </Link>
      <span className="soft small-text">
        {FORMAT_LABELS[post.format]} · <span className="figures">{post.date ? shortDate(post.date) : 'no date'}</span> ·{' '}
        {post.stage === 'setAside' ? 'set aside' : STAGE_LABELS[post.stage]}
        {post.isSignedOff && ' · signed off'}
      </span>
    </span>
  );
}
