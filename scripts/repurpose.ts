/**
 * Takes a text apart and drafts posts from it, without a server: `npm run --silent repurpose -- FILE|- [--for slugs] [--fan-out talk]
 * [--lang en] [--title words] [--seed 1] [--json]`. Ends with 0, with 1 where the text cannot be read, with 2 where it is called wrongly.
 */
import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { parseArgs } from 'node:util';
import { fitTexts } from '@/core/captions/compose';
import { ruleBasedHelper } from '@/core/drafts/ruleBased';
import type { Draft, DraftSource } from '@/core/drafts/draft';
import { decodeText } from '@/core/text/decode';
import { analyse } from '@/core/extracts/analyse';
import { findClips, type Clip } from '@/core/clips/clips';
import { findExtracts, type Extract } from '@/core/extracts/extracts';
import { LANGUAGES } from '@/core/extracts/languages';
import { draftRow, Spent, whyFewer } from '@/core/fanOut/draftRow';
import type { FanOut } from '@/core/fanOut/fanOut';
import { groupLeftOut } from '@/core/reading/leftOut';
import { accountWords } from '@/core/reading/accountWords';
import { unknownLanguage } from '@/core/reading/unknownLanguage';
import { SHIPPED_FAN_OUTS } from '@/core/fanOut/shipped';
import { readingOf, readSource } from '@/core/reading/readSource';
import { countPart, partFaults, partsRule } from '@/core/posts/parts';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import type { Format, RuleSheet } from '@/core/rulesheets/types';
import { WORDS_PER_MINUTE } from '@/core/captions/spoken';

const USAGE =
  'Usage: npm run --silent repurpose -- FILE|- [--for slugs] [--fan-out talk] [--lang en] [--title words] [--seed 1] [--json]';

/** Extracts proposed, so that every post of a fan-out has one of its own. */
const EXTRACTS = 24;

class Stop extends Error {
  constructor(
    readonly status: 1 | 2,
    message: string,
  ) {
    super(message);
  }
}

interface Order {
  file: string;
  sheets: readonly RuleSheet[];
  fanOut: FanOut | null;
  language: string | null;
  /** What the text is called, where it does not say so. */
  title: string;
  seed: number;
  json: boolean;
}

/** Whether something is a language that has a name. */
const isLanguage = (tag: string): boolean =>
  /^[a-z]{2,3}(?:-[a-z0-9]+)*$/i.test(tag) &&
  new Intl.DisplayNames('en', { type: 'language', fallback: 'none' }).of(tag.split('-')[0]!.toLowerCase()) !==
    undefined;

function orderOf(words: string[]): Order {
  let read;
  try {
    read = parseArgs({
      args: words,
      allowPositionals: true,
      options: {
        for: { type: 'string' },
        'fan-out': { type: 'string' },
        lang: { type: 'string' },
        title: { type: 'string', default: '' },
        seed: { type: 'string', default: '1' },
        json: { type: 'boolean', default: false },
      },
    });
  } catch (error) {
    throw new Stop(2, `${(error as Error).message.split('\n')[0]} ${USAGE}`);
  }
  const { values, positionals } = read;
  if (positionals.length !== 1) throw new Stop(2, USAGE);
  const seed = Number(values.seed);
  if (!Number.isSafeInteger(seed)) throw new Stop(2, `The seed is a whole number, not “${values.seed}”. ${USAGE}`);
  if (values.lang !== undefined && !isLanguage(values.lang))
    throw new Stop(2, `“${values.lang}” is not a language; those with words of their own are ${LANGUAGES.join(', ')}.`);
  const fanOut = SHIPPED_FAN_OUTS.find(({ slug }) => slug === values['fan-out']) ?? null;
  if (values['fan-out'] !== undefined && !fanOut)
    throw new Stop(
      2,
      `There is no fan-out “${values['fan-out']}”; there are ${SHIPPED_FAN_OUTS.map(({ slug }) => slug).join(', ')}.`,
    );
  const slugs = values.for?.split(',').map((slug) => slug.trim());
  const unknown = slugs?.find((slug) => !SHIPPED_RULE_SHEETS.some((sheet) => sheet.slug === slug));
  if (unknown !== undefined)
    throw new Stop(
      2,
      `There is no rule sheet “${unknown}”; there are ${SHIPPED_RULE_SHEETS.map(({ slug }) => slug).join(', ')}.`,
    );
  return {
    file: positionals[0]!,
    sheets: SHIPPED_RULE_SHEETS.filter(({ slug }) => !slugs || slugs.includes(slug)),
    fanOut,
    language: values.lang?.slice(0, 2).toLowerCase() ?? null,
    title: values.title!,
    seed,
    json: values.json!,
  };
}

/**
 * A draft with what each of its texts counts.
 *
 * @param wording 1 for what a post begins with, 2 and more for other ways to word the same post
 */
