'use client';

import { createContext, useContext } from 'react';
import type { Slip } from '@/core/calendar/slip';
import type { RuleSheet } from '@/core/rulesheets/types';
import type { LocalDate, Zone } from '@/core/time/plan';
import type { Look } from './view';

/** A channel as the calendar shows it. */
export interface ShownChannel {
  id: string;
  brandId: string;
  name: string;
  callSign: string;
  color: string;
  sheet: RuleSheet;
}

/** What every slip and cell of the calendar needs to know to draw itself. */
export interface Timetable {
  channels: ReadonlyMap<string, ShownChannel>;
  look: Look;
  /** Today in a brand's zone. */
  todayOf: (brandId: string) => LocalDate;
  zoneOf: (brandId: string) => Zone;
  today: LocalDate;
  /** The colour a slip's band has, where colour does not mean the channel. */
  bandOf: (slip: Slip) => string | null;
  ownerName: (id: string) => string;
  pillarName: (id: string) => string;
}

/** What is marked on a slip, as bits of one number, so that a slip is drawn anew only when its own marks change. */
export const MARKS = { open: 1, unsaved: 2, picked: 4, extra: 8 } as const;

const Context = createContext<Timetable | null>(null);
export const TimetableProvider = Context.Provider;

const MarksContext = createContext<(id: string) => number>(() => 0);
export const MarksProvider = MarksContext.Provider;

/** The marks of a post by its id. */
export const useMarks = (): ((id: string) => number) => useContext(MarksContext);

/** What the calendar tells its parts. */
export function useTimetable(): Timetable {
  const timetable = useContext(Context);
  if (!timetable) throw new Error('useTimetable outside the calendar');
  return timetable;
}
