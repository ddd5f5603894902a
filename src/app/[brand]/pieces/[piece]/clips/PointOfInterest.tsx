'use client';

import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import type { Crop } from '@/core/media/fit';

/** Shares of width and height from the upper left corner. */
export interface Point {
  x: number;
  y: number;
}

/** Shares that an arrow key moves the point by. */
const STEP = 0.02;
const within = (share: number): number => Math.min(1, Math.max(0, share));

/** The frame that a clip shows of a recording, over its picture, with the point it keeps in sight: dragged, or moved by arrows. */
export function PointOfInterest({ crop, point, onMove }: { crop: Crop; point: Point; onMove: (point: Point) => void }) {
  const area = useRef<HTMLDivElement>(null);
  const percent = (share: number) => `${share * 100}%`;

  function follow({ clientX, clientY, buttons }: PointerEvent) {
    if (buttons === 0) return;
    const { left, top, width, height } = area.current!.getBoundingClientRect();
    onMove({ x: within((clientX - left) / width), y: within((clientY - top) / height) });
  }
  function keys(event: KeyboardEvent) {
    const by = { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] }[event.key];
    if (!by) return;
    event.preventDefault();
    onMove({ x: within(point.x + by[0]! * STEP), y: within(point.y + by[1]! * STEP) });
  }

  return (
    <div
      ref={area}
      className="point-of-interest"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        follow(event);
      }}
      onPointerMove={follow}
    >
      <div
        className="point-frame"
        style={{
          left: percent(crop.x),
          top: percent(crop.y),
          width: percent(crop.width),
          height: percent(crop.height),
        }}
      />
      <button
        type="button"
        className="point"
        aria-label="Point of interest: arrows move it"
        style={{ left: percent(point.x), top: percent(point.y) }}
        onKeyDown={keys}
      />
    </div>
  );
}
