import { readFileSync } from 'node:fs';
import { readingOf } from '@/core/reading/readSource';
import { lookAt, type Looked } from './checker';
import type { Marked } from './texts';

/** A post with a fault that was planted in it. */
interface Planted {
  fault: string;
  post: Looked;
}

const one = (text: string, title = ''): Looked => ({ title, texts: [text], isOneText: false });
const FOREIGN: Record<string, string> = {
  en: 'Il pleut sur la ville comme il pleut dans mon cœur, et personne ne sait pourquoi.',
  de: 'Nobody knows for how long it has been raining on the roofs of this town by the sea.',
};
const ROOM: Record<string, string> = {
  en: 'Can everybody hear me at the back of the room?',
  de: 'Meine Damen und Herren, die nächste Folie bitte.',
};

/** Ways to spoil a good post. Each is told whether it applies. */
const FAULTS: [fault: string, spoil: (text: string, language: string) => Looked][] = [
  ['cut at its end', (text) => one(`${text.split(' ').slice(0, -3).join(' ')}.`)],
  ['cut at its beginning', (text) => one(capital(text.split(' ').slice(3).join(' ')))],
  ['a clause as title', (text) => one(text, text.split(' ').slice(0, 4).join(' '))],
  ['said twice', (text) => one(`${text} ${text}`)],
  ['a sentence in another language', (text, language) => one(`${text} ${FOREIGN[language]}`)],
  ['about the room', (text, language) => one(`${text} ${ROOM[language]}`)],
  ['begun small', (text) => one(text.charAt(0).toLowerCase() + text.slice(1))],
  [
    'pointing outside',
    (text, language) => one(`${language === 'de' ? 'Sie' : 'They'} ${text.charAt(0).toLowerCase()}${text.slice(1)}`),
  ],
  ['a footnote mark', (text) => one(text.replace(/[.?!]$/, '[12].'))],
  ['three dots for the rest', (text) => one(`${text.split(' ').slice(0, -2).join(' ')}…`)],
];
const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

/** What we marked for its thought and would not post as it stands: it points to what was said before. */
const NOT_ALONE = new Set(readFileSync('bench/texts/not-alone.txt', 'utf8').trim().split('\n'));

/** Good posts: what we marked as the best of each text, as it stands there, if it stands alone. */
export function goodPosts(texts: readonly Marked[]): { text: string; language: string; source: string }[] {
  return texts
    .filter(({ name }) => name !== 'ramble.txt')
    .flatMap(({ name, kept, key }) => {
      const { text: source } = readingOf(kept);
      const language = /artikel|aufsatz/.test(name) ? 'de' : 'en';
      return key
        .map(({ start, end }) => source.slice(start, end).replace(/\s+/g, ' '))
        .filter((text) => /^[\p{Lu}“]/u.test(text) && /[.?!”]$/.test(text) && !NOT_ALONE.has(text))
        .map((text) => ({ text, language, source }));
    });
}

/** How many of 60 planted faults the checker finds, and how many good posts it finds something in. */
export function testChecker(texts: readonly Marked[]): {
  planted: number;
  found: number;
  missed: string[];
  good: number;
  alarms: string[];
} {
  const good = goodPosts(texts);
  const planted = Array.from({ length: 60 }, (_, at): Planted & { language: string; source: string } => {
    const [fault, spoil] = FAULTS[at % FAULTS.length]!;
    const { text, language, source } = good[(at * 7) % good.length]!;
    return { fault, post: spoil(text, language), language, source };
  });
  const missed = planted.filter(({ post, language, source }) => lookAt(post, language, source).length === 0);
  const alarms = good.filter(({ text, language, source }) => lookAt(one(text), language, source).length > 0);
  return {
    ...{ planted: planted.length, found: planted.length - missed.length },
    missed: missed.map(({ fault, post }) => `${fault}: ${post.texts[0]!.slice(0, 70)}`),
    good: good.length,
    alarms: alarms.map(
      ({ text, language, source }) => `${lookAt(one(text), language, source)[0]!.what}: ${text.slice(0, 70)}`,
    ),
  };
}
