/** A stretch of a text, in UTF-16 offsets: from `start` up to, not including, `end`. */
export interface Span {
  start: number;
  end: number;
}

const CANDIDATE = /(?<![\p{L}\p{N}_])(?:https?:\/\/|www\.)[^\s<>"“”«»、。，！？「」『』]+/giu;
const TRAILING = /[.,;:!?'’…*_~)\]}]$/u;
const OPENER: Record<string, string> = { ')': '(', ']': '[', '}': '{' };

/**
 * Finds the links of a text: what begins with `http://`, `https://` or `www.` and runs to white space, an angle
 * bracket, a quotation mark or CJK punctuation. Sentence punctuation at the end does not belong to it, nor does a
 * closing bracket that was not opened inside.
 *
 * @example
 * linkSpans('(see https://a.example/x_(y))') // one span: https://a.example/x_(y)
 * linkSpans('at http://127.0.0.1:4310/a, then') // one span, without the comma
 */
export function linkSpans(text: string): Span[] {
  if (!/:\/\/|www\./i.test(text)) return [];
  const spans: Span[] = [];
  for (const match of text.matchAll(CANDIDATE)) {
    const link = withoutTail(match[0]);
    if (/^(?:https?:\/\/|www\.)[\p{L}\p{N}[]/iu.test(link))
      spans.push({ start: match.index, end: match.index + link.length });
  }
  return spans;
}

function withoutTail(candidate: string): string {
  let link = candidate;
  for (;;) {
    const last = TRAILING.exec(link)?.[0];
    if (!last) return link;
    const opener = OPENER[last];
    if (opener && count(link, opener) >= count(link, last)) return link;
    link = link.slice(0, -1);
  }
}

const count = (text: string, character: string): number => text.split(character).length - 1;
