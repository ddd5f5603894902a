/** Saved views and files of dates as pages read them. Plain queries, handed on as they are. */

export { type DateFile, type KnownDate, listDateFiles } from '@/data/calendar/knownDates';
export { type SavedView, listSavedViews } from '@/data/calendar/savedViews';
