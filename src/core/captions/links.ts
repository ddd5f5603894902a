/** A stretch of a text, in UTF-16 offsets: from `start` up to, not including, `end`. */
export interface Span {
  start: number;
  end: number;
}

const CANDIDATE = /(?<![\p{L}\p{N}_])(?:https?:\/\/|www\.)[^\s<>"“”«»、。，！？「」『』]+/giu;
const TRAILING = new Set(`.,;:!?'’…*_~)]}`);
const OPENER: Record<string, string> = { ')': '(', ']': '[', '}': '{' };

/**
 * Finds the links of a text: what begins with `http://`, `https://` or `www.` and runs to white space, an angle
 * bracket, a quotation mark or CJK punctuation. Sentence punctuation at the end does not belong to it, nor does a
 * closing bracket that was not opened inside.
 *
 * @example
 * linkSpans('(see https://a.example/x_(y))') // [{ start: 5, end: 28 }]: https://a.example/x_(y)
 * linkSpans('at http://127.0.0.1:4310/a, then') // [{ start: 3, end: 26 }], without the comma
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
  const left = countsOf(candidate);
  let end = candidate.length;
  for (; end > 0; end--) {
    const last = candidate[end - 1]!;
    if (!TRAILING.has(last)) break;
    const opener = OPENER[last];
    if (opener && (left.get(opener) ?? 0) >= left.get(last)!) break;
    left.set(last, left.get(last)! - 1);
  }
  return candidate.slice(0, end);
}

/** How often each UTF-16 unit stands in a text. */
function countsOf(text: string): Map<string, number> {
  const counts = new Map<string, number>();
  for (let at = 0; at < text.length; at++) counts.set(text[at]!, (counts.get(text[at]!) ?? 0) + 1);
  return counts;
}
