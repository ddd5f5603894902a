'use client';

import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { Encores, Lasting } from '@/core/encores/encores';
import { FORMAT_LABELS } from '@/core/rulesheets/types';
import { localOf } from '@/core/time/plan';
import { counted } from '@/core/words';
import type { loadEncores, ShownEncore } from '@/usecases/encores/loadEncores';
import { CallSign } from '@/ui/CallSign';
import { dayMonth } from '@/ui/format';
import { Only, useMay, useShell } from '@/ui/shell';
import { TermHint } from '@/ui/TermHint';
import { useDeed } from '@/ui/useDeed';
import { WordButton } from '@/ui/WordButton';
import { PiecesNav } from '../PiecesNav';

const RepeatDialog = dynamic(() => import('../../repeats/RepeatDialog').then((module) => module.RepeatDialog), {
  ssr: false,
});
const AgainDialog = dynamic(() => import('../../again/AgainDialog').then((module) => module.AgainDialog), {
  ssr: false,
});

type Shown = Awaited<ReturnType<typeof loadEncores>>;

const KINDS: { kind: keyof Encores; heading: string; says: string }[] = [
  { kind: 'ranked', heading: 'Did well', says: 'by how well, and how long ago' },
  { kind: 'unranked', heading: 'Too few numbers to tell', says: 'the oldest first' },
];

/** Published posts worth doing again: what was said then, how it did, and the way to use it again. */
export function EncoresScreen({ encores, minDays }: { encores: Shown; minDays: number }) {
  const { brand } = useShell();
  const [again, setAgain] = useState<ShownEncore | null>(null);
  const [repeated, setRepeated] = useState<ShownEncore | null>(null);
  const kinds = KINDS.filter(({ kind }) => encores[kind].shown.length > 0);
  return (
    <>
      <header className="place-head">
        <h1>
          <TermHint term="encore">Encores</TermHint>
        </h1>
        <PiecesNav />
        <span className="soft push">published at least {minDays} days ago, and not planned again</span>
      </header>
      <div className="place-body">
        {kinds.length === 0 && (
          <div className="empty">
            <h2>Nothing to do again yet</h2>
            <p>
              What was published {minDays} days ago or longer and did well stands here. A manager sets how long in the
              brand’s settings.
            </p>
          </div>
        )}
        {kinds.map(({ kind, heading, says }) => (
          <section key={kind} aria-labelledby={`encores-${kind}`}>
            <h2 id={`encores-${kind}`}>
              {heading}{' '}
              <span className="soft small-text">
                {encores[kind].hasMore ? 'the first ' : ''}
                {counted(encores[kind].shown.length, 'post')}: {says}
              </span>
            </h2>
            <ul className="encores">
              {encores[kind].shown.map((encore) => (
                <EncoreRow
                  key={encore.id}
                  encore={encore}
                  onAgain={() => setAgain(encore)}
                  onRepeat={() => setRepeated(encore)}
                />
              ))}
            </ul>
          </section>
        ))}
      </div>
      {again && <AgainDialog post={{ ...again, isPublished: true }} onClose={() => setAgain(null)} />}
      {repeated && (
        <RepeatDialog
          from={{ ...repeated, ...localOf(repeated.publishedAt, brand.zone), postId: repeated.id }}
          change={null}
          onClose={() => setRepeated(null)}
        />
      )}
    </>
  );
}

const percent = (share: number): string => `${(share * 100).toLocaleString('en-GB', { maximumFractionDigits: 1 })}%`;

function EncoreRow({ encore, onAgain, onRepeat }: { encore: ShownEncore; onAgain: () => void; onRepeat: () => void }) {
  const { brand, channels } = useShell();
  const channel = channels.find(({ id }) => id === encore.channelId)!;
  const on = localOf(encore.publishedAt, brand.zone).date;
  return (
    <li data-encore={encore.id}>
      {encore.picture ? (
        <img src={`/api/media/${encore.picture}?size=thumb`} alt="" loading="lazy" />
      ) : (
        <span className="encore-no-picture" />
      )}
      <div>
        <div className="encore-head">
          <CallSign sign={channel.callSign} color={channel.color} name={channel.name} />
          <Link dir="auto" href={`/${brand.slug}/calendar?post=${encore.id}&date=${on}`} prefetch={false}>
            {encore.title}
          </Link>
          <span className="soft small-text">
            {FORMAT_LABELS[encore.format]}, <span className="figures">{dayMonth(on)}</span>,{' '}
            {counted(encore.ageDays, 'day')} ago
          </span>
        </div>
        <p className="encore-said" dir="auto">
          {encore.headline && <b>{encore.headline}. </b>}
          {encore.caption}
        </p>
      </div>
      <HowItDid encore={encore} />
      <div className="encore-deeds">
        <div className="d-flex-row">
          <Only deed="changePosts">
            <Button size="sm" variant="outline-primary" onClick={onAgain} aria-label={`Use “${encore.title}” again`}>
              Use again…
            </Button>
          </Only>
          <Only deed="runRepeats">
            <WordButton onClick={onRepeat} aria-label={`Repeat “${encore.title}”`}>
              Repeat…
            </WordButton>
          </Only>
        </div>
        <LastingChoice encore={encore} />
      </div>
    </li>
  );
}

/** How a post did beside the others of its channel and format: a line from the worst to the best, and its place on it. */
function HowItDid({ encore: { percentile, among, rate, engagement, format } }: { encore: ShownEncore }) {
  if (!rate || engagement === null) return <div className="soft small-text">no numbers</div>;
  return (
    <div className="small-text">
      <div className="figures">
        {percent(rate.value)} <span className="soft">of {rate.of === 'reach' ? 'the people reached' : 'views'}</span>
      </div>
      {percentile === null ? (
        <span className="soft">
          only {among} with numbers as {FORMAT_LABELS[format].toLowerCase()} here
        </span>
      ) : (
        <>
          <div className="encore-line" aria-hidden>
            <span style={{ left: `${percentile * 100}%` }} />
          </div>
          <span className="soft">
            {percentile === 1
              ? `the best of ${among}`
              : `better than ${Math.floor(percentile * (among - 1))} of the other ${among - 1}`}
          </span>
        </>
      )}
    </div>
  );
}

/** Whether a post may come again: while it did well, or never. */
function LastingChoice({ encore: { id, title } }: { encore: ShownEncore }) {
  const router = useRouter();
  const may = useMay();
  const { run, busy } = useDeed();
  async function choose(lasting: Lasting) {
    await run('POST', `/api/posts/${id}/lasting`, { lasting });
    router.refresh();
  }
  return (
    <Form.Select
      size="sm"
      aria-label={`When “${title}” may come again`}
      title="When it may come again"
      value=""
      disabled={busy || !may('changePosts')}
      onChange={(event) => void choose(event.target.value as Lasting)}
    >
      <option value="">Reuse if it did well</option>
      <option value="dated">Never: out of date</option>
    </Form.Select>
  );
}
