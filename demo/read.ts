import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import matter from 'gray-matter';
import Papa from 'papaparse';
import type { PieceKind } from '@/core/pieces/kinds';
import type { OwnFanOut } from '@/data/fanOut/fanOuts';
import type { HowRead } from '@/core/reading/howRead';
import { readSource } from '@/core/reading/readSource';
import type { Cue } from '@/core/reading/subtitles';
import type { Format } from '@/core/rulesheets/types';
import type { WrittenField } from '@/core/posts/written';
import { readFits, type Fits } from '@/core/shelf/fits';
import type { AssetKind, ShelfWords } from '@/core/shelf/shelf';
import type { Stage } from '@/core/stages/stages';

const FOLDER = join(process.cwd(), 'demo');

/** A row of `posts.csv`; every value as written there. */
export interface PostRow {
  piece: string;
  channel: string;
  week: string;
  weekday: string;
  time: string;
  format: Format;
  stage: Exclude<Stage, 'published' | 'setAside'> | 'failed';
  title: string;
  headline: string;
  caption: string;
  hashtags: string;
  link: string;
  picture: string;
  alt: string;
  owner: string;
  pillar: string;
  campaign: string;
  /** Beyond what a row of a table holds: told in a Markdown file of the folder `posts`. */
  more?: WrittenPost;
}

/** What a post has that a row of a table does not: its pictures, parts and further texts. */
export interface WrittenPost extends Partial<Record<WrittenField, string>> {
  pictures?: { name: string; alt: string }[];
  /** `picture` names one of the pictures. */
  parts?: { text: string; picture?: string }[];
}

/** A row of `rhythm.csv`. */
export interface RhythmRow {
  channel: string;
  kind: 'weekly' | 'monthlyWeekday';
  weekday: string;
  every: string;
  nth: string;
  time: string;
  format: string;
  theme: string;
  pillar: string;
  from_week: string;
}

/** A piece with a source text. */
export interface PieceFile {
  title: string;
  note: string;
  link: string;
  owner: string;
  kind: PieceKind;
  sourceText: string;
  /** When it is said; empty for a text without times. */
  cues: readonly Cue[];
  isWordTimed: boolean;
  how: HowRead;
  /** Its video, by file name; null without one. */
  recording: string | null;
}

/** The scenario as its files tell it. */
export interface Scenario {
  brands: { slug: string; name: string; zone: string; week_start: string; asks_sign_off: 'yes' | 'no' }[];
  people: {
    slug: string;
    name: string;
    role: 'manager' | 'maker' | 'reviewer';
    brands: string;
    crafts: string;
    zone: string;
    weekdays: string;
    /** Hours a day. */
    hours: string;
    color: string;
    /** Their mail address. */
    mail: string;
  }[];
  channels: {
    brand: string;
    call_sign: string;
    name: string;
    network: string;
    account: string;
    color: string;
    aim_days: string;
    /** Minutes before at which people are told of what they post by hand. */
    lead_minutes: string;
  }[];
  pillars: { brand: string; name: string; color: string }[];
  campaigns: { brand: string; name: string; color: string; from_week: string; to_week: string }[];
  daysOff: { brand: string; name: string; from_week: string; from_weekday: string; days: string }[];
  rhythm(brand: string): RhythmRow[];
  posts(brand: string): PostRow[];
  shelf(brand: string): Required<ShelfWords>[];
  /** Handles stand in a column for each network. */
  names(brand: string): ({ kind: 'person' | 'place'; name: string } & Record<string, string>)[];
  /** `file` is one of the pictures, with its ending. */
  brandSheets: { brand: string; kind: AssetKind; name: string; value: string; file: string }[];
  ideas(brand: string): {
    title: string;
    note: string;
    link: string;
    channels: string;
    days_ago: string;
    owner: string;
    set_aside: string;
  }[];
  pieces(brand: string): PieceFile[];
  /** The fan-outs a brand set. */
  fanOuts(brand: string): OwnFanOut[];
  /** A picture or video by its file name. */
  picture(file: string): Buffer;
}

