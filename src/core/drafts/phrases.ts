import type { Language } from '../extracts/languages';

/** The few words that Bimlo puts between a piece's own sentences. Each list is dealt from by the seed. */
interface Phrases {
  /** Before the link to the piece. */
  toThePiece: readonly string[];
  /** Above the points of a letter. */
  points: readonly string[];
  /** Above the questions of a live agenda. */
  questions: string;
}

/** Phrases by language; a text in another gets none. */
const PHRASES: Record<Language, Phrases> = {
  en: {
    toThePiece: [
      'The whole of it is here:',
      'There is more where this came from:',
      'Read the rest:',
      'All of it, from the start:',
    ],
    points: ['Three things from it', 'What to take from it'],
    questions: 'Questions to answer',
  },
  de: {
    toThePiece: ['Alles dazu steht hier:', 'Der ganze Text:', 'Mehr davon:'],
    points: ['Drei Dinge daraus', 'Was bleibt'],
    questions: 'Fragen, die beantwortet werden',
  },
  fr: {
    toThePiece: ['Tout est ici :', 'La suite :', 'À lire en entier :'],
    points: ['Trois choses à retenir', 'Ce qu’il faut en garder'],
    questions: 'Questions à traiter',
  },
  es: {
    toThePiece: ['Todo está aquí:', 'El resto:', 'El texto entero:'],
    points: ['Tres cosas de todo esto', 'Lo que queda'],
    questions: 'Preguntas por responder',
  },
  pt: {
    toThePiece: ['Está tudo aqui:', 'O resto:', 'O texto inteiro:'],
    points: ['Três coisas a reter', 'O que fica'],
    questions: 'Perguntas a responder',
  },
};

/** The phrases of a language; none of one that has no file. */
export const phrasesOf = (language: string | null): Phrases | null => PHRASES[language as Language] ?? null;
