import { fitTexts } from '@/core/captions/compose';
import { guessLanguage } from '@/core/extracts/languages';
import { draftFanOut } from '@/core/fanOut/draftFanOut';
import type { FanOutGround, FanOutPost } from '@/core/fanOut/ground';
import { SHIPPED_FAN_OUTS } from '@/core/fanOut/shipped';
import { partFaults, partsRule } from '@/core/posts/parts';
import { writtenOf } from '@/core/posts/written';
import { readingOf } from '@/core/reading/readSource';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import { lookAt, type Finding } from './checker';
import type { Marked } from './texts';

/** What became of a text. */
export interface DraftFigures {
  name: string;
  words: number;
  posts: number;
  channels: number;
  byFormat: Record<string, number>;
  outside: string[];
  findings: (Finding & { where: string })[];
  /** Posts that say what another says. */
  same: number;
  made: readonly FanOutPost[];
  notes: string[];
}

const groundOf = ({ kept, title }: Marked): FanOutGround => ({
  ...{ kept, title, link: 'https://moor.example/x' },
  rows: SHIPPED_FAN_OUTS.find(({ slug }) => slug === (kept.cues.length > 0 ? 'talk' : 'article'))!.rows,
  channels: SHIPPED_RULE_SHEETS.map((sheet) => ({ id: sheet.slug, name: sheet.name, sheet })),
  ...{ judged: [], chosen: {}, on: null, used: {}, existing: {}, under: null, wordsPerMinute: 150, seed: 1 },
  shelf: { hashtags: ['#NightSky', '#Bread', '#Rope'] },
});

const ONE_TEXT = ['thread', 'carousel', 'story', 'article', 'newsletter'];

/** Drafts a text as its usual fan-out does, counts what is made, and has the checker look at every draft. */
export function measureDrafts(text: Marked): DraftFigures {
  const reading = readingOf(text.kept);
  const language = guessLanguage(reading.text) ?? 'en';
  const { posts, rows } = draftFanOut(groundOf(text));
  const byFormat: Record<string, number> = {};
  const findings: DraftFigures['findings'] = [];
  for (const { channelId, format, drafts } of posts) {
    byFormat[format] = (byFormat[format] ?? 0) + 1;
    for (const { words: own, parts, sentences } of drafts) {
      // The few phrases that are no words of the piece are not looked at.
      const phrases = sentences.filter(({ origin }) => origin === 'phrase').map(({ text: phrase }) => phrase);
      const words = { ...own, caption: phrases.reduce((left, phrase) => left.replace(phrase, ''), own.caption ?? '') };
      const post = {
        title: format === 'boardPicture' ? (words.headline ?? '') : '',
        texts:
          format === 'thread' || format === 'carousel'
            ? [words.caption ?? '', ...parts]
            : [words.caption ?? '', ...(words.script ? [] : parts)],
        isOneText: ONE_TEXT.includes(format),
      };
      if (format === 'article' || text.name === 'ramble.txt') continue;
      for (const finding of lookAt(post, language, `${text.title}. ${reading.text}`))
        findings.push({ ...finding, where: `${channelId} ${format}` });
    }
  }
  const said = posts.map(({ drafts }) => `${drafts[0]!.words.caption}\n${drafts[0]!.parts.join('\n')}`);
  return {
    ...{ name: text.name, words: reading.words.read, posts: posts.length, byFormat, findings, made: posts },
    channels: new Set(posts.map(({ channelId }) => channelId)).size,
    outside: posts.flatMap((post) => (isOutside(post) ? [`${post.channelId} ${post.format}`] : [])),
    same: said.length - new Set(said).size,
    notes: rows.flatMap(({ network, format, note }) => (note === '' ? [] : [`${network} ${format}: ${note}`])),
  };
}

/** Whether a rule sheet would refuse any draft of a post. */
function isOutside({ channelId, format, drafts }: FanOutPost): boolean {
  const sheet = SHIPPED_RULE_SHEETS.find(({ slug }) => slug === channelId)!;
  return drafts.some((draft) => {
    const parts = draft.parts.map((text, at) => ({ id: `${at}`, text, pictureId: null }));
    const words = writtenOf({ headline: '', caption: '', hashtags: '', link: '', ...draft.words, parts });
    const isOver = fitTexts(words, sheet, format).some(({ overAt }) => overAt !== null);
    const rule = partsRule(sheet, format);
    // A part that still lacks its picture is not outside of the rules, it is not finished.
    return isOver || (rule !== null && partFaults(parts, { ...rule, needs: 'text' }, sheet).length > 0);
  });
}
