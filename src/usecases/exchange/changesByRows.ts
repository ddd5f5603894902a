import type { BadRow, ImportRow } from '@/core/exchange/planImport';
import { partsWith } from '@/core/posts/parts';
import { WRITTEN_FIELDS } from '@/core/posts/texts';
import type { Refusal } from '@/core/refusal';
import { mayEdit, mayMoveTo, maySchedule } from '@/core/stages/moves';
import type { Stage } from '@/core/stages/stages';
import type { Channel } from '@/data/brands/channels';
import type { Post, PostChange } from '@/data/posts/posts';
import { movingToChannel, type Asked } from '../calendar/changePosts';
import { moving } from '../posts/planPosts';
import { factsOf, takePosts, type OpenPost } from '../posts/takePosts';
import { areParts } from './compareRows';
import { arePictures, partsOfRow, picturesOfRow, type NamedFiles } from './listings';
import { checkWrites, type PostWrite } from '../posts/checkWrites';
import { attempt, must, type Doing } from '../useCase';
import type { CheckedRows } from './checkedRows';

/** Changes of posts as their rows say, each checked for itself. */
export async function checkChanges(
  act: Doing,
  channels: readonly Channel[],
  differing: readonly { row: ImportRow; postId: string }[],
  files: NamedFiles,
): Promise<Pick<CheckedRows, 'changes' | 'bad'>> {
  const taken = await takePosts(
    act,
    differing.map(({ postId }) => postId),
    'exchange',
  );
  const channelOf = new Map(channels.map((channel) => [channel.id, channel]));
  const bad: BadRow[] = [];
  const refuseRow = ({ line, title }: ImportRow, refusal: Refusal) =>
    void bad.push({ line, reason: `“${title}”: ${refusal.message}` });
  const asked: (Asked & { row: ImportRow })[] = [];
  for (const { row, postId } of differing) {
    const result = await attempt(async () => ({
      row,
      ...changeByRow(act, row, must(taken.get(postId)!), channelOf.get(row.channelId)!, files),
    }));
    if (result.ok) asked.push(result.value);
    else refuseRow(row, result.refusal);
  }
  const results = await checkWrites(
    act,
    asked.map(({ write }) => write),
  );
  const changes = asked.flatMap(({ row, notes }, index) => {
    const result = results[index]!;
    if (result.ok) return [{ row, notes, write: result.value }];
    refuseRow(row, result.refusal);
    return [];
  });
  return { changes, bad };
}

/** What a row writes of its post: place, words and stage in one. */
function changeByRow(act: Doing, row: ImportRow, open: OpenPost, channel: Channel, files: NamedFiles): Asked {
  must(mayEdit(open.facts));
  const { post } = open;
  const to = {
    date: row.date === undefined ? post.date : row.date,
    ...(row.time === undefined ? {} : { time: row.time }),
    ...(row.format ? { format: row.format } : {}),
  };
  const isMoved =
    (row.date !== undefined && row.date !== post.date) || (row.time !== undefined && row.time !== post.time);
  const placed: Asked =
    channel.id !== post.channelId
      ? movingToChannel(act, open, to, channel)
      : isMoved
        ? { write: moving(act, open, to), notes: [] }
        : { write: { open, change: {}, deed: 'imported' }, notes: [] };
  const listed = changeOfLists(act, row, open, files);
  const change = { ...placed.write.change, ...changeOfWords(row, post), ...listed };
  const { pictures, ...fields } = change;
  const write = { ...placed.write, change, deed: 'imported', detail: { line: row.line } };
  const staged = followStage(
    act,
    row.stage,
    { ...open, channel, pictures: [...(pictures ?? open.pictures)], post: { ...post, ...fields } },
    write,
  );
  return { write: staged.write, notes: [...placed.notes, ...staged.notes] };
}

/** What a row changes of the pictures and parts of its post. Where a file is not there, the pictures stay as they are. */
function changeOfLists(act: Doing, { lists }: ImportRow, open: OpenPost, files: NamedFiles): PostWrite['change'] {
  const change: PostWrite['change'] = {};
  const told = lists.media && picturesOfRow(lists.media, open.pictures, files, act.ids);
  if (told?.lacking.length === 0 && !arePictures(told.pictures, open.pictures)) change.pictures = told.pictures;
  const attached = new Set([...open.pictures, ...(change.pictures ?? [])].map(({ id }) => id));
  const byNumber =
    told?.byNumber.map((picture) => (picture && attached.has(picture.id) ? picture : null)) ?? open.pictures;
  const parts =
    lists.parts && !areParts(lists.parts, open.post.parts, byNumber)
      ? partsOfRow(lists.parts, open.post.parts, byNumber, act.ids)
      : open.post.parts;
  const shown = partsWith(parts, change.pictures ?? open.pictures);
  if (JSON.stringify(shown) !== JSON.stringify(open.post.parts)) change.parts = shown;
  return change;
}

function changeOfWords(row: ImportRow, post: Post): PostChange {
  const change: PostChange = {};
  for (const field of ['title', ...WRITTEN_FIELDS, 'format', 'ownerId', 'pillarId', 'campaignId'] as const)
    if (row[field] !== undefined && row[field] !== post[field]) Object.assign(change, { [field]: row[field] });
  if (row.setAsideReason !== undefined && post.stage === 'setAside') change.setAsideReason = row.setAsideReason;
  return change;
}

/** Lets a write put its post at the stage a row names, where the post as it will be may stand there. */
function followStage(act: Doing, stage: Stage | undefined, after: OpenPost, write: PostWrite): Asked {
  const { title, stage: stands } = after.post;
  if (stage === undefined || stage === stands) return { write, notes: [] };
  if (stage === 'published' || stage === 'setAside')
    return {
      write,
      notes: [
        `“${title}” stays at its stage: ${stage === 'published' ? 'mark it as published' : 'set it aside'} on its sheet.`,
      ],
    };
  const facts = factsOf(after, act.now);
  if (stage === 'scheduled') {
    const due = maySchedule(facts);
    return due.ok
      ? { write: { ...write, change: { ...write.change, stage }, leavesAt: due.value }, notes: [] }
      : { write, notes: [`“${title}” stays at its stage. ${due.refusal.message}`] };
  }
  const to = mayMoveTo(facts, stage);
  if (!to.ok) return { write, notes: [`“${title}” stays at its stage. ${to.refusal.message}`] };
  const { retimedTo: _none, ...unscheduled } = write;
  return { write: { ...unscheduled, change: { ...write.change, stage } }, notes: [] };
}
