import type { Slip } from '@/core/calendar/slip';
import { CallSign } from './CallSign';
import { Notches } from './Notches';

/** What a slip shows: call sign, time, notches, working title, what is missing, and a thumbnail. */
export function SlipFace({ slip, color }: { slip: Slip; color: string }) {
  const failed = slip.delivery?.state === 'failed';
  const held = slip.delivery?.state === 'held';
  return (
    <>
      <span className="slip-line">
        <CallSign sign={slip.callSign} color={color} />
        {slip.date && <span className="slip-time">{slip.time ?? 'no time'}</span>}
        <Notches stage={slip.stage} failed={failed} />
      </span>
      <span className="slip-title">{slip.title}</span>
      {slip.thumb && (
        // A plain img: the file is a ready-made thumbnail of a few kilobytes.
        <img
          className="slip-thumb"
          src={`/api/media/${slip.thumb}?size=thumb`}
          alt=""
          loading="lazy"
          draggable={false}
        />
      )}
      {(failed || held) && <span className="slip-missing is-wrong">{failed ? 'failed' : 'held'}</span>}
      {slip.missing && !failed && !held && <span className="slip-missing">{slip.missing}</span>}
    </>
  );
}

/** The class names of a slip's ground. */
export function slipClass(slip: Slip, more: { open?: boolean; lifted?: boolean; unsaved?: boolean } = {}): string {
  return [
    'slip',
    slip.missing ? 'is-lacking' : '',
    more.open ? 'is-open' : '',
    more.lifted ? 'is-lifted' : '',
    more.unsaved ? 'is-unsaved' : '',
  ]
    .filter(Boolean)
    .join(' ');
}
