'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import Button from 'react-bootstrap/Button';
import Table from 'react-bootstrap/Table';
import { SIGNS, SIGN_WORDS, type Sign } from '@/core/folder/restored';
import type { OpenRestore, Waiting } from '@/usecases/delivery/restores';
import { CallSign } from '@/ui/CallSign';
import { dayAndTime } from '@/ui/format';
import { counted } from '@/core/words';
import { useSay } from '@/ui/messages';
import { useMay, useShell } from '@/ui/shell';
import { useDeed } from '@/ui/useDeed';
import { WordButton } from '@/ui/WordButton';

/** That the data folder was restored, with what waits since: nothing of it is sent before a manager has released it. */
export function RestoredNotice({ restore }: { restore: OpenRestore }) {
  const { brand } = useShell();
  const may = useMay();
  const router = useRouter();
  const say = useSay();
  const { run, busy } = useDeed();
  const { waiting, silentChannels, takenOver, restoredTo, signs } = restore;
  const mayRelease = may('releaseRestored');

  async function release(postId: string | null) {
    const answer = await run<{ released: number }>('POST', '/api/restores/release', { brandId: brand.id, postId });
    if (answer.kind !== 'done') return;
    say({ text: `Released ${counted(answer.value.released, 'post')}.` });
    router.refresh();
  }

  return (
    <section className="restored" aria-labelledby="restored-head">
      <h2 id="restored-head">
        {restoredTo ? `Restored to ${dayAndTime(restoredTo, brand.zone)}` : 'Restored'}:{' '}
        {waiting.length === 0
          ? 'nothing waits'
          : `${counted(waiting.length, 'post')} ${waiting.length === 1 ? 'waits' : 'wait'}`}
      </h2>
      <p>
        Bimlo is working with an earlier state of its data: {seenBy(signs)}. What was planned, changed or unscheduled
        after that is gone, so nothing is sent by itself until a manager has looked through this list.
      </p>
      {takenOver > 0 && (
        <p>
          {counted(takenOver, 'post')} {takenOver === 1 ? 'was' : 'were'} published since then, and{' '}
          {takenOver === 1 ? 'is shown as its network has it' : 'are shown as their networks have them'}.
        </p>
      )}
      {silentChannels.length > 0 && (
        <p className="attention">
          Not answered yet: {silentChannels.join(', ')}. Nothing is sent there before the network has told what it has.
        </p>
      )}
      {waiting.length > 0 && (
        <Table bsPrefix="timetable">
          <thead>
            <tr>
              <th scope="col">Planned for</th>
              <th scope="col">Channel</th>
              <th scope="col">Post</th>
              {mayRelease && <th scope="col">Actions</th>}
            </tr>
          </thead>
          <tbody>
            {waiting.map((one) => (
              <WaitingRow
                key={one.slip.id}
                waiting={one}
                onRelease={mayRelease && !busy ? () => void release(one.slip.id) : null}
                mayRelease={mayRelease}
              />
            ))}
          </tbody>
        </Table>
      )}
      {mayRelease ? (
        <Button disabled={busy} onClick={() => void release(null)}>
          {waiting.length === 0 ? 'Continue' : `Release all ${waiting.length}`}
        </Button>
      ) : (
        <p className="soft">Only a manager releases them.</p>
      )}
    </section>
  );
}

function WaitingRow({
  waiting: { slip, dueAt, isUnsure, isByHand },
  mayRelease,
  onRelease,
}: {
  waiting: Waiting;
  mayRelease: boolean;
  onRelease: (() => void) | null;
}) {
  const { brand, channels } = useShell();
  const channel = channels.find(({ id }) => id === slip.channelId);
  const known = isByHand
    ? 'by hand: check whether somebody has posted it since'
    : isUnsure
      ? 'not known yet whether it is published: its network is asked again before it is sent'
      : 'not published yet';
  return (
    <tr data-waiting={slip.id} className="waiting">
      <td className="figures">{dayAndTime(dueAt, brand.zone)}</td>
      <td>
        <CallSign sign={slip.callSign} color={channel?.color ?? ''} name={channel?.name} />
      </td>
      <td className="what">
        <Link dir="auto" href={`/${brand.slug}/calendar?post=${slip.id}&date=${slip.date}`} prefetch={false}>
          {slip.title}
        </Link>
        <div className="soft small-text">{known}</div>
      </td>
      {mayRelease && (
        <td>
          <WordButton disabled={!onRelease} onClick={() => onRelease?.()} aria-label={`Release: ${slip.title}`}>
            Release
          </WordButton>
        </td>
      )}
    </tr>
  );
}

const LIST = new Intl.ListFormat('en-GB');
/** By what a restore was seen, in words; what somebody did themselves first. */
const seenBy = (signs: readonly Sign[]): string =>
  LIST.format(SIGNS.filter((sign) => signs.includes(sign)).map((sign) => SIGN_WORDS[sign]));
