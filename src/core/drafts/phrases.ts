import type { Language } from '../extracts/languages';

/** The few words that Bimlo puts between a piece's own sentences. Each list is dealt from by the seed. */
interface Phrases {
  /** Before the link to the piece. */
  toThePiece: readonly string[];
  /** What closes a row of slides or frames. */
  closing: readonly string[];
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
    closing: ['Which of these did you not know?', 'Keep this for later.', 'Pass it on to somebody who would like it.'],
    points: ['Three things from it', 'What to take from it'],
    questions: 'Questions to answer',
  },
  de: {
    toThePiece: ['Alles dazu steht hier:', 'Der ganze Text:', 'Mehr davon:'],
    closing: ['Was davon war neu?', 'Zum Aufheben.', 'Gern weitergeben.'],
    points: ['Drei Dinge daraus', 'Was bleibt'],
    questions: 'Fragen, die beantwortet werden',
  },
  fr: {
    toThePiece: ['Tout est ici :', 'La suite :', 'À lire en entier :'],
    closing: ['Que saviez-vous déjà ?', 'À garder pour plus tard.', 'À partager autour de vous.'],
    points: ['Trois choses à retenir', 'Ce qu’il faut en garder'],
    questions: 'Questions à traiter',
  },
  es: {
    toThePiece: ['Todo está aquí:', 'El resto:', 'El texto entero:'],
    closing: ['¿Qué parte era nueva?', 'Para guardar.', 'Para compartir con quien le guste.'],
    points: ['Tres cosas de todo esto', 'Lo que queda'],
    questions: 'Preguntas por responder',
  },
  pt: {
    toThePiece: ['Está tudo aqui:', 'O resto:', 'O texto inteiro:'],
    closing: ['O que era novo?', 'Para guardar.', 'Para passar a quem goste.'],
    points: ['Três coisas a reter', 'O que fica'],
    questions: 'Perguntas a responder',
  },
};

/** The phrases of a language; none of one that has no file. */
export const phrasesOf = (language: string | null): Phrases | null => PHRASES[language as Language] ?? null;
