/** Bimlo’s own terms, each explained in a sentence or two to whoever meets it first. */
export const TERMS = {
  piece: 'The thing you have to say: a talk, an article, an episode, or one message. Every post belongs to a piece.',
  extract:
    'A part of a piece worth a post of its own: a quote, a point, a number, a question, a step, or a clip of a recording.',
  opening: 'A date and time at which the rhythm of a channel asks for a post. It is filled once a post stands there.',
  horizon:
    'How far ahead a channel is filled without an empty opening. Solid: ready to be sent. Hatched: planned, with words. The length is held against the channel’s target.',
  callSign: 'The two letters by which a channel is known everywhere here.',
  tray: 'Ideas and posts without a date. Drag them onto the calendar, or plan them on a date.',
  prep: 'The steps a post needs before it is published, and after: who does each, and by when.',
  batchDay: 'One sitting in which the same kind of work is done for several posts: recording, writing, designing.',
  departures: 'What will be sent when, whether it is ready to send, and what you post by hand.',
  shelf: 'What you use again: sets of hashtags, quotes, calls to action, links, replies, and the look of the brand.',
  rhythm: 'The week a channel should keep: on which days, at what time, with which format or theme.',
  setAside: 'Kept, but not planned: it counts nowhere and is never sent. It can be brought back at any time.',
  encore: 'A published post worth doing again, fresh: long enough ago to be new to most, and it did well.',
  coverage: 'For each piece, where it was used: on which channels, in which formats, and where not yet.',
} as const;

/** One of Bimlo’s own terms. */
export type Term = keyof typeof TERMS;
