'use client';

import Link from 'next/link';
import { useState, type ReactNode } from 'react';
import type { Change } from '@/core/calendar/change';
import type { Sort } from '@/core/calendar/list';
import type { Slip } from '@/core/calendar/slip';
import { ofEachText } from '@/core/posts/texts';
import { FORMAT_LABELS } from '@/core/rulesheets/types';
import { STAGES, STAGE_LABELS, type Stage } from '@/core/stages/stages';
import { CallSign } from '@/ui/CallSign';
import { dayAndTime, shortDate } from '@/ui/format';
import { InPlace } from '@/ui/InPlace';
import { Notches } from '@/ui/Notches';
import { Progress } from '@/ui/Progress';
import { LIFT_HELP_ID } from './Carrier';
import { useShell } from '@/ui/shell';
import { useRowTexts } from './rowTexts';
import { TextCell } from './TextCell';
import { useTimetable } from './timetable';
import type { Column } from './view';
import { WordButton } from '@/ui/WordButton';

/** What a cell is drawn from. */
interface CellProps {
  slip: Slip;
  /** Whether its post is published: then nothing of it changes here. */
  isOut: boolean;
  /** Whether the row is pointed at or has the focus: rarer controls are there only then. */
  isInUse: boolean;
  isOpen: boolean;
  campaignName: (id: string) => string;
  pieceTitle: (id: string) => string;
  onChange: (slips: readonly Slip[], change: Change) => void;
  /** Told of a post as it is after a text of it was written. */
  onWritten: (slip: Slip) => void;
}

interface ListColumn {
  /** Its track of the grid. */
  width: string;
  /** The same where texts have more room. */
  wide?: string;
  /** The same on a narrow screen; a column without is left out there. */
  narrow?: string;
  /** What its head says there, where its label has no room. */
  short?: string;
  /** What its head sorts by. */
  sort?: Sort;
  Cell: (props: CellProps) => ReactNode;
}

/** The columns of the list by name; their order and labels stand in `view.ts`. */
export const LIST_COLUMNS: Record<Column, ListColumn> = {
  date: { width: '92px', narrow: '78px', sort: 'date', Cell: DateCell },
  time: { width: '64px', narrow: '42px', Cell: TimeCell },
  channel: { width: '108px', narrow: '22px', short: 'Ch.', sort: 'channel', Cell: ChannelCell },
  title: { width: 'minmax(180px, 1fr)', narrow: 'minmax(96px, 1fr)', sort: 'title', Cell: TitleCell },
  format: { width: '84px', sort: 'format', Cell: ({ slip }) => FORMAT_LABELS[slip.format] },
  stage: { width: '130px', narrow: '30px', short: 'St.', sort: 'stage', Cell: StageCell },
  owner: { width: '64px', sort: 'owner', Cell: OwnerCell },
  pillar: { width: '140px', Cell: PillarCell },
  campaign: {
    width: '140px',
    Cell: ({ slip, campaignName }) => (slip.campaignId ? campaignName(slip.campaignId) : ''),
  },
  prep: { width: '72px', Cell: ({ slip }) => <Progress progress={slip.progress} /> },
  missing: { width: '96px', Cell: ({ slip }) => <span className="slip-missing">{slip.missing}</span> },
  piece: { width: '160px', wide: '280px', Cell: PieceCell },
  picture: { width: '88px', narrow: '56px', short: 'Pic.', Cell: PictureCell },
  repeat: {
    width: '84px',
    Cell: ({ slip }) => slip.repeatNumber && <span className="figures">{slip.repeatNumber}</span>,
  },
  published: { width: '124px', Cell: PublishedCell },
  address: { width: '220px', wide: '440px', Cell: AddressCell },
  ...ofEachText((_text, field): ListColumn => ({
    ...{ width: '220px', wide: '440px', narrow: '200px' },
    Cell: ({ slip, isOut, isInUse, onWritten }) => (
      <TextCell slip={slip} field={field} isOut={isOut} isInUse={isInUse} onWritten={onWritten} />
    ),
  })),
};

function PieceCell({ slip, pieceTitle }: CellProps) {
  const { brand } = useShell();
  const title = pieceTitle(slip.pieceId);
  if (slip.brandId !== brand.id) return title;
  return (
    <Link dir="auto" href={`/${brand.slug}/pieces/${slip.pieceId}`} prefetch={false}>
      {title}
    </Link>
  );
}

