/** Rhythms and series as pages read them. Plain queries, handed on as they are. */

export { listDaysOff, listPauses, listPractice, listRhythms } from '@/data/rhythm/rhythms';
