import { detectAll } from 'tinyld/light';

/**
 * Looks at posts as a stranger would, knowing nothing of how they were made: whole sentences, nothing that points outside, nothing
 * twice, nothing about the room or the page, one language. It shares no code with the drafts.
 */
export interface Finding {
  what: 'cut' | 'dangling' | 'repeat' | 'housekeeping' | 'language' | 'marks';
  text: string;
}

/** A post as it is looked at: its texts in the order in which they are read. */
export interface Looked {
  /** Empty for none. */
  title: string;
  texts: readonly string[];
  /** Texts that go on with each other, as parts of a thread do: only the first has to be understood alone. */
  isOneText: boolean;
}

const plain = (text: string): string =>
  text
    .replace(/^(?:#{1,6} |- |> |\d+\. |\*\*[^*]+:\*\* )/gmu, '')
    .replace(/\\([*_`#>+-])/g, '$1')
    .replace(/’/g, "'")
    .replace(/\s+/g, ' ')
    .trim();

/** Words that open what cannot stand first, by language. */
const OPENERS: Record<string, RegExp> = {
  en: /^(?:and|but|or|nor|so|he|she|they|it(?!'s (?:not )?(?:hard|easy|time|easier|better)| (?:is|was) (?:not )?\w+ (?:to|that|who|when)| (?:takes|does not|doesn't|costs|pays|rains|seems|helps|turns|hurts)\b)|its|his|her|their|them|this(?! (?:year|week|morning|is (?:how|why|what)))|these(?! days)|those(?! who)|that(?! (?:which|day))|there(?! (?:is|are|was|were|'s|has|have|will))|then|also|too|such|both|neither|either|the (?:latter|former|other|others|second|third|same)\b|yes|no,|because|therefore|however|instead|otherwise|meanwhile|later|afterwards|finally|secondly|thirdly|for example|as i said)\b/i,
  de: /^(?:und|aber|oder|denn|er|sie|es (?!gibt|ist|war|wird|dauert|kostet|lohnt|reicht|geht|kommt|hilft|heißt|braucht)|ihr|ihre|ihren|sein|seine|dies|diese|dieser|dieses|diesen|jene|dort|da |dann|dazu|dabei|damit|davon|daher|deshalb|darum|also|auch|trotzdem|außerdem|sonst|beide|ja,|nein|weil|zweitens|drittens|schließlich|das (?:ist|war|hat|sage|geht|zeigt)|so (?:ist|war|ein))(?!\p{L})/iu,
  fr: /^(?:et|mais|ou |donc|car|il (?!faut|y a|n'y|ne faut|est|suffit|vaut)|elle|ils|elles|leur|leurs|son |sa |ses |cela|ça|c'est (?:là|pourquoi|ce)|cette|ces|ce (?!qui|que|n'est|sont|dont)|alors|puis|ensuite|enfin|aussi|ainsi|oui|non,|parce)(?!\p{L})/iu,
};

const HOUSEKEEPING =
  /next slide|this slide|can (?:you|everybody) hear|thank you (?:for|very)|ladies and gentlemen|good (?:morning|evening)\b|subscribe|click here|read more|all rights reserved|©|photo: |produced by|share this|skip to|cookie|\[(?:edit|\d+|applause|laughter|music)\]|next post|on this page|see also|any questions|meine damen und herren|nächste folie|vielen dank für|mesdames et messieurs|let me (?:say|begin)|i was told that i have|coffee (?:break|comes)|our page/i;

/** What is found in a post. */
export function lookAt(post: Looked, language: string, source: string): Finding[] {
  const whole = ` ${plain(source)} `;
  const found: Finding[] = [];
  const add = (what: Finding['what'], text: string) => found.push({ what, text: text.slice(0, 90) });
  const texts = post.texts.map((text) => plain(text.replace(/ \d\/\d$/, ''))).filter((text) => text !== '');
  const seen = new Set<string>();
  texts.forEach((text, at) => {
    const sentences = sentencesOf(text, language);
    sentences.forEach((sentence, place) => {
      if (isCut(sentence, whole, place === sentences.length - 1)) add('cut', sentence);
      const key = sentence.toLowerCase();
      if (seen.has(key) && key.length > 25) add('repeat', sentence);
      seen.add(key);
      if (HOUSEKEEPING.test(sentence)) add('housekeeping', sentence);
      if (isForeign(sentence, language)) add('language', sentence);
    });
    if ((at === 0 || !post.isOneText) && OPENERS[language]?.test(text)) add('dangling', text);
    if (/^\p{Ll}/u.test(text) || / {2}|\s[,.;!?](?:\s|$)|,,|\.\.(?!\.)|…\s*$/u.test(text) || !isPaired(text))
      add('marks', text);
  });
  if (post.title !== '' && isCut(plain(post.title), whole, true, true)) add('cut', post.title);
  return found;
}

/** Sentences by their ends, an abbreviation or an initial ending none. */
function sentencesOf(text: string, language: string): string[] {
  const parts = [...new Intl.Segmenter(language, { granularity: 'sentence' }).segment(text)].map(
    ({ segment }) => segment,
  );
  return parts
    .reduce<string[]>((all, part) => {
      const last = all.at(-1);
      if (last !== undefined && (/(?:\b\p{L}|\b(?:Dr|Mr|Mrs|St|No|z\.B))\.\s*$/u.test(last) || /^\p{Ll}/u.test(part)))
        all[all.length - 1] = last + part;
      else all.push(part);
      return all;
    }, [])
    .map((part) => part.trim());
}

/** Whether a sentence begins or ends within one of its source, wherever it stands there; one that is not of the source is somebody else's. */
function isCut(sentence: string, source: string, isLast: boolean, isTitle = false): boolean {
  const bare = sentence.replace(/[.!?…]{1,4}["'”»)]{0,3}$/u, '');
  const [inSource, wanted] = [source.toLowerCase(), bare.toLowerCase()];
  let at = inSource.indexOf(wanted);
  if (at < 0) return bare.split(' ').length > 3 && isNearly(bare, source);
  for (; at >= 0; at = inSource.indexOf(wanted, at + 1)) {
    const before = source.slice(0, at).trimEnd();
    const after = source.slice(at + bare.length).trimStart();
    const lead = /(?:^|[.!?…:”"'»)\]]|\b(?:and|but|so|well|now|und|et|y|e),?)$/iu;
    const isBegun = lead.test(before) || /^[\p{Lu}\p{N}“"¿¡«„]/u.test(source.slice(at));
    const isEnded = /^(?:[.!?…。“”"'»)\]:]|$)/u.test(after) || (!isTitle && !isLast) || /^[\p{Lu}\p{N}[“]/u.test(after);
    if (isBegun && isEnded) return false;
  }
  return true;
}

/** Whether words stand in a source one after the other, but for an end or a beginning that was put on. */
const isNearly = (bare: string, source: string): boolean => {
  const words = bare.toLowerCase().split(' ');
  const half = words.slice(0, Math.ceil(words.length / 2)).join(' ');
  return source.toLowerCase().includes(half);
};

function isForeign(sentence: string, language: string): boolean {
  if (sentence.length < 40) return false;
  const [best] = detectAll(sentence);
  return best !== undefined && best.lang !== language && best.accuracy > 0.35;
}

const isPaired = (text: string): boolean =>
  (text.match(/“/g)?.length ?? 0) === (text.match(/”/g)?.length ?? 0) &&
  (text.match(/\(/g)?.length ?? 0) === (text.match(/\)/g)?.length ?? 0);
