import { makeParcel } from '@/core/delivery/parcel';
import { filesOf, folderOf, listOf, namesOnce, type TakenFile, type TakenPost } from '@/core/exchange/takeAway';
import { fieldsOf } from '@/core/rulesheets/types';
import { STAGE_LABELS } from '@/core/stages/stages';
import { listChannelsById } from '@/data/brands/channels';
import { listPicturesOf } from '@/data/media/media';
import { listPostLines, type PostLine } from '@/data/posts/postLines';
import type { Db } from '../useCase';

/** Posts whose files are made ready at once. */
const AT_ONCE = 50;

/** The files of posts in the order of their ids, and a list of them at the end. */
export async function* takeAway(db: Db, postIds: readonly string[]): AsyncGenerator<TakenFile> {
  const once = namesOnce();
  const taken: { folder: string; post: TakenPost }[] = [];
  for (let from = 0; from < postIds.length; from += AT_ONCE) {
    const ids = postIds.slice(from, from + AT_ONCE);
    const lines = await listPostLines(db, ids);
    lines.sort((one, other) => ids.indexOf(one.id) - ids.indexOf(other.id));
    for (const post of await takenPosts(db, lines)) {
      const folder = once(folderOf(post));
      taken.push({ folder, post });
      yield* filesOf(post, folder);
    }
  }
  yield { path: 'posts.csv', text: `\ufeff${listOf(taken)}` };
}

async function takenPosts(db: Db, lines: readonly PostLine[]): Promise<TakenPost[]> {
  const ids = lines.map(({ id }) => id);
  const [channels, pictures] = await Promise.all([
    listChannelsById(db, [...new Set(lines.map(({ channelId }) => channelId))]),
    listPicturesOf(db, ids),
  ]);
  return lines.flatMap((line) => {
    const channel = channels.find(({ id }) => id === line.channelId);
    if (!channel) return [];
    const own = pictures.filter(({ postId }) => postId === line.id);
    return [
      {
        channel: channel.name,
        ...{ title: line.title, date: line.date, time: line.time, address: line.address },
        stage: STAGE_LABELS[line.stage],
        // What was handed over already is what is out, or is to be posted.
        parcel: line.delivery?.parcel ?? makeParcel({ ...line, pictures: own }, channel),
        labels: Object.fromEntries(fieldsOf(channel.sheet, line.format).map(({ name, label }) => [name, label])),
      },
    ];
  });
}
