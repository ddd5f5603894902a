import { accept, refuse, type Refusal, type Result } from '../refusal';
import type { Block } from '../posts/readiness';
import { dueInstant, type Instant, type LocalDate, type LocalTime, type Zone } from '../time/plan';
import { STAGE_LABELS, type Stage } from './stages';

/** What a move of stage depends on. */
export interface MoveFacts {
  stage: Stage;
  blocks: readonly Block[];
  date: LocalDate | null;
  time: LocalTime | null;
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
  message: 'This post is published. What is out stays as it was; it can be archived.',
};
const SET_ASIDE: Refusal = { code: 'setAside', message: 'This post is set aside. Bring it back first.' };

/**
 * Whether a post may be put at a stage by hand. Going back is always allowed until it is published; forward over stages
 * too, when what the goal asks is met: `ready` asks that there be no blocks. Out of `scheduled` it means: it does not
 * leave.
 */
export function mayMoveTo(facts: MoveFacts, to: ChosenStage): Result<ChosenStage> {
  const stuck = cannotChange(facts);
  if (stuck) return { ok: false, refusal: stuck };
  if (facts.stage === 'setAside') return { ok: false, refusal: SET_ASIDE };
  if (to === 'ready' && facts.blocks.length > 0) return blocked(facts.blocks, 'ready');
  return accept(to);
}

/**
 * Whether a post may be scheduled, and for which instant. It asks for a date, a time that exists in the brand's zone and
 * lies in the future, and no blocks. A post that is scheduled already may be scheduled again: its words are copied anew.
 */
export function maySchedule(facts: MoveFacts): Result<Instant> {
  const stuck = cannotChange(facts);
  if (stuck) return { ok: false, refusal: stuck };
  if (facts.stage === 'setAside') return { ok: false, refusal: SET_ASIDE };
  if (!facts.date) return refuse('noDate', 'Give it a date first.', 'date');
  if (!facts.time) return refuse('noTime', 'Give it a time first.', 'time');
  const due = dueInstant(facts.date, facts.time, facts.zone);
  if (!due.ok) return due;
  if (due.value <= facts.now)
    return refuse('past', `${facts.date} ${facts.time} has passed. Choose a time to come.`, 'time');
  if (facts.blocks.length > 0) return blocked(facts.blocks, 'scheduled');
  return due;
}

/** Whether a post may leave at once: as for scheduling, without date and time. */
export function mayPublishNow(facts: MoveFacts): Result<Instant> {
  const stuck = cannotChange(facts);
  if (stuck) return { ok: false, refusal: stuck };
  if (facts.stage === 'setAside') return { ok: false, refusal: SET_ASIDE };
  if (facts.blocks.length > 0) return blocked(facts.blocks, 'scheduled');
  return accept(facts.now);
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

function blocked(blocks: readonly Block[], goal: 'ready' | 'scheduled'): Result<never> {
  const first = blocks[0]!;
  const more = blocks.length > 1 ? ` (and ${blocks.length - 1} more)` : '';
  return refuse('blocked', `Not ${STAGE_LABELS[goal]} yet. ${first.message}${more}`, first.field);
}
