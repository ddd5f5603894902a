import type { Slip } from '@/core/calendar/slip';
import { FORMAT_LABELS } from '@/core/rulesheets/types';
import { CallSign } from './CallSign';
import { Notches } from './Notches';
import { Progress } from './Progress';

/** The facts a slip shows where nobody chose. */
const USUAL: ReadonlySet<string> = new Set(['time', 'title', 'stage', 'picture', 'missing', 'prep']);

/** What a slip says of a delivery that a person should look at. */
const TROUBLE: Partial<Record<string, string>> = { failed: 'failed', held: 'on hold', unknown: 'may be published' };

/** UTF-16 units of a title that two lines of a slip hold as a rule. */
const SHORT_TITLE = 30;

/** What a slip shows: call sign, time, notches, working title, what is missing, and a thumbnail. */
export function SlipFace({
  slip,
  color,
  density = 'slip',
  withSign = true,
  day,
  shows = USUAL,
  more = [],
}: {
  slip: Slip;
  /** Of the bar under the call sign. */
  color: string;
  /** A line has time and notches only. */
  density?: 'line' | 'slip';
  withSign?: boolean;
  /** Its day in words, where its place does not tell. */
  day?: string;
  shows?: ReadonlySet<string>;
  /** Further facts in a soft line; `format` stands for the format's name. */
  more?: readonly string[];
}) {
  const failed = slip.delivery?.state === 'failed';
  const trouble = slip.delivery?.awaitsRelease ? 'waits to be released' : TROUBLE[slip.delivery?.state ?? ''];
  const isLine = density === 'line';
  const facts = more.filter(Boolean).map((fact) => (fact === 'format' ? FORMAT_LABELS[slip.format] : fact));
  return (
    <>
      <span className="slip-line">
        {withSign && <CallSign sign={slip.callSign} color={color} />}
        {day && <span className="slip-time">{day}</span>}
        {slip.date && shows.has('time') && <span className="slip-time">{slip.time ?? 'no time'}</span>}
        {shows.has('stage') && <Notches stage={slip.stage} failed={failed} />}
      </span>
      {isLine ? (
        <span dir="auto" className="visually-hidden">
          {slip.title}
        </span>
      ) : (
        shows.has('title') && (
          <span dir="auto" className={slip.title.length > SHORT_TITLE ? 'slip-title is-long' : 'slip-title'}>
            {slip.title}
          </span>
        )
      )}
      {!isLine && slip.thumb && shows.has('picture') && (
        // A plain img: the file is a ready-made thumbnail of a few kilobytes.
        <img
          className="slip-thumb"
          src={`/api/media/${slip.thumb}?size=thumb`}
          alt=""
          loading="lazy"
          draggable={false}
        />
      )}
      {slip.delivery?.isPractice && <span className="slip-missing">practice</span>}
      {trouble && <span className="slip-missing is-wrong">{trouble}</span>}
      {!isLine && shows.has('missing') && slip.missing && !trouble && (
        <span className="slip-missing">{slip.missing}</span>
      )}
      {!isLine && shows.has('prep') && isUnderWay(slip) && <Progress progress={slip.progress} />}
      {!isLine && facts.length > 0 && <span className="slip-facts">{facts.join(' · ')}</span>}
    </>
  );
}

/** Progress tells something until a post is ready. */
const isUnderWay = ({ stage, progress }: Slip): boolean =>
  progress.length > 0 && (stage === 'drafting' || stage === 'production' || stage === 'signOff');

/** The class names of a slip's ground. */
export function slipClass(
  slip: Slip,
  more: { open?: boolean; unsaved?: boolean; picked?: boolean; extra?: boolean; line?: boolean; band?: boolean } = {},
): string {
  return [
    'slip',
    slip.missing ? 'is-lacking' : '',
    slip.thumb && !more.line ? 'has-thumb' : '',
    more.open ? 'is-open' : '',
    more.unsaved ? 'is-unsaved' : '',
    more.picked ? 'is-picked' : '',
    more.extra ? 'is-extra' : '',
    more.line ? 'is-line' : '',
    more.band ? 'has-band' : '',
  ]
    .filter(Boolean)
    .join(' ');
}
