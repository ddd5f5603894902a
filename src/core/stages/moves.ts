import { accept, refuse, type Refusal, type Result } from '../refusal';
import type { Block } from '../posts/readiness';
import type { Want } from '../posts/wants';
import { dueInstant, type Instant, type LocalDate, type LocalTime, type Zone } from '../time/plan';
import { STAGE_LABELS, type Stage } from './stages';

/** What a move of stage depends on. */
export interface MoveFacts {
  stage: Stage;
  blocks: readonly Block[];
  /** What the team still wants; what was waived is not among it. */
  wants: readonly Want[];
  date: LocalDate | null;
  time: LocalTime | null;
  /** The end of its own window; absent, null or no later than its time for none. */
  until?: LocalTime | null;
  zone: Zone;
  now: Instant;
  /** The departure is under way or its outcome is not known yet, so nothing may be changed about it. */
  leaving: boolean;
}

/** The stages a person may choose by hand. Published is reached by delivery, by a confirmed hand-over or “already out”. */
export type ChosenStage = Exclude<Stage, 'published' | 'setAside' | 'scheduled'>;

const LEAVING: Refusal = {
  code: 'leaving',
  message: 'This post is leaving right now. Wait until the network has answered, then look again.',
};
const PUBLISHED: Refusal = {
  code: 'published',
  message: 'This post is published. What is published stays as it was; it can be archived.',
};
const SET_ASIDE: Refusal = { code: 'setAside', message: 'This post is set aside. Bring it back first.' };

/**
 * Whether a post may be put at a stage by hand. Going back is always allowed until it is published; forward over stages
 * too, when what the goal asks is met: `ready` asks that there be neither blocks nor wants. Out of `scheduled` it means: it does not
 * leave.
 */
export function mayMoveTo(facts: MoveFacts, to: ChosenStage): Result<ChosenStage> {
  const stuck = cannotChange(facts);
  if (stuck) return { ok: false, refusal: stuck };
  if (facts.stage === 'setAside') return { ok: false, refusal: SET_ASIDE };
  return to === 'ready' ? (unfit(facts, 'ready') ?? accept(to)) : accept(to);
}

/**
 * Whether a post may be scheduled, and for which instant. It asks for a date, a time that exists in the brand's zone and
 * lies in the future, and neither blocks nor wants. A post that is scheduled already may be scheduled again: its words are copied anew.
 */
export function maySchedule(facts: MoveFacts): Result<Instant> {
  const stuck = cannotChange(facts);
  if (stuck) return { ok: false, refusal: stuck };
  if (facts.stage === 'setAside') return { ok: false, refusal: SET_ASIDE };
  if (!facts.date) return refuse('noDate', 'Give it a date first.', 'date');
  if (!facts.time) return refuse('noTime', 'Give it a time first.', 'time');
  const due = dueInstant(facts.date, facts.time, facts.zone);
  if (!due.ok) return due;
  const last = facts.until && facts.until > facts.time ? dueInstant(facts.date, facts.until, facts.zone) : due;
  if ((last.ok ? last : due).value <= facts.now)
    return refuse('past', `${facts.date} ${facts.time} has passed. Choose a time to come.`, 'time');
  return unfit(facts, 'scheduled') ?? due;
}

/** Whether a post may leave at once: as for scheduling, without date and time. */
export function mayPublishNow(facts: MoveFacts): Result<Instant> {
  const stuck = cannotChange(facts);
  if (stuck) return { ok: false, refusal: stuck };
  if (facts.stage === 'setAside') return { ok: false, refusal: SET_ASIDE };
  return unfit(facts, 'scheduled') ?? accept(facts.now);
}

/** Whether a post may be set aside, deleted, or declared out already. */
export function mayLeavePlan(facts: Pick<MoveFacts, 'stage' | 'leaving'>): Result<true> {
  const stuck = cannotChange(facts);
  return stuck ? { ok: false, refusal: stuck } : accept(true);
}

/** Whether words, pictures, format or owner may be edited. A post being sent keeps its copy, so editing stays possible. */
export function mayEdit(facts: Pick<MoveFacts, 'stage'>): Result<true> {
  return facts.stage === 'published' ? { ok: false, refusal: PUBLISHED } : accept(true);
}

/**
 * Whether a post may be given another day or time, or none. Today and later only; a published post stays on its day.
 * The time of today may have passed: only scheduling asks for a time to come.
 */
export function mayPlanFor(
  facts: Pick<MoveFacts, 'stage' | 'leaving'>,
  plan: { date: LocalDate | null; time: LocalTime | null },
  today: LocalDate,
  zone: Zone,
): Result<true> {
  const stuck = cannotChange(facts);
  if (stuck) return { ok: false, refusal: stuck };
  if (plan.date === null) {
    return plan.time === null ? accept(true) : refuse('timeWithoutDate', 'A time needs a date.', 'date');
  }
  if (plan.date < today)
    return refuse('past', `${plan.date} has passed. A post can be planned for today or later.`, 'date');
  if (plan.time === null) return accept(true);
  const due = dueInstant(plan.date, plan.time, zone);
  return due.ok ? accept(true) : due;
}

function cannotChange(facts: Pick<MoveFacts, 'stage' | 'leaving'>): Refusal | null {
  if (facts.stage === 'published') return PUBLISHED;
  return facts.leaving ? LEAVING : null;
}

/** The refusal of a post that is not fit to be ready: by what its network would refuse, else by what the team wants. */
function unfit(
  { blocks, wants }: Pick<MoveFacts, 'blocks' | 'wants'>,
  goal: 'ready' | 'scheduled',
): Result<never> | null {
  const [first] = blocks.length > 0 ? blocks : wants;
  if (!first) return null;
  const others = blocks.length + wants.length - 1;
  const more = others > 0 ? ` (and ${others} more)` : '';
  const waive = blocks.length > 0 ? '' : ' A manager may waive it with a reason.';
  return refuse(
    blocks.length > 0 ? 'blocked' : 'wanted',
    `Not ${STAGE_LABELS[goal]} yet. ${first.message}${more}${waive}`,
    first.field,
  );
}
