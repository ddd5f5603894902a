import { composeTexts, type Words } from '../captions/compose';
import { hashtagsIn } from '../captions/hashtags';
import { fieldsOf, type RuleSheet } from '../rulesheets/types';
import type { HeldPost, Parcel } from './network';

/**
 * The words that a network's texts were composed from: composing them again gives the texts back. Where that cannot be found out, the
 * texts themselves stand as what was typed, with no link or hashtags beside them.
 *
 * @param sheet the rules of the network, by which they were composed
 */
export function wordsOfHeld(parcel: HeldPost['parcel'], sheet: RuleSheet): Parcel['words'] {
  const textOf = (name: string) => parcel.texts.find((field) => field.name === name)?.text ?? '';
  const parts = (parcel.parts ?? []).map(({ text, picture }, index) => ({
    id: `held-${index}`,
    text,
    pictureId: picture === null ? null : (parcel.pictures[picture]?.id ?? null),
  }));
  const attempt = (takesTags: boolean, takesLink: boolean): Words => {
    let hashtags = '';
    const words: Words = { headline: '', caption: '', hashtags: '', link: takesLink ? parcel.link : '', parts };
    for (const rule of fieldsOf(sheet, parcel.format)) {
      const paragraphs = textOf(rule.name).split('\n\n');
      for (const part of [...rule.parts].reverse()) {
        const last = paragraphs.at(-1) ?? '';
        if (part === 'text') break;
        const isPart =
          part === 'link'
            ? takesLink && last === parcel.link
            : takesTags && last !== '' && hashtagsIn(last).join(' ') === last;
        if (!isPart) continue;
        if (part === 'hashtags') hashtags = last;
        paragraphs.pop();
      }
      words[rule.name] = paragraphs.join('\n\n');
    }
    return { ...words, hashtags };
  };
  const isRight = (words: Words) =>
    composeTexts(words, sheet, parcel.format).every(({ name, text }) => text === textOf(name));
  const found = [attempt(true, true), attempt(false, true), attempt(true, false)].find(isRight);
  return found ?? attempt(false, false);
}
