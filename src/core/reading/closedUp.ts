/** Stands where a mark was. */
export const GONE = '\u0000';

/** A text with the places of its marks closed up: none before a mark that ends something, else one space where there was one. */
export function closedUp(text: string): string {
  const [first = '', ...others] = text.split(GONE);
  if (others.length === 0) return text;
  const parts = [first];
  for (const part of others) {
    const [before, after] = [parts.at(-1)!.trimEnd(), part.trimStart()];
    const isApart = before !== parts.at(-1) || after !== part;
    if (after === '' && before === '') continue;
    parts[parts.length - 1] = before;
    parts.push(isApart && !/^[.,;:!?…)\]”’»]/u.test(after) ? ` ${after}` : after);
  }
  return parts.join('').trim();
}