/** Reads the scenario. A row that is no CSV is an error with its file and line. */
export function readScenario(): Scenario {
  return {
    brands: rows('brands.csv'),
    people: rows('people.csv'),
    channels: rows('channels.csv'),
    pillars: rows('pillars.csv'),
    campaigns: rows('campaigns.csv'),
    daysOff: rows('days-off.csv'),
    rhythm: (brand) => rows(`${brand}/rhythm.csv`),
    posts: (brand) => [...rows<PostRow>(`${brand}/posts.csv`), ...writtenPosts(brand)],
    ideas: (brand) => rows(`${brand}/ideas.csv`),
    shelf: (brand) =>
      maybeRows<Omit<Required<ShelfWords>, 'fits'> & { fits: string }>(`${brand}/shelf.csv`).map((row) => ({
        ...row,
        fits: fitsIn(row.fits || '{}'),
      })),
    names: (brand) => maybeRows(`${brand}/names.csv`),
    brandSheets: rows('brand-sheets.csv'),
    fanOuts: (brand) => {
      const file = join(FOLDER, brand, 'fan-outs.json');
      return existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as OwnFanOut[]) : [];
    },
    pieces: (brand) =>
      readdirSync(join(FOLDER, brand, 'pieces'))
        .sort()
        .map((file) => {
          const { data, content } = matter(readFileSync(join(FOLDER, brand, 'pieces', file), 'utf8'));
          const {
            title,
            note = '',
            link = '',
            owner,
            kind = 'message',
            transcript,
            recording = null,
          } = data as Partial<PieceFile> & Pick<PieceFile, 'title' | 'owner'> & { transcript?: string };
          const text = transcript
            ? readFileSync(join(FOLDER, brand, 'transcripts', transcript), 'utf8')
            : content.trim();
          const read = readSource(text, transcript ?? file);
          if (!read.ok) throw new Error(`${file}: ${read.refusal.message}`);
          const { source: sourceText, cues, isWordTimed, how } = read.value;
          return { title, note, link, owner, kind, sourceText, cues, isWordTimed, how, recording };
        }),
    picture: (file) => readFileSync(join(FOLDER, /\.(mp4|webm)$/.test(file) ? 'videos' : 'pictures', file)),
  };
}

/** The posts of a brand that are told in a file each: the text is the caption, all else stands above it. */
function writtenPosts(brand: string): PostRow[] {
  const folder = join(FOLDER, brand, 'posts');
  if (!existsSync(folder)) return [];
  return readdirSync(folder)
    .sort()
    .map((file) => {
      const { data, content } = matter(readFileSync(join(folder, file), 'utf8'));
      const { piece, channel, week, weekday, time, format, stage, title, owner, pillar, ...more } = data as PostRow &
        WrittenPost;
      const { headline = '', hashtags = '', link = '', campaign = '' } = data as PostRow;
      return {
        ...{ piece, channel, week, weekday, time, format, stage, title, owner, pillar },
        ...{ headline, hashtags, link, campaign, caption: content.trim(), picture: '', alt: '', more },
      };
    });
}

/** For what an item holds, as the app keeps it. */
function fitsIn(json: string): Fits {
  const read = readFits(JSON.parse(json) as Fits);
  if (!read.ok) throw new Error(read.refusal.message);
  return read.value;
}

const maybeRows = <Row>(file: string): Row[] => (existsSync(join(FOLDER, file)) ? rows(file) : []);

function rows<Row>(file: string): Row[] {
  const { data, errors } = Papa.parse<Row>(readFileSync(join(FOLDER, file), 'utf8'), {
    header: true,
    skipEmptyLines: true,
  });
  const first = errors[0];
  if (first) throw new Error(`demo/${file}, row ${(first.row ?? 0) + 2}: ${first.message}`);
  return data;
}
