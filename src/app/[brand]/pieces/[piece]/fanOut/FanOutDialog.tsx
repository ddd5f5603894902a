'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { VARIANT_LABELS } from '@/core/drafts/draft';
import { EXTRACT_LABELS } from '@/core/extracts/extracts';
import { moments } from '@/core/extracts/moments';
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
import { PlannedDate, plannedOf } from '../../../PlannedDate';
import { useMadeMessage } from '../../../useMadeMessage';
import { useFanOut, type OwnChange } from './useFanOut';

/** The posts a fan-out would make of a piece, each with its draft and date, to be left out, moved and changed before they are made. */
export function FanOutDialog({
  piece,
  fanOuts = [],
  start,
  onMade,
  onClose,
}: {
  piece: Pick<Piece, 'id' | 'title'>;
  /** To choose among. */
  fanOuts?: readonly FanOut[];
  /** The fan-out it begins with, or the one post. */
  start: Pick<FanOutAsk, 'fanOut' | 'only'>;
  onMade: () => void;
  onClose: () => void;
}) {
  const sayMade = useMadeMessage(onMade);
  const { ask, asks, plan, changes, change, switchRow, chosen, make, problem, isBusy } = useFanOut(piece.id, start);

  async function makeThem() {
    const made = await make();
    if (!made) return;
    sayMade(made);
    onClose();
  }

  return (
    <Modal
      show
      size="xl"
      scrollable
      onHide={onClose}
      animation={false}
      aria-labelledby="fan-out-title"
      dialogClassName="fan-out-dialog"
    >
      <Modal.Header closeButton>
        <Modal.Title id="fan-out-title" as="h2">
          Posts from “{piece.title}”
        </Modal.Title>
      </Modal.Header>
      <Modal.Body>
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
      </Modal.Body>
      <Modal.Footer>
        <span className="soft small-text push-left">Drafts are a start: each has its step “Check the draft”.</span>
        <Button disabled={isBusy || chosen.length === 0} onClick={() => void makeThem()}>
          {chosen.length === 0
            ? 'Nothing to make'
            : `Make ${chosen.length === 1 ? 'this post' : `these ${chosen.length} posts`}`}
        </Button>
        <Button variant="outline" onClick={onClose}>
          Cancel
        </Button>
      </Modal.Footer>
    </Modal>
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
        {FORMAT_LABELS[row.format]} <span className="small-text">{row.note}</span>
      </li>
    );
  return (
    <li className={row.isOn ? '' : 'is-off'}>
      <div className="fan-out-row">
        <label>
          <input type="checkbox" checked={row.isOn} onChange={() => onSwitch(at)} />{' '}
          <CallSign sign={channel.callSign} color={channel.color} name={channel.name} />{' '}
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
        {row.note && <span className="attention small-text">{row.note}</span>}
      </div>
      {posts.length > 0 && (
        <ul>
          {posts.map((post) => (
            <PostRow
              key={post.key}
              post={post}
              own={changes[post.key] ?? {}}
              onChange={(part) => onChange(post.key, part)}
            />
          ))}
        </ul>
      )}
    </li>
  );
}

function PostRow({
  post,
  own,
  onChange,
}: {
  post: FanOutPlan['posts'][number];
  own: OwnChange;
  onChange: (part: OwnChange) => void;
}) {
  const [isOpen, setOpen] = useState(false);
  const draft = post.drafts[own.draft ?? 0];
  const caption = own.caption ?? draft?.words.caption ?? '';
  const [source] = post.from;
  const { isMoved } = plannedOf(post, own);
  const name = draft?.words.headline || caption.split('\n')[0] || FORMAT_LABELS[post.format];
  return (
    <li className={own.isOff ? 'is-off' : ''} data-fan-out-post={post.key}>
      <input
        type="checkbox"
        aria-label={`Make “${name}”`}
        checked={!own.isOff}
        onChange={(event) => onChange({ isOff: !event.target.checked })}
      />
      <span className="fan-out-date">
        <PlannedDate name={name} shown={post} own={own} onChange={onChange} />
        {!isMoved && post.isSqueezed && <span className="attention small-text"> too little time</span>}
        {!isMoved && post.date === null && <span className="attention small-text"> no opening within a year</span>}
      </span>
      <div className="fan-out-draft">
        {draft?.words.headline && <b>{draft.words.headline}</b>}
        {isOpen ? (
          <>
            <textarea
              className="form-control"
              aria-label={`Draft of “${name}”`}
              rows={Math.min(14, caption.split('\n').length + 4)}
              value={caption}
              onChange={(event) => onChange({ caption: event.target.value })}
            />
            {draft && draft.parts.length > 0 && (
              <ol className="fan-out-parts small-text">
                {draft.parts.map((part, at) => (
                  <li key={at}>{part}</li>
                ))}
              </ol>
            )}
            {draft?.words.script && <p className="small-text soft">Script: {draft.words.script}</p>}
            {draft?.words.agenda && <pre className="small-text soft">{draft.words.agenda}</pre>}
            {post.drafts.length > 1 && (
              <span role="group" aria-label="How it opens" className="small-text">
                {post.drafts.map((one, at) => (
                  <WordButton
                    key={at}
                    aria-pressed={at === (own.draft ?? 0)}
                    onClick={() => onChange({ draft: at, caption: undefined })}
                  >
                    {one.variant ? VARIANT_LABELS[one.variant] : 'as it is'}
                  </WordButton>
                ))}
              </span>
            )}
          </>
        ) : (
          <div className="fan-out-caption">
            {draft ? caption.replace(/\s+/g, ' ') : 'no draft: the piece gives nothing for it'}
          </div>
        )}
        <span className="soft small-text">
          {source
            ? `${EXTRACT_LABELS[source.kind]}${source.inMs !== undefined && source.outMs !== undefined ? ` ${moments(source.inMs, source.outMs)}` : ''}`
            : post.pictures
              ? counted(post.pictures.length, 'picture')
              : 'the whole piece'}
          {draft &&
            draft.parts.length > 0 &&
            `, ${counted(draft.parts.length + (post.format === 'thread' ? 1 : 0), 'part')}`}
          {(draft?.sentences ?? []).some(({ origin }) => origin === 'phrase') &&
            ` · ${counted(draft!.sentences.filter(({ origin }) => origin === 'phrase').length, 'phrase')} by Bimlo`}
        </span>
      </div>
      <WordButton
        aria-expanded={isOpen}
        aria-label={`${isOpen ? 'Close' : 'Read'} the draft of “${name}”`}
        onClick={() => setOpen(!isOpen)}
      >
        {isOpen ? 'Close' : 'Read'}
      </WordButton>
    </li>
  );
}
