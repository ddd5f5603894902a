import { ruleBasedHelper } from '../drafts/ruleBased';
import { analyse } from '../extracts/analyse';
import { plainlyKept, readingOf } from '../reading/readSource';
import { formatRule } from '../rulesheets/types';
import { askedOf } from './askedRow';
import { dealPictures } from './dealPictures';
import type { DraftedRow, FanOutGround, FanOutPost } from './ground';
import { draftRow, Spent } from './draftRow';

/**
 * Drafts the posts of a photo set: its pictures are dealt out in order, each once on a channel, and every draft says what is said of
 * its own pictures, the first on a channel what the set is about as well. A post that no picture is left for is not made, nor one
 * that would say what another says already.
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
  const spent = new Spent();
  const rows: DraftedRow[] = [];
  const posts: FanOutPost[] = [];
  const isAbout = new Set<string>();
  asked.forEach((one, at) => {
    if (!('channel' in one)) return void rows.push(one.row);
    const { channel, base, already } = one;
    const able = wanted.filter(({ row, key }) => row === at && dealt.get(key)!.length > 0);
    const made = able.flatMap(({ key, number }): FanOutPost[] => {
      const own = dealt.get(key)!;
      const lines = own.map(({ alt }) => alt.trim()).filter((alt) => alt !== '');
      const [first = ''] = lines;
      const withAbout = lines.length === 0 || !isAbout.has(channel.id);
      const text = [...lines.map(asSentence), ...(withAbout ? [about] : [])].filter((part) => part.trim() !== '');
      const analysis = analyse(readingOf(plainlyKept(text.join('\n\n'))));
      const pictureLines = own.map(({ alt }) => alt.trim());
      const source = { title: first || title, link, analysis, extracts: [], pictureLines };
      const row = { ...base, count: 1, source: { of: 'whole' as const } };
      const run = { shelf, under, wordsPerMinute, seed };
      const [drafted] = draftRow(ruleBasedHelper, source, { row, at, clips: [] }, channel, run, spent);
      if (!drafted) return [];
      isAbout.add(channel.id);
      return [
        {
          ...{ key, row: at, number, channelId: channel.id, format: base.format, offset: base.offset, gap: base.gap },
          ...{ from: [], drafts: drafted.drafts, pictures: own.map(({ id }) => id) },
        },
      ];
    });
    posts.push(...made);
    rows.push({ ...base, isOn: true, makes: made.length, note: noteOf(already, base.count, able.length, made.length) });
  });
  return { rows, posts };
}

/** Why a row of a photo set makes fewer posts than it asks for. */
function noteOf(already: string, count: number, able: number, made: number): string {
  const few = able < count ? `${able === 0 ? 'no picture is' : `pictures for only ${able} are`} left for ${count}` : '';
  const same = made < able ? `${able - made} not made: nothing of their own is said of the pictures` : '';
  return [already, few, same].filter(Boolean).join('; ');
}

/** What is said of a picture, ended as a sentence. */
const asSentence = (alt: string): string => (/[.!?…。！？]$/u.test(alt) ? alt : `${alt}.`);
