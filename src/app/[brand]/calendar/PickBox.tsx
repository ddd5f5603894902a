'use client';

import { useRef, useState, type PointerEvent, type ReactNode } from 'react';

interface Box {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Pixels the pointer moves before a box is drawn. */
const THRESHOLD_PX = 6;

/** Lets a box be drawn with the mouse over empty ground; the posts it touches are picked. */
export function PickBox({
  onPick,
  className,
  children,
}: {
  /** Null where nothing is picked. */
  onPick: ((ids: string[]) => void) | null;
  className: string;
  children: ReactNode;
}) {
  const start = useRef<{ x: number; y: number } | null>(null);
  const [box, setBox] = useState<Box | null>(null);

  function begin(event: PointerEvent) {
    const isGround = !(event.target as HTMLElement).closest(
      'button, a, input, select, [data-lift], [role="separator"]',
    );
    if (onPick && event.pointerType === 'mouse' && event.button === 0 && isGround)
      start.current = { x: event.clientX, y: event.clientY };
  }

  function draw(event: PointerEvent<HTMLDivElement>) {
    if (!start.current) return;
    const { x, y } = start.current;
    if (!box && Math.hypot(event.clientX - x, event.clientY - y) < THRESHOLD_PX) return;
    if (!box) event.currentTarget.setPointerCapture(event.pointerId);
    setBox({
      left: Math.min(x, event.clientX),
      top: Math.min(y, event.clientY),
      width: Math.abs(event.clientX - x),
      height: Math.abs(event.clientY - y),
    });
  }

  function finish(event: PointerEvent<HTMLDivElement>) {
    start.current = null;
    if (!box) return;
    setBox(null);
    const touched = [...event.currentTarget.querySelectorAll<HTMLElement>('[data-post]')].filter((slip) => {
      const rect = slip.getBoundingClientRect();
      return (
        rect.left < box.left + box.width &&
        rect.right > box.left &&
        rect.top < box.top + box.height &&
        rect.bottom > box.top
      );
    });
    onPick?.(touched.map((slip) => slip.dataset.post!));
  }

  return (
    <div className={className} onPointerDown={begin} onPointerMove={draw} onPointerUp={finish}>
      {children}
      {box && <div className="pick-box" style={box} />}
    </div>
  );
}
