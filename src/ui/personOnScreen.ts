/**
 * As whom the page on screen was drawn. What the browser keeps is kept apart for each person: what one of them typed is neither shown
 * to nor saved by who signs in after them, and is there again when they come back. And what is written says whose page it comes
 * from, so that a page which was left open writes nothing as somebody else who signed in since.
 */

let personId = '';

/** Says as whom the page was drawn. */
export function drawnFor(id: string): void {
  personId = id;
}

/** The id of that person; empty where nobody is known yet. */
export const personOnScreen = (): string => personId;

/** The key under which something is kept for that person. */
export const ownKey = (name: string): string => `bimlo.${personId}.${name}`;
