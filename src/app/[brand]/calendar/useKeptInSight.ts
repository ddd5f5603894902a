'use client';

import { useEffect, useRef, type RefObject } from 'react';
import type { LocalDate } from '@/core/time/plan';
import type { ViewName } from './view';

/** Height of the month's row of weekday names, in pixels: what scrolls stops below it. */
const MONTH_HEAD_PX = 26;

/** Scrolls the open post, and in the month today's week, into sight. @returns what has to hold the arrangement */
export function useKeptInSight(
  openId: string | null,
  view: ViewName,
  date: LocalDate,
): RefObject<HTMLDivElement | null> {
  const arrangement = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (openId)
      arrangement.current?.querySelector(`[data-post="${CSS.escape(openId)}"]`)?.scrollIntoView({ block: 'nearest' });
  }, [openId]);
  useEffect(() => {
    if (view !== 'month') return;
    const row = arrangement.current?.querySelector<HTMLElement>('td.is-today')?.parentElement;
    if (arrangement.current) arrangement.current.scrollTop = row ? row.offsetTop - MONTH_HEAD_PX : 0;
  }, [view, date]);
  return arrangement;
}
