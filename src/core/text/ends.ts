/**
 * A text without what stands at its end, as long as that is of a kind. An expression for it (`x+$`) would look from every place of
 * a text on, and so take time with the square of its length.
 *
 * @param kind matches one character of that kind
 * @example withoutEnd('rings?!', /[?!]/) // 'rings'
 */
export function withoutEnd(text: string, kind: RegExp): string {
  let end = text.length;
  while (end > 0 && kind.test(text[end - 1]!)) end--;
  return text.slice(0, end);
}

/** A text without what stands at both its ends, as long as that is of a kind. */
export function withoutEnds(text: string, kind: RegExp): string {
  let start = 0;
  while (start < text.length && kind.test(text[start]!)) start++;
  return withoutEnd(text.slice(start), kind);
}
