import { minutesOf } from '../time/days';
import type { LocalTime } from '../time/plan';

/** Where something stands in the day arrangement. */
export interface DayBlock<T> {
  item: T;
  /** Minutes from midnight. */
  start: number;
  /** Columns count from 0; `columns` is how many stand side by side in its group. */
  column: number;
  columns: number;
}

/** Hours 0 to 23 that show; the rest before and after are folded. */
interface ShownHours {
  first: number;
  last: number;
}

/** Hours that always show, however empty. */
const CORE_HOURS: ShownHours = { first: 7, last: 21 };

/**
 * Sets what overlaps side by side: each thing takes `lengthMinutes` of height from its time on; things that overlap in a
 * chain form a group and share its width; each takes the first column that is free.
 *
 * @param items with a time, in any order
 */
export function layOutDay<T extends { time: LocalTime }>(items: readonly T[], lengthMinutes: number): DayBlock<T>[] {
  const blocks = items
    .map((item): DayBlock<T> => ({ item, start: minutesOf(item.time), column: 0, columns: 1 }))
    .sort((a, b) => a.start - b.start);
  let group: DayBlock<T>[] = [];
  let groupEnd = -1;
  let columnEnds: number[] = [];
  const close = () => {
    for (const block of group) block.columns = columnEnds.length;
  };
  for (const block of blocks) {
    if (block.start >= groupEnd) {
      close();
      group = [];
      columnEnds = [];
    }
    const free = columnEnds.findIndex((end) => end <= block.start);
    block.column = free < 0 ? columnEnds.length : free;
    columnEnds[block.column] = block.start + lengthMinutes;
    groupEnd = Math.max(groupEnd, block.start + lengthMinutes);
    group.push(block);
  }
  close();
  return blocks;
}

/** The hours to show so that every item stands in one: the core hours, stretched to what is earlier or later. */
export function shownHours(times: readonly LocalTime[]): ShownHours {
  const hours = times.map((time) => Number(time.slice(0, 2)));
  return { first: Math.min(CORE_HOURS.first, ...hours), last: Math.max(CORE_HOURS.last, ...hours) };
}
