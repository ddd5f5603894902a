'use client';

import { useLayoutEffect, useState } from 'react';
import type { Density } from './view';

/** The width of the column that names the lanes, and what a day needs for titles, and for a title beside its picture; in pixels. */
const HEAD_PX = 126;
const TITLE_PX = 98;
const BESIDE_PX = 114;

/**
 * How the lanes are drawn: in lines of times and notches where somebody chose that, else where two weeks leave a day no room
 * for titles and pictures; tight where a picture has to stand below its title.
 *
 * @param lanes the table of the lanes; null until it is there
 */
export function useDensity(
  lanes: HTMLElement | null,
  days: number,
  density: Density,
): { line: boolean; isTight: boolean } {
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
  const room = width === null ? null : (width - HEAD_PX) / days;
  const line = density === 'room' ? days > 7 && (room === null || room < TITLE_PX) : density === 'lines';
  return { line, isTight: room !== null && room < BESIDE_PX };
}
