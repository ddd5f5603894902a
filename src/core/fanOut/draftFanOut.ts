import { countOthers } from '../drafts/keywords';
import { ruleBasedHelper } from '../drafts/ruleBased';
import { analyse } from '../extracts/analyse';
import { findClips, type Clip } from '../clips/clips';
import { findExtracts, overlaps, type Extract, type Taken } from '../extracts/extracts';
import { timesOf } from '../reading/subtitles';
import { readingOf } from '../reading/readSource';
import { serviceBacked } from '../writing/written';
import { draftRow, Spent, whyFewer } from './draftRow';
import { askedOf } from './askedRow';
import { draftPhotoSet } from './draftPhotoSet';
import type { JudgedExtract, FanOutGround, DraftedRow, FanOutPost } from './ground';

/** Extracts looked for beside those that were accepted. */
const LOOKED_FOR = 40;

/** Drafts all posts of a fan-out: the accepted extracts are dealt first, then what Bimlo proposes. */
export function draftFanOut(ground: FanOutGround): { rows: DraftedRow[]; posts: FanOutPost[] } {
  if (ground.pictures?.length) return draftPhotoSet(ground, ground.pictures);
  const { kept, judged, used, shelf, under, wordsPerMinute, seed } = ground;
  const reading = readingOf(kept);
  const analysis = analyse({ ...reading, cues: kept.cues, isWordTimed: kept.isWordTimed });
  const textOf = ({ start, end }: Taken) => reading.text.slice(start, end);
  const accepted = judged.filter(({ state }) => state === 'accepted');
  const isClip = ({ kind }: JudgedExtract) => kind === 'clip';
  const own = accepted.flatMap((one): Extract[] =>
    one.kind === 'clip'
      ? []
      : [{ ...one, kind: one.kind, text: textOf(one), ...timesOf(kept.cues, one.start, one.end) }],
  );
  const extracts = [
    ...own,
    ...findExtracts(
      analysis,
      LOOKED_FOR,
      judged.filter((one) => !isClip(one)),
    ),
  ];
  const ownClips = accepted.filter(isClip).flatMap((one): Clip[] => {
    const times = timesOf(kept.cues, one.start, one.end);
    return times ? [{ start: one.start, end: one.end, ...times, text: textOf(one) }] : [];
  });
  const takenClips = judged.filter(isClip);
  const clips = [...ownClips, ...findClips(analysis, {}, (one) => !takenClips.some((clip) => overlaps(clip, one)))];
  const others = countOthers(ground.otherTexts ?? []);
  const source = { title: ground.title, link: ground.link, analysis, extracts, others };
  const spent = new Spent(used);
  const hasNoText = ground.isNote === true || analysis.sentences.length === 0;
  const helper = ground.written ? serviceBacked(ruleBasedHelper, ground.written) : ruleBasedHelper;
  const rows: DraftedRow[] = [];
  const posts: FanOutPost[] = [];
  ground.rows.forEach((row, at) => {
    const asked = askedOf(row, at, ground);
    if (!('channel' in asked)) return void rows.push(asked.row);
    const { channel, base, already } = asked;
    const run = { shelf, under, wordsPerMinute, seed };
    const drafted = draftRow(helper, source, { row, at, clips }, channel, run, spent, hasNoText);
    const note = [already, whyFewer(row, drafted.length)].filter(Boolean).join('; ');
    rows.push({ ...base, isOn: true, makes: drafted.length, note });
    for (const { number, from, clip, drafts } of drafted)
      posts.push({
        ...{ key: `${at}-${number}-${channel.id}`, row: at, number, channelId: channel.id },
        ...{ format: row.format, offset: row.offset, gap: row.gap, drafts },
        from: ground.isNote ? [] : clip ? [{ ...clip, kind: 'clip', reason: '' }] : [...from],
      });
  });
  return { rows, posts };
}
