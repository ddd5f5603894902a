import type { Metadata } from 'next';
import Link from 'next/link';
import { groupBy } from '@/core/group';
import { proposeRhythm, type Practised } from '@/core/rhythm/propose';
import { addDays, startOfWeek } from '@/core/time/days';
import { FirstChannel } from '@/ui/FirstChannel';
import { NotForYou } from '../NotForYou';
import { brandOfPage } from '@/app/server/brand';
import { listPauses, listPractice, listRhythms } from '@/usecases/rhythm/reading';
import { listSettingVersions } from '@/usecases/brands/reading';
import { CallSign } from '@/ui/CallSign';
import { RhythmEditor } from './RhythmEditor';

export const metadata: Metadata = { title: 'Rhythm' };

/** Weeks of real posting that a rhythm is held against. */
const WEEKS = 8;

interface Props {
  params: Promise<{ brand: string }>;
  searchParams: Promise<{ channel?: string }>;
}

/** The rhythm of a channel beside what it really published in the last weeks. */
export default async function RhythmPage({ params, searchParams }: Props) {
  const { db, brand, channels, today, may } = await brandOfPage((await params).brand);
  if (!may('setRhythm')) return <NotForYou deed="setRhythm" />;
  const asked = (await searchParams).channel;
  const channel = channels.find(({ id }) => id === asked) ?? channels[0];
  if (!channel) return <FirstChannel whatFor="A rhythm says how often, and when, a channel is posted on." />;
  const until = startOfWeek(today, brand.weekStart);
  const since = addDays(until, -7 * WEEKS);
  const [rhythms, pauses, practice, versions] = await Promise.all([
    listRhythms(db, [brand.id]),
    listPauses(db, channel.id),
    listPractice(db, channel.id, since),
    listSettingVersions(db, 'rhythm', [channel.id]),
  ]);
  const rhythmOf = groupBy(rhythms, (rhythm) => rhythm.channelId);
  const entries = rhythmOf.get(channel.id)?.[0]?.entries ?? [];
  return (
    <>
      <nav className="channel-tabs" aria-label="Channel">
        {channels.map(({ id, callSign, color, name }) => (
          <Link
            key={id}
            href={`/${brand.slug}/settings/rhythm?channel=${id}`}
            aria-current={id === channel.id ? 'page' : undefined}
            prefetch={false}
          >
            <CallSign sign={callSign} color={color} /> {name}{' '}
            <span className="figures soft">{rhythmOf.get(id)?.[0]?.entries.length ?? 0}</span>
          </Link>
        ))}
      </nav>
      <RhythmEditor
        key={channel.id}
        channelId={channel.id}
        version={versions.get(channel.id) ?? 0}
        entries={entries}
        pauses={pauses.map(({ name, from, to }) => ({ name, from, to }))}
        practice={practice.map((post) => ({ ...post, format: post.format as Practised['format'] }))}
        proposed={proposeRhythm(practice as Practised[], since, until)}
        since={since}
        weeks={WEEKS}
        today={today}
        others={channels
          .filter(({ id }) => id !== channel.id)
          .map(({ id, name }) => ({
            id,
            name,
            entries: rhythmOf.get(id)?.[0]?.entries ?? [],
          }))}
      />
    </>
  );
}
