/** Steps, batch days and prep sheets as pages read them. Plain queries, handed on as they are. */

export {
  type BatchDay,
  type BatchDayLine,
  type BatchStep,
  listBatchDays,
  listBatchSteps,
  listStepsForBatch,
  maybeBatchDay,
} from '@/data/prep/batchDays';
export { listPrepSheets } from '@/data/prep/prepSheets';
export {
  type CalendarStep,
  type DeskStep,
  type Step,
  type StepHolder,
  countOpenSteps,
  listStepsOf,
} from '@/data/prep/steps';
