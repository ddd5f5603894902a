import { accept, refuse, type Result } from '../refusal';

/** The sorts of work a step can be; progress is shown by them. */
export const WORKS = ['words', 'picture', 'recording', 'editing', 'sending'] as const;
export type Work = (typeof WORKS)[number];

/** What people read for each sort of work. */
export const WORK_LABELS: Record<Work, string> = {
  words: 'words',
  picture: 'picture',
  recording: 'recording',
  editing: 'editing',
  sending: 'publishing and replies',
};

/** Who does what in a team, where no person is named. */
export const CRAFTS = ['writer', 'designer', 'videoEditor', 'assistant', 'manager'] as const;
export type Craft = (typeof CRAFTS)[number];

export const CRAFT_LABELS: Record<Craft, string> = {
  writer: 'writer',
  designer: 'designer',
  videoEditor: 'video editor',
  assistant: 'assistant',
  manager: 'manager',
};

/** Whether a lead counts working days of whoever does the step, or all days. */
export type LeadUnit = 'working' | 'calendar';

/** A step as a prep sheet holds it: what, who, and how long before publishing. */
export interface PrepLine {
  title: string;
  work: Work;
  /** The person who does it; null where a craft does, or whoever owns the post. */
  ownerId: string | null;
  /** The craft that does it where no person is named; null for the post's owner. */
  craft: Craft | null;
  /** Days before publishing; negative for after it. */
  lead: number;
  leadIn: LeadUnit;
  /** How long it takes; null for unknown. */
  minutes: number | null;
  note: string;
  /** A post is not called ready while it is undone. */
  needed: boolean;
  /** Ticked by itself as soon as its post shows that its work is done. */
  ticksItself: boolean;
}

/** A step nobody said anything about yet. */
export const BLANK_STEP: PrepLine = {
  title: '',
  work: 'words',
  ownerId: null,
  craft: null,
  lead: 1,
  leadIn: 'working',
  minutes: null,
  note: '',
  needed: false,
  ticksItself: false,
};

/**
 * Days before or after publishing that a step may lie.
 *
 * @internal
 */
export const LEAD_LIMIT = 365;
/** Steps of one post or prep sheet. */
export const STEPS_LIMIT = 60;
/** Minutes of one step. */
const MINUTES_LIMIT = 6_000;
const TITLE_LIMIT = 120;
const NOTE_LIMIT = 2_000;

/** Checks a step. Refused: no title, an unknown sort or craft, a lead beyond a year, minutes out of range. */
export function readStep<S extends PrepLine>(step: S): Result<S> {
  const title = step.title.replace(/\s+/gu, ' ').trim();
  if (title === '') return refuse('noTitle', 'Say what the step is, in a word or two.', 'title');
  if (title.length > TITLE_LIMIT)
    return refuse('longTitle', `A step is named in ${TITLE_LIMIT} characters, this has ${title.length}.`, 'title');
  if (!WORKS.includes(step.work))
    return refuse('badWork', 'The kind of work is not one of the list. Choose one.', 'work');
  if (step.craft !== null && !CRAFTS.includes(step.craft))
    return refuse('badCraft', 'That is not a skill of the list. Choose one.', 'craft');
  if (!Number.isInteger(step.lead) || Math.abs(step.lead) > LEAD_LIMIT)
    return refuse('badLead', `“${title}”: a step lies ${LEAD_LIMIT} days from publishing at most.`, 'lead');
  if (step.leadIn !== 'working' && step.leadIn !== 'calendar')
    return refuse('badLead', 'A lead counts working days or calendar days.', 'leadIn');
  if (step.minutes !== null && (!Number.isInteger(step.minutes) || step.minutes < 1 || step.minutes > MINUTES_LIMIT))
    return refuse('badMinutes', `“${title}”: a step takes 1 to ${MINUTES_LIMIT} minutes.`, 'minutes');
  if (step.note.length > NOTE_LIMIT)
    return refuse('longNote', `A step’s note holds ${NOTE_LIMIT} characters, this has ${step.note.length}.`, 'note');
  return accept({ ...step, title });
}

/** Checks a prep sheet as a whole. */
export function readPrep<S extends PrepLine>(steps: readonly S[]): Result<S[]> {
  if (steps.length > STEPS_LIMIT)
    return refuse('tooManySteps', `A prep holds ${STEPS_LIMIT} steps, this has ${steps.length}.`, 'steps');
  const read: S[] = [];
  for (const step of steps) {
    const result = readStep(step);
    if (!result.ok) return result;
    read.push(result.value);
  }
  return accept(read);
}

/** A lead in words: “2 working days before”, “on the day”, “1 day after”. */
export function leadWords(lead: number, leadIn: LeadUnit): string {
  if (lead === 0) return 'on the day';
  const days = Math.abs(lead);
  const unit = `${leadIn === 'working' ? 'working ' : ''}day${days === 1 ? '' : 's'}`;
  return `${days} ${unit} ${lead > 0 ? 'before' : 'after'}`;
}
