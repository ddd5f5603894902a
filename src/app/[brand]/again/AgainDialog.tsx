'use client';

import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Dialog } from '@/ui/Dialog';
import { LINE_ORIGIN_WORDS } from '@/core/encores/firstLines';
import { FORMAT_LABELS } from '@/core/rulesheets/types';
import { counted } from '@/core/words';
import type { AgainPost } from '@/usecases/encores/planAgain';
import { CallSign } from '@/ui/CallSign';
import { ChannelChoice } from '@/ui/ChannelChoice';
import { DateField } from '@/ui/DateField';
import { FieldRefusal } from '@/ui/FieldRefusal';
import { shortDate } from '@/ui/format';
import { useShell } from '@/ui/shell';
import { PlannedDate, plannedOf } from '../PlannedDate';
import { useMadeMessage } from '../useMadeMessage';
import { useAgain, type OwnChange } from './useAgain';

/** How often a post is made again at once, in words. */
const TIMES = ['once', 'twice', '3 times', '4 times', '5 times'];

/** A post used again: on which channels, how often, when, and with which first lines; each is shown before it is made. */
export function AgainDialog({
  post,
  onMade,
  onClose,
}: {
  post: { id: string; title: string; channelId: string; isPublished: boolean };
  onMade?: () => void;
  onClose: () => void;
}) {
  const { channels } = useShell();
  const sayMade = useMadeMessage(onMade);
  const isThere = channels.some(({ id }) => id === post.channelId);
  const { ask, asks, posts, changes, change, chosen, make, forget, problem, isBusy } = useAgain(post.id, {
    channelIds: isThere ? [post.channelId] : [],
    times: 1,
    everyDays: 14,
    from: null,
    isDated: true,
    isReopened: post.isPublished,
    isFitted: true,
  });
  const isElsewhere = ask.channelIds.some((id) => id !== post.channelId);

  async function makeThem() {
    const made = await make();
    if (!made) return;
    sayMade(made);
    onClose();
  }

  return (
    <Dialog
      title={`Use “${post.title}” again`}
      onClose={onClose}
      size="xl"
      deeds={
        <Button disabled={isBusy || chosen.length === 0} onClick={() => void makeThem()}>
          {chosen.length === 0
            ? 'Nothing to make'
            : `Make ${chosen.length === 1 ? 'this post' : `these ${chosen.length} posts`}`}
        </Button>
      }
      onCancel={() => {
        forget();
        onClose();
      }}
    >
      <ChannelChoice legend="On" chosen={ask.channelIds} onChange={(channelIds) => asks({ channelIds })} />
      <div className="fan-out-ask">
        <label>
          How often{' '}
          <Form.Select size="sm" value={ask.times} onChange={(event) => asks({ times: Number(event.target.value) })}>
            {TIMES.map((words, at) => (
              <option key={words} value={at + 1}>
                {words}
              </option>
            ))}
          </Form.Select>
        </label>
        {ask.times > 1 && (
          <label>
            at least{' '}
            <input
              className="figures"
              type="number"
              min={1}
              max={180}
              value={ask.everyDays}
              onChange={(event) => asks({ everyDays: Math.max(1, Math.min(180, Number(event.target.value) || 1)) })}
            />{' '}
            days apart
          </label>
        )}
        <Form.Check
          type="checkbox"
          id="again-dated"
          label="into the next openings"
          checked={ask.isDated}
          onChange={(event) => asks({ isDated: event.target.checked })}
        />
        {ask.isDated && (
          <span>
            from{' '}
            <DateField
              label="From which day"
              value={ask.from ?? ''}
              onChange={(date) => asks({ from: date || null })}
            />
          </span>
        )}
        <Form.Check
          type="checkbox"
          id="again-reopened"
          label="with another first line"
          checked={ask.isReopened}
          onChange={(event) => asks({ isReopened: event.target.checked })}
        />
        {isElsewhere && (
          <Form.Check
            type="checkbox"
            id="again-fitted"
            label="cut what is too long"
            checked={ask.isFitted}
            onChange={(event) => asks({ isFitted: event.target.checked })}
          />
        )}
        <span className="soft small-text" role="status">
          {isBusy ? 'working it out …' : counted(chosen.length, 'post')}
        </span>
      </div>
      <ol className="fan-out-rows" aria-busy={isBusy}>
        <li>
          <ul className="again-posts">
            {posts.map((one) => (
              <AgainRow
                key={one.key}
                post={one}
                own={changes[one.key] ?? {}}
                onChange={(part) => change(one.key, part)}
              />
            ))}
          </ul>
        </li>
      </ol>
      <FieldRefusal>{problem}</FieldRefusal>
    </Dialog>
  );
}

function AgainRow({ post, own, onChange }: { post: AgainPost; own: OwnChange; onChange: (part: OwnChange) => void }) {
  const { channels } = useShell();
  const channel = channels.find(({ id }) => id === post.channelId);
  if (!channel) return null;
  const caption = own.caption ?? post.caption;
  const { isMoved, date } = plannedOf(post, own);
  const name = `${channel.name}, ${date === null ? 'no date' : shortDate(date)}`;
  return (
    <li className={own.isOff ? 'is-off' : ''} data-again-post={post.key}>
      <input
        type="checkbox"
        aria-label={`Make the post for ${name}`}
        checked={!own.isOff}
        onChange={(event) => onChange({ isOff: !event.target.checked })}
      />
      <span className="fan-out-date">
        <CallSign sign={channel.callSign} color={channel.color} name={channel.name} />{' '}
        <PlannedDate name={name} shown={post} own={own} onChange={onChange} />
        {!isMoved && post.isSqueezed && <span className="attention small-text"> too little time</span>}
      </span>
      <div className="fan-out-draft">
        <textarea
          dir="auto"
          className="form-control"
          aria-label={`Text for ${name}`}
          rows={Math.min(8, caption.split('\n').length + 1)}
          value={caption}
          onChange={(event) => onChange({ caption: event.target.value })}
        />
        <span className="soft small-text">
          {FORMAT_LABELS[post.format]}, {LINE_ORIGIN_WORDS[post.origin]}
        </span>
        {post.sameOn && (
          <div className="attention small-text">
            {channel.name} has this same text on {shortDate(post.sameOn)}.
          </div>
        )}
        {post.notes.map((note) => (
          <div dir="auto" key={note} className="attention small-text">
            {note}
          </div>
        ))}
      </div>
    </li>
  );
}
