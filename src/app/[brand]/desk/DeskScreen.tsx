'use client';

import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import type { Fitness } from '@/core/delivery/departure';
import { askedFor } from '@/core/rhythm/entry';
import { daysOf } from '@/core/rhythm/horizon';
import type { Opening } from '@/core/rhythm/openings';
import { addDays } from '@/core/time/days';
import { counted } from '@/core/words';
import type { BatchDayLine } from '@/usecases/prep/reading';
import type { DeskView } from '@/usecases/desk/loadDesk';
import type { ShownHold } from '@/usecases/delivery/holdAll';
import type { Departure } from '@/usecases/delivery/loadDepartures';
import type { DeskSteps } from '@/usecases/desk/loadDeskSteps';
import { CallSign } from '@/ui/CallSign';
import { shortDate, spokenDate } from '@/ui/format';
import { FirstChannel } from '@/ui/FirstChannel';
import { HorizonBar } from '@/ui/HorizonBar';
import { Notches } from '@/ui/Notches';
import { Only, useMay, useShell } from '@/ui/shell';
import type { WaitingProposal } from '@/usecases/proposals/proposals';
import { Proposals } from './Proposals';
import { BatchDays } from './BatchDays';
import { PersonChoice } from './PersonChoice';
import { StepList } from './StepList';
import { CarryOver } from '../departures/CarryOver';
import { HoldNotice } from '../departures/HoldAll';
import { useRefresh } from '@/ui/useRefresh';
import { WordButton } from '@/ui/WordButton';
import { TermHint } from '@/ui/TermHint';

const NewPostDialog = dynamic(() => import('../calendar/NewPostDialog').then((module) => module.NewPostDialog), {
  ssr: false,
});

/** How often the desk is read anew, over the brand's midnight too, in milliseconds. */
const REFRESH_EVERY_MS = 15_000;
/** Posts listed that were not sent. */
const IN_TROUBLE_SHOWN = 8;
/** Gaps listed below the first. */
const GAPS_SHOWN = 8;

const FITNESS_WORDS: Record<Fitness, { words: string; isWrong?: boolean }> = {
  fit: { words: 'ready to send' },
  notScheduled: { words: 'not scheduled' },
  notFit: { words: 'something is missing', isWrong: true },
  sending: { words: 'sending now' },
  retrying: { words: 'trying again' },
  failed: { words: 'failed', isWrong: true },
  held: { words: 'on hold', isWrong: true },
  awaitsRelease: { words: 'waits to be released', isWrong: true },
  heldWithAll: { words: 'on hold with all others' },
  unknown: { words: 'may be published', isWrong: true },
  handOver: { words: 'by hand, now' },
  handOverToCome: { words: 'by hand' },
  out: { words: 'published' },
};