function PublishedCell({ slip }: CellProps) {
  const { zoneOf } = useTimetable();
  const publishedAt = useRowTexts(slip.id)?.publishedAt;
  return publishedAt ? <span className="figures">{dayAndTime(publishedAt, zoneOf(slip.brandId))}</span> : null;
}

function AddressCell({ slip }: CellProps) {
  const address = useRowTexts(slip.id)?.address;
  if (!address) return null;
  return (
    <a className="list-text" href={address} target="_blank" rel="noreferrer">
      {address}
    </a>
  );
}

function PictureCell({ slip }: CellProps) {
  if (!slip.thumb) return null;
  // A plain img: the file is a ready-made thumbnail of a few kilobytes.
  return <img className="list-picture" src={`/api/media/${slip.thumb}?size=thumb`} alt="" loading="lazy" />;
}

function DateCell({ slip, isOut, onChange }: CellProps) {
  return (
    <InPlace
      label={`Date of ${slip.title}`}
      type="date"
      className="figures"
      value={slip.date ?? ''}
      shown={slip.date ? shortDate(slip.date) : 'no date'}
      disabled={isOut}
      onCommit={(date) => onChange([slip], { kind: 'place', date: date || null })}
    />
  );
}

function TimeCell({ slip, isOut, onChange }: CellProps) {
  if (!slip.date) return null;
  return (
    <InPlace
      label={`Time of ${slip.title}`}
      type="time"
      className="figures"
      value={slip.time ?? ''}
      shown={slip.time ?? 'none'}
      disabled={isOut}
      onCommit={(time) => onChange([slip], { kind: 'time', time: time || null })}
    />
  );
}

function ChannelCell({ slip }: CellProps) {
  const channel = useTimetable().channels.get(slip.channelId);
  return (
    <span className="list-channel">
      <CallSign sign={slip.callSign} color={channel?.color ?? 'currentcolor'} /> {channel?.name}
    </span>
  );
}

function TitleCell({ slip, isOut, isInUse, isOpen, onChange }: CellProps) {
  const [typed, setTyped] = useState<string | null>(null);
  if (typed === null)
    return (
      <span className="list-title">
        <button
          type="button"
          className="open"
          data-post={slip.id}
          data-lift="post"
          aria-describedby={LIFT_HELP_ID}
          aria-current={isOpen || undefined}
        >
          {slip.title}
        </button>
        {!isOut && isInUse && (
          <WordButton
            className="rename soft"
            aria-label={`Rename “${slip.title}”`}
            onClick={() => setTyped(slip.title)}
          >
            Rename
          </WordButton>
        )}
      </span>
    );
  return (
    <input
      dir="auto"
      autoFocus
      aria-label={`Working title of ${slip.title}`}
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => {
        if (typed.trim() !== '' && typed !== slip.title) onChange([slip], { kind: 'title', title: typed });
        setTyped(null);
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') setTyped(null);
      }}
    />
  );
}

function StageCell({ slip, isOut, isInUse, onChange }: CellProps) {
  return (
    <span className="list-stage">
      <Notches stage={slip.stage} failed={slip.delivery?.state === 'failed'} />
      {isOut || !isInUse ? (
        <span className={isOut ? 'list-stage-name' : 'list-stage-name can-change'}>{STAGE_LABELS[slip.stage]}</span>
      ) : (
        <select
          className="plain-select"
          aria-label={`Stage of ${slip.title}`}
          value={slip.stage}
          onChange={(event) =>
            onChange([slip], { kind: 'stage', stage: event.target.value as Exclude<Stage, 'published' | 'setAside'> })
          }
        >
          {STAGES.filter((stage) => stage !== 'published').map((stage) => (
            <option key={stage} value={stage}>
              {STAGE_LABELS[stage]}
            </option>
          ))}
        </select>
      )}
    </span>
  );
}

function OwnerCell({ slip }: CellProps) {
  return useTimetable().ownerName(slip.ownerId);
}

function PillarCell({ slip }: CellProps) {
  const { pillarName } = useTimetable();
  return slip.pillarId ? pillarName(slip.pillarId) : '';
}
