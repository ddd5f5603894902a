'use client';

import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { REPEAT_KINDS, type RepeatKind } from '@/core/repeats/repeat';
import { ruleWords } from '@/core/repeats/rule';
import { FORMAT_LABELS } from '@/core/rulesheets/types';
import type { Repeat } from '@/usecases/repeats/reading';
import { CallSign } from '@/ui/CallSign';
import { FirstChannel } from '@/ui/FirstChannel';
import { shortDate } from '@/ui/format';
import { useSay } from '@/ui/messages';
import { useShell } from '@/ui/shell';
import { useDeed } from '@/ui/useDeed';
import { WordButton } from '@/ui/WordButton';

const RepeatDialog = dynamic(() => import('../../repeats/RepeatDialog').then((module) => module.RepeatDialog), {
  ssr: false,
});

/** A repeat with the day of its next post; null where none is ahead. */
type ShownRepeat = Repeat & { version: number; next: string | null };

const HEADINGS: Record<RepeatKind, string> = { series: 'Series', evergreen: 'Evergreen', seasonal: 'Seasonal' };

/** What comes again by itself, each in its row, to be changed from here on or ended. */
export function RepeatList({ repeats }: { repeats: readonly ShownRepeat[] }) {
  const { channels } = useShell();
  const [open, setOpen] = useState<ShownRepeat | 'new' | null>(null);
  return (
    <>
      <p className="soft">
        A repeat makes its next posts ahead. Each can be changed on its own; changing the repeat changes those to come
        that nobody wrote yet.
      </p>
      <FirstChannel whatFor="A repeat makes its posts for a channel." />
      {channels.length > 0 && (
        <p>
          <Button onClick={() => setOpen('new')}>Start a repeat…</Button>
        </p>
      )}
      {REPEAT_KINDS.map((kind) => {
        const own = repeats.filter((one) => one.kind === kind);
        return own.length === 0 ? null : (
          <section key={kind} className="repeats" aria-labelledby={`repeats-${kind}`}>
            <h2 id={`repeats-${kind}`}>{HEADINGS[kind]}</h2>
            {own.map((one) => (
              <RepeatRow key={one.id} repeat={one} onChange={() => setOpen(one)} />
            ))}
          </section>
        );
      })}
      {open !== null && (
        <RepeatDialog
          from={null}
          change={open === 'new' ? null : { repeat: open, fromNumber: null }}
          onClose={() => setOpen(null)}
        />
      )}
    </>
  );
}

function RepeatRow({ repeat, onChange }: { repeat: ShownRepeat; onChange: () => void }) {
  const { channels } = useShell();
  const router = useRouter();
  const say = useSay();
  const { run, busy } = useDeed();
  const channel = channels.find(({ id }) => id === repeat.channelId);

  async function end() {
    if ((await run('DELETE', `/api/repeats/${repeat.id}`)).kind !== 'done') return;
    say({ text: `Ended “${repeat.name}”. Its posts stay.` });
    router.refresh();
  }

  return (
    <div className="repeat-row" data-repeat={repeat.id}>
      {channel ? <CallSign sign={channel.callSign} color={channel.color} name={channel.name} /> : <span />}
      <div>
        <b dir="auto">{repeat.name}</b>{' '}
        <span className="soft">
          {FORMAT_LABELS[repeat.format]}, {whenWords(repeat)}
        </span>
      </div>
      <div className="soft figures">
        {channel ? (repeat.next ? `next ${shortDate(repeat.next)}` : 'none ahead') : 'its channel is archived'}
      </div>
      <div className="repeat-deeds">
        <Button size="sm" variant="outline" onClick={onChange} aria-label={`Change ${repeat.name}`}>
          Change…
        </Button>
        <WordButton className="soft" disabled={busy} onClick={() => void end()} aria-label={`End ${repeat.name}`}>
          End
        </WordButton>
      </div>
    </div>
  );
}

/** When a repeat comes and until when: “every Friday at 10:00, until Fri 18 Dec”. */
function whenWords({ rule, time, daysBefore, to, times }: ShownRepeat): string {
  const before = daysBefore > 0 ? `, published ${daysBefore === 1 ? '1 day' : `${daysBefore} days`} before,` : '';
  const end =
    to !== null ? `, until ${shortDate(to)} ${to.slice(0, 4)}` : times !== null ? `, ${times} times in all` : '';
  return `${ruleWords(rule)}${before} at ${time}${end}`;
}