function counted(draft: Draft, sheet: RuleSheet, format: Format, wording: number) {
  const parts = draft.parts.map((text, at) => ({ id: String(at), text, pictureId: null }));
  const words = { headline: '', caption: '', hashtags: '', link: '', ...draft.words, parts };
  const fits = fitTexts(words, sheet, format);
  const rule = partsRule(sheet, format);
  const tooLong = rule ? partFaults(parts, rule, sheet).some(({ code }) => code === 'tooLong') : false;
  const tooMany = rule ? parts.length + (rule.needs === 'text' ? 1 : 0) > rule.most : false;
  const missing = fits.some(({ rule: { required }, text }) => required && text.trim() === '');
  return {
    network: sheet.slug,
    format,
    ...(draft.variant !== null && { variant: draft.variant }),
    wording,
    fields: fits.map(({ rule: { name, limit }, text, count }) => ({ name, text, count, limit })),
    parts: parts.map(({ text }) => ({ text, count: countPart(text, sheet), limit: rule?.limit ?? 0 })),
    fits: fits.every(({ left }) => left >= 0) && !tooLong && !tooMany && !missing,
  };
}

function repurpose({ file, sheets, fanOut, language, title: ownTitle, seed }: Order) {
  let bytes: Buffer;
  try {
    bytes = readFileSync(file === '-' ? 0 : file);
  } catch (error) {
    throw new Stop(1, `${file} cannot be read: ${(error as NodeJS.ErrnoException).code ?? (error as Error).message}.`);
  }
  const read = readSource(decodeText(bytes), file === '-' ? '' : basename(file));
  if (!read.ok) throw new Stop(1, read.refusal.message);
  const { cues, isWordTimed, title } = read.value;
  const reading = readingOf(read.value);
  if (!/[\p{L}\p{N}]/u.test(reading.text)) throw new Stop(1, 'There is no text in it.');
  const analysis = analyse({ ...reading, cues, isWordTimed }, language);
  const extracts: Extract[] = findExtracts(analysis, EXTRACTS);
  const clips: Clip[] = findClips(analysis);
  const source: DraftSource = { title: title || ownTitle, link: '', analysis, extracts };
  const chosen = fanOut ?? SHIPPED_FAN_OUTS.find(({ slug }) => slug === (cues.length > 0 ? 'talk' : 'article'))!;
  const run = { shelf: { hashtags: [] }, under: null, wordsPerMinute: WORDS_PER_MINUTE.usual, seed };
  const spent = new Spent();
  const notMade: { network: string; format: Format; why: string }[] = [];
  const drafts = sheets.flatMap((sheet) =>
    chosen.rows.flatMap((row, at) => {
      if (row.network !== sheet.kind) return [];
      const channel = { id: sheet.slug, sheet };
      const posts = draftRow(ruleBasedHelper, source, { row, at, clips }, channel, run, spent);
      const why = whyFewer(row, posts.length);
      if (why !== '') notMade.push({ network: sheet.slug, format: row.format, why });
      return posts.flatMap((post) => post.drafts.map((draft, place) => counted(draft, sheet, row.format, place + 1)));
    }),
  );
  const { text, sentences } = analysis;
  return {
    text,
    sentences: sentences.map(({ start, end, inMs, outMs }) => ({
      start,
      end,
      ...(inMs !== undefined && { inMs, outMs }),
    })),
    as: reading.as,
    words: reading.words,
    leftOut: reading.leftOut,
    unknownLanguage: unknownLanguage(text),
    ...{ extracts, clips, drafts, notMade },
  };
}

function inWords({
  as,
  words,
  leftOut,
  unknownLanguage,
  extracts,
  clips,
  drafts,
  notMade,
}: ReturnType<typeof repurpose>): string {
  const seconds = (ms: number) =>
    `${Math.floor(ms / 60_000)}:${String(Math.round((ms % 60_000) / 1_000)).padStart(2, '0')}`;
  return [
    accountWords({ as, words, leftOut: groupLeftOut(leftOut).map(({ label }) => label), unknownLanguage }),
    ...extracts.map(({ kind, text, reason }) => `${kind}: ${text}\n  (${reason})`),
    ...clips.map(({ inMs, outMs, text }) => `clip ${seconds(inMs)}–${seconds(outMs)}: ${text}`),
    ...drafts.map(
      ({ network, format, fields, parts, wording, ...draft }) =>
        `— ${network}, ${format}${'variant' in draft ? `, ${String(draft.variant)}` : ''}${wording > 1 ? ', worded otherwise' : ''}\n${[
          ...fields
            .filter(({ text }) => text !== '')
            .map(({ name, text, count, limit }) => `${name} (${count} of ${limit}): ${text}`),
          ...parts.map(({ text, count, limit }, at) => `part ${at + 1} (${count} of ${limit}): ${text}`),
        ].join('\n')}`,
    ),
    ...notMade.map(({ network, format, why }) => `— ${network}, ${format}: ${why}`),
  ].join('\n\n');
}

try {
  const order = orderOf(process.argv.slice(2));
  const result = repurpose(order);
  process.stdout.write(`${order.json ? JSON.stringify(result) : inWords(result)}\n`);
} catch (error) {
  if (!(error instanceof Stop)) throw error;
  process.stderr.write(`${error.message}\n`);
  process.exitCode = error.status;
}
