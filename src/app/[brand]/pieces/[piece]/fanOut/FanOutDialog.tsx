'use client';

import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Dialog } from '@/ui/Dialog';
import type { FanOut } from '@/core/fanOut/fanOut';
import { FORMAT_LABELS } from '@/core/rulesheets/types';
import { counted } from '@/core/words';
import type { Piece } from '@/usecases/pieces/reading';
import type { FanOutAsk, FanOutPlan } from '@/usecases/fanOut/planFanOut';
import { CallSign } from '@/ui/CallSign';
import { DateField } from '@/ui/DateField';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { shortDate } from '@/ui/format';
import { useShell } from '@/ui/shell';
import { WordButton } from '@/ui/WordButton';
import { useMadeMessage } from '../../../useMadeMessage';
import { WritingOffer } from './WritingOffer';
import { PostRow } from './PostRow';
import { ownOf, useFanOut, type OwnChange } from './useFanOut';

/** The posts a fan-out would make of a piece, each with its draft and date, to be left out, moved and changed before they are made. */
export function FanOutDialog({
  piece,
  fanOuts = [],
  start,
  hasWriter = false,
  onMade,
  onClose,
}: {
  piece: Pick<Piece, 'id' | 'title'>;
  /** To choose among. */
  fanOuts?: readonly FanOut[];
  /** The fan-out it begins with, or the one post. */
  start: Pick<FanOutAsk, 'fanOut' | 'only'>;
  /** Whether the team has a service that writes. */
  hasWriter?: boolean;
  onMade: () => void;
  onClose: () => void;
}) {
  const sayMade = useMadeMessage(onMade);
  const { ask, asks, plan, changes, change, switchRow, chosen, tooLong, make, forget, problem, isBusy } = useFanOut(
    piece.id,
    start,
  );

  async function makeThem() {
    const made = await make();
    if (!made) return;
    sayMade(made);
    onClose();
  }

  return (
    <Dialog
      title={`Posts from “${piece.title}”`}
      onClose={onClose}
      size="xl"
      className="fan-out-dialog"
      deeds={
        <>
          {tooLong.length > 0 ? (
            <span className="attention small-text push-left" role="status">
              {counted(tooLong.length, 'text does', 'texts do')} not fit: shorten what you typed, or leave those posts
              out.
            </span>
          ) : (
            <span className="soft small-text push-left">Drafts are a start: each has its step “Check the draft”.</span>
          )}
          <Button disabled={isBusy || chosen.length === 0 || tooLong.length > 0} onClick={() => void makeThem()}>
            {chosen.length === 0
              ? 'Nothing to make'
              : `Make ${chosen.length === 1 ? 'this post' : `these ${chosen.length} posts`}`}
          </Button>
        </>
      }
      onCancel={() => {
        forget();
        onClose();
      }}
    >
      <div className="fan-out-ask">
        {ask.only === null && (
          <label>
            Fan-out{' '}
            <Form.Select
              size="sm"
              value={ask.fanOut}
              onChange={(event) => asks({ fanOut: event.target.value, on: null, chosen: {} })}
            >
              {fanOuts.map(({ slug, name }) => (
                <option key={slug} value={slug}>
                  {name}
                </option>
              ))}
            </Form.Select>
          </label>
        )}
        <span>
          from{' '}
          <DateField
            label="From which day"
            value={ask.anchor ?? plan?.anchor ?? ''}
            onChange={(date) => asks({ anchor: date || null })}
          />
        </span>
        <label>
          captions under{' '}
          <input
            className="figures"
            type="number"
            min={20}
            size={5}
            placeholder="—"
            value={ask.under ?? ''}
            onChange={(event) =>
              asks({ under: event.target.value === '' ? null : Math.max(20, Number(event.target.value)) })
            }
          />
        </label>
        <WordButton onClick={() => asks({ seed: ask.seed + 1 })}>Other phrases</WordButton>
        <span className="soft small-text" role="status">
          {isBusy ? 'working it out …' : plan ? `${counted(chosen.length, 'post')}${spanOf(chosen)}` : ''}
        </span>
      </div>
      {hasWriter && chosen.length > 0 && (
        <WritingOffer
          pieceId={piece.id}
          ask={ask}
          keys={chosen.map(({ key }) => key)}
          onWritten={() => asks({ isWritten: true })}
        />
      )}
      {plan && (
        <ol className="fan-out-rows" aria-busy={isBusy}>
          {plan.rows.map((row, at) => (
            <FanOutRows
              key={at}
              row={row}
              at={at}
              plan={plan}
              changes={changes}
              onSwitch={switchRow}
              onChange={change}
              onChannel={(id) => asks({ chosen: { ...ask.chosen, [at]: id } })}
            />
          ))}
        </ol>
      )}
      <FieldRefusal>{problem}</FieldRefusal>
    </Dialog>
  );
}

const spanOf = (posts: FanOutPlan['posts']): string => {
  const days = posts.flatMap(({ date }) => date ?? []).sort();
  return days.length > 0 ? `, ${shortDate(days[0]!)} to ${shortDate(days.at(-1)!)}` : '';
};

function FanOutRows({
  row,
  at,
  plan,
  changes,
  onSwitch,
  onChange,
  onChannel,
}: {
  row: FanOutPlan['rows'][number];
  at: number;
  plan: FanOutPlan;
  changes: Record<string, OwnChange>;
  onSwitch: (row: number) => void;
  onChange: (key: string, part: OwnChange) => void;
  onChannel: (channelId: string) => void;
}) {
  const { channels } = useShell();
  const channel = channels.find(({ id }) => id === row.channelId);
  const posts = plan.posts.filter((post) => post.row === at);
  if (!channel)
    return (
      <li className="is-off">
        {FORMAT_LABELS[row.format]}{' '}
        <span dir="auto" className="small-text">
          {row.note}
        </span>
      </li>
    );
  return (
    <li className={row.isOn ? '' : 'is-off'}>
      <div className="fan-out-row">
        <label>
          <input type="checkbox" checked={row.isOn} onChange={() => onSwitch(at)} />{' '}
          <CallSign sign={channel.callSign} color={channel.color} name={channel.name} />{' '}
          <span dir="auto">{channel.name}</span>{' '}
          <b>
            {row.count > 1 ? `${row.count} × ` : ''}
            {FORMAT_LABELS[row.format]}
          </b>
        </label>
        {row.channelIds.length > 1 && (
          <select
            aria-label={`Channel for the ${FORMAT_LABELS[row.format]}`}
            value={channel.id}
            onChange={(event) => onChannel(event.target.value)}
          >
            {row.channelIds.map((id) => (
              <option key={id} value={id}>
                {channels.find((one) => one.id === id)?.name}
              </option>
            ))}
          </select>
        )}
        {row.note && (
          <span dir="auto" className="attention small-text">
            {row.note}
          </span>
        )}
      </div>
      {posts.length > 0 && (
        <ul>
          {posts.map((post) => (
            <PostRow
              key={post.key}
              post={post}
              own={ownOf(changes[post.key] ?? {}, post)}
              onChange={(part) => onChange(post.key, part)}
            />
          ))}
        </ul>
      )}
    </li>
  );
}
