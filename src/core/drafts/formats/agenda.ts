import type { DraftOrder, DraftSource } from '../draft';
import type { Body } from '../form';
import { phrasesOf } from '../phrases';
import { sectionsOf, sentencesIn, standing, textOf, type Said } from '../saying';
import type { DraftedCaption } from './caption';

/** Questions of an agenda, at most. */
const QUESTIONS = 8;

/** The agenda of a live broadcast: the sections of the piece, and the questions it asks that are understood alone. */
export function agendaOf(source: DraftSource, _order: DraftOrder, caption: DraftedCaption): Body | null {
  const { sentences, language } = source.analysis;
  const sections = sectionsOf(source.analysis).flatMap(({ heading }): Said[] =>
    heading === null ? [] : [{ text: `- ${heading}`, origin: 'piece' }],
  );
  const questions = [...sentences.keys()]
    .filter((at) => sentences[at]!.traits.has('question'))
    .flatMap((at) => {
      const words = standing(source, at, at + 1);
      return words ? [{ one: words[0]!, score: sentences[at]!.score }] : [];
    })
    .sort((one, other) => other.score - one.score)
    .slice(0, QUESTIONS)
    .map(({ one }): Said => ({ ...one, text: `- ${one.text}` }));
  const heading = phrasesOf(language)?.questions;
  const agenda: Said[] = [
    ...sections,
    ...(heading && questions.length > 0 ? [{ text: `${heading}:`, origin: 'phrase' as const }] : []),
    ...questions,
  ];
  if (agenda.length === 0) return null;
  return {
    words: { caption: textOf(caption.paragraphs), agenda: agenda.map(({ text }) => text).join('\n') },
    parts: [],
    sentences: [...sentencesIn('caption', caption.paragraphs), ...sentencesIn('agenda', [agenda])],
  };
}
