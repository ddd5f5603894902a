import { ruleBasedHelper } from '../drafts/ruleBased';
import { analyse } from '../extracts/analyse';
import { plainlyKept, readingOf } from '../reading/readSource';
import { formatRule } from '../rulesheets/types';
import { askedOf } from './askedRow';
import { dealPictures } from './dealPictures';
import type { DraftedRow, FanOutGround, FanOutPost } from './ground';
import { draftPosts } from './draftPosts';

/**
 * Drafts the posts of a photo set: its pictures are dealt out in order, each once on a channel, and every draft starts from what
 * is said of its own pictures, then from the text or note of the set. A post no picture is left for is not made.
 */
export function draftPhotoSet(
  ground: FanOutGround,
  pictures: readonly { id: string; alt: string }[],
): { rows: DraftedRow[]; posts: FanOutPost[] } {
  const { kept, title, link, shelf, under, wordsPerMinute, seed } = ground;
  const about = readingOf(kept).text;
  const asked = ground.rows.map((row, at) => askedOf(row, at, ground));
  const wanted = asked.flatMap((one, row) => {
    if (!('channel' in one)) return [];
    const { picturesMin, picturesMax, parts } = formatRule(one.channel.sheet, one.base.format)!;
    // Several are for what shows them one after the other.
    const most = parts ? picturesMax : picturesMin;
    return Array.from({ length: one.base.count }, (_post, number) => ({
      ...{ key: `${row}-${number}-${one.channel.id}`, row, number, channelId: one.channel.id },
      ...{ least: picturesMin, most: Math.max(1, most) },
    }));
  });
  const dealt = dealPictures(wanted, pictures);
  const titles = new Map(ground.channels.map(({ id }) => [id, [] as string[]]));
  const rows: DraftedRow[] = [];
  const posts: FanOutPost[] = [];
  asked.forEach((one, at) => {
    if (!('channel' in one)) return void rows.push(one.row);
    const { channel, base, already } = one;
    const able = wanted.filter(({ row, key }) => row === at && dealt.get(key)!.length > 0);
    const few =
      able.length < base.count
        ? `${able.length === 0 ? 'no picture is' : `pictures for only ${able.length} are`} left for ${base.count}`
        : '';
    rows.push({ ...base, isOn: true, makes: able.length, note: [already, few].filter(Boolean).join('; ') });
    for (const { key, number } of able) {
      const own = dealt.get(key)!;
      const [first = '', ...others] = own.map(({ alt }) => alt.trim()).filter((alt) => alt !== '');
      const text = [others.map(asSentence).join(' '), about].filter((part) => part.trim() !== '');
      const reading = readingOf(plainlyKept(text.join('\n\n')));
      // What is said of its first picture opens it, as a title would.
      const source = { title: first || title, link, analysis: analyse(reading), extracts: [] };
      const [drafted] = draftPosts(
        ruleBasedHelper,
        source,
        [{ row: at, number, from: [], clip: null }],
        { sheet: channel.sheet, format: base.format },
        { shelf, under, wordsPerMinute, seed },
        titles.get(channel.id)!,
      );
      posts.push({
        ...{ key, row: at, number, channelId: channel.id, format: base.format, offset: base.offset, gap: base.gap },
        ...{ from: [], drafts: drafted!.drafts, pictures: own.map(({ id }) => id) },
      });
    }
  });
  return { rows, posts };
}

/** What is said of a picture, ended as a sentence. */
const asSentence = (alt: string): string => (/[.!?…。！？]$/u.test(alt) ? alt : `${alt}.`);