/** One person's today: what leaves on the left, the horizons and the next gap on the right. */
export function DeskScreen({
  desk,
  steps,
  batchDays,
  proposals,
  personId,
  today,
  aims,
  hold = null,
}: {
  desk: DeskView;
  steps: DeskSteps;
  batchDays: readonly BatchDayLine[];
  proposals: readonly WaitingProposal[];
  /** Whose desk it is. */
  personId: string;
  today: string;
  aims: Readonly<Record<string, number>>;
  /** That all of the brand is on hold; null while it is not. */
  hold?: ShownHold | null;
}) {
  const { brand, brands, channels, people, me } = useShell();
  const may = useMay();
  const person = people.find(({ id }) => id === personId) ?? me;
  const router = useRouter();
  const [starting, setStarting] = useState<Opening | null>(null);
  const channelOf = (id: string) => channels.find((channel) => channel.id === id);
  const { inTrouble, leaves, week, near, horizons, gaps } = desk;
  useRefresh(REFRESH_EVERY_MS);
  const [first, ...rest] = gaps;
  const tomorrow = addDays(today, 1);
  const calendar = `/${brand.slug}/calendar`;
  const rhythmAt = (channelId: string) => `/${brand.slug}/settings/rhythm?channel=${channelId}`;
  return (
    <>
      <header className="place-head">
        <h1>{spokenDate(today)}</h1>
        <span className="soft">
          <PersonChoice slug={person.slug} /> · this week {counted(week.all, 'post')}: {week.out} published,{' '}
          {week.notSent > 0 && `${week.notSent} not sent, `}
          {week.ready} ready, {week.all - week.out - week.notSent - week.ready} not ready
          {brands.length > 1 && <> · steps of all your brands, the rest of {brand.name}</>}
          {proposals.length > 0 && (
            <>
              {' '}
              · <a href="#drawn-up">{counted(proposals.length, 'post')} drawn up for you</a>
            </>
          )}
        </span>
      </header>
      <div className="place-body desk">
        <div>
          <StepList key={person.id} steps={steps} person={person} />
          <Proposals key={`proposals ${person.id}`} proposals={proposals} />
          <BatchDays batchDays={batchDays} />
        </div>
        <div>
          {hold && <HoldNotice hold={hold} />}
          {inTrouble.length > 0 && (
            <section aria-label="Not sent">
              <h2>
                Not sent <span className="figures wrong">{inTrouble.length}</span>
                <Link className="small-text push" href={`/${brand.slug}/departures`} prefetch={false}>
                  Departures
                </Link>
              </h2>
              {inTrouble.slice(0, IN_TROUBLE_SHOWN).map((row) => (
                <LeavingRow
                  key={row.slip.id}
                  row={row}
                  day={row.slip.date === today ? null : shortDate(row.slip.date!)}
                  color={channelOf(row.slip.channelId)?.color}
                  href={`${calendar}?date=${row.slip.date}&post=${row.slip.id}`}
                />
              ))}
              {inTrouble.length > IN_TROUBLE_SHOWN && (
                <p className="soft small-text">and {inTrouble.length - IN_TROUBLE_SHOWN} more</p>
              )}
              {inTrouble.some(({ slip }) => slip.date! < today) && (
                <Only deed="changePosts">
                  <div className="carry-over-deed">
                    <CarryOver />
                  </div>
                </Only>
              )}
            </section>
          )}
          {[
            { name: 'To send today', rows: leaves.filter(({ slip }) => slip.date === today) },
            { name: 'To send tomorrow', rows: leaves.filter(({ slip }) => slip.date === tomorrow) },
          ].map(({ name, rows }) => (
            <section key={name} aria-label={name}>
              <h2>
                {name} <span className="figures soft">{rows.length}</span>
                <Link className="small-text push" href={`/${brand.slug}/departures`} prefetch={false}>
                  Departures
                </Link>
              </h2>
              {rows.map((row) => (
                <LeavingRow
                  key={row.slip.id}
                  row={row}
                  color={channelOf(row.slip.channelId)?.color}
                  href={`${calendar}?post=${row.slip.id}`}
                />
              ))}
              {rows.length === 0 && <p className="soft">Nothing is planned to be sent.</p>}
            </section>
          ))}
          <section aria-label="Near and not ready">
            <h2>
              Near and not ready <span className="figures soft">{near.length}</span>
              <Link className="small-text push" href={`${calendar}?as=list&lacks=readyNear`} prefetch={false}>
                As a list
              </Link>
            </h2>
            {near.map((slip) => (
              <div className="desk-row" key={slip.id}>
                <span className="figures when">
                  {slip.date === today ? 'today' : shortDate(slip.date!)} {slip.time}
                </span>
                <CallSign sign={slip.callSign} color={channelOf(slip.channelId)?.color ?? 'currentcolor'} />
                <Link dir="auto" href={`${calendar}?date=${slip.date}&post=${slip.id}`} prefetch={false}>
                  {slip.title}
                </Link>
                <span className="push attention">{slip.missing ?? ''}</span>
                <Notches stage={slip.stage} />
              </div>
            ))}
            {near.length === 0 && (
              <p className="soft">
                {inTrouble.length > 0
                  ? 'Everything else in the next three days is ready.'
                  : 'Everything in the next three days is ready.'}
              </p>
            )}
          </section>
          <section aria-label="Horizon">
            <h2>
              <TermHint term="horizon">Horizon</TermHint>
            </h2>
            <FirstChannel whatFor="A horizon says how far ahead a channel is filled." />
            {[...horizons]
              .sort((a, b) => reachDays(a.planned) / a.aimDays - reachDays(b.planned) / b.aimDays)
              .map((horizon) => {
                const channel = channelOf(horizon.channelId);
                return (
                  channel && (
                    <div className="desk-row is-horizon" key={horizon.channelId}>
                      <CallSign sign={channel.callSign} color={channel.color} />
                      <span className="name">{channel.name}</span>
                      <HorizonBar horizon={horizon} today={today} rhythmAt={rhythmAt(horizon.channelId)} />
                      <span className="soft small-text">target {aims[horizon.channelId]}</span>
                    </div>
                  )
                );
              })}
          </section>
          <section aria-label="Next opening">
            {first ? (
              <div className="next-gap">
                <h2>
                  Next opening: {dayWord(first.date, today)}, {first.time} on {channelOf(first.channelId)?.name}
                </h2>
                <p className="soft">
                  {askedFor(first)
                    ? `The rhythm asks for ${askedFor(first)}.`
                    : 'The rhythm does not say what it should be.'}{' '}
                  {gaps.length === 1 ? 'It is the only opening' : `${gaps.length} openings`} in the next two weeks.
                </p>
                <Only deed="changePosts">
                  <Button onClick={() => setStarting(first)}>Start a post there</Button>{' '}
                </Only>
                <Link className="btn btn-outline" href={`${calendar}?date=${first.date}`} prefetch={false}>
                  Look at that week
                </Link>
              </div>
            ) : (
              <p className="soft">No opening in the next two weeks.</p>
            )}
            {rest.slice(0, GAPS_SHOWN).map((gap) => (
              <div className="desk-row" key={gap.key}>
                <span className="figures when">
                  {shortDate(gap.date)} {gap.time}
                </span>
                <CallSign
                  sign={channelOf(gap.channelId)?.callSign ?? ''}
                  color={channelOf(gap.channelId)?.color ?? 'currentcolor'}
                />
                <span className="soft">{askedFor(gap) || 'anything'}</span>
                <WordButton
                  className="push"
                  aria-label={`Start a post on ${channelOf(gap.channelId)?.name}, ${shortDate(gap.date)} ${gap.time}`}
                  disabled={!may('changePosts')}
                  onClick={() => setStarting(gap)}
                >
                  Start a post
                </WordButton>
              </div>
            ))}
            {rest.length > GAPS_SHOWN && <p className="soft small-text">and {rest.length - GAPS_SHOWN} more</p>}
          </section>
        </div>
      </div>
      {starting && (
        <NewPostDialog
          date={starting.date}
          time={starting.time}
          channelId={starting.channelId}
          opening={starting}
          ideas={desk.ideas.filter(({ suggestedChannelIds }) => suggestedChannelIds.includes(starting.channelId))}
          onMade={(made) => router.push(`${calendar}?date=${starting.date}&post=${made[0]!.id}`)}
          onClose={() => setStarting(null)}
        />
      )}
    </>
  );
}

const reachDays = (reach: DeskView['horizons'][number]['planned']): number => daysOf(reach) ?? Infinity;

const dayWord = (date: string, today: string): string =>
  date === today ? 'today' : date === addDays(today, 1) ? 'tomorrow' : shortDate(date);

function LeavingRow({
  row,
  day = null,
  color,
  href,
}: {
  row: Departure;
  /** Its day in words; null where its place tells. */
  day?: string | null;
  color: string | undefined;
  href: string;
}) {
  const { words, isWrong } = FITNESS_WORDS[row.fitness];
  return (
    <div className="desk-row">
      <span className="figures when">{day ?? row.slip.time ?? 'no time'}</span>
      <CallSign sign={row.slip.callSign} color={color ?? 'currentcolor'} />
      <Link dir="auto" href={href} prefetch={false}>
        {row.slip.title}
      </Link>
      <span className={`push ${isWrong ? 'wrong' : row.fitness === 'out' ? 'soft' : ''}`}>
        {row.fitness === 'notFit' ? (row.slip.missing ?? words) : words}
      </span>
    </div>
  );
}
