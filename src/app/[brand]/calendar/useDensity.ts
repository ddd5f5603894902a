'use client';

import { useLayoutEffect, useState } from 'react';
import type { Density } from './view';

/** The width of the column that names the lanes, and what a day needs for a slip's title and picture; in pixels. */
const HEAD_PX = 126;
const TITLE_PX = 98;

/**
 * Whether the lanes are drawn in lines of times and notches: where somebody chose that, else where two weeks leave a day no
 * room for titles and pictures.
 *
 * @param lanes the table of the lanes; null until it is there
 */
export function useLines(lanes: HTMLElement | null, days: number, density: Density): boolean {
  const [width, setWidth] = useState<number | null>(null);
  useLayoutEffect(() => {
    const room = lanes?.parentElement;
    if (!room) return;
    const measure = () => setWidth(room.clientWidth);
    measure();
    const observer = new ResizeObserver(measure);
    observer.observe(room);
    return () => observer.disconnect();
  }, [lanes]);
  if (density !== 'room') return density === 'lines';
  return days > 7 && (width === null || (width - HEAD_PX) / days < TITLE_PX);
}
