import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import matter from 'gray-matter';
import Papa from 'papaparse';
import type { Format } from '@/core/rulesheets/types';
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
  sourceText: string;
}

/** The scenario as its files tell it. */
export interface Scenario {
  brands: { slug: string; name: string; zone: string; week_start: string }[];
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
  }[];
  channels: {
    brand: string;
    call_sign: string;
    name: string;
    network: string;
    account: string;
    color: string;
    aim_days: string;
  }[];
  pillars: { brand: string; name: string; color: string }[];
  campaigns: { brand: string; name: string; color: string; from_week: string; to_week: string }[];
  daysOff: { brand: string; name: string; from_week: string; from_weekday: string; days: string }[];
  rhythm(brand: string): RhythmRow[];
  posts(brand: string): PostRow[];
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
  picture(name: string): Buffer;
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
    posts: (brand) => rows(`${brand}/posts.csv`),
    ideas: (brand) => rows(`${brand}/ideas.csv`),
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
          } = data as { title: string; note?: string; link?: string; owner: string };
          return { title, note, link, owner, sourceText: content.trim() };
        }),
    picture: (name) => readFileSync(join(FOLDER, 'pictures', `${name}.jpg`)),
  };
}

function rows<Row>(file: string): Row[] {
  const { data, errors } = Papa.parse<Row>(readFileSync(join(FOLDER, file), 'utf8'), {
    header: true,
    skipEmptyLines: true,
  });
  const first = errors[0];
  if (first) throw new Error(`demo/${file}, row ${(first.row ?? 0) + 2}: ${first.message}`);
  return data;
}
