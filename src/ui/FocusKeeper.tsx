'use client';

import { useEffect } from 'react';

const FOCUSABLE =
  'a[href], button:not(:disabled), input:not(:disabled), select:not(:disabled), textarea:not(:disabled), [tabindex]:not([tabindex="-1"])';

/**
 * Keeps the focus on the page when what had it goes away, or is switched off: it moves to what stands in its place now. An element
 * with `data-focus-back` (a selector) says where the focus goes when it goes with all that is in it.
 */
export function FocusKeeper() {
  useEffect(() => {
    let trail: Trail | null = null;
    const note = ({ target }: FocusEvent) => {
      if (target instanceof HTMLElement) trail = trailOf(target);
    };
    // Pressing on nothing lets the focus go, and that is meant.
    const letGo = ({ target }: PointerEvent) => {
      if (target instanceof Element && !target.closest(FOCUSABLE)) trail = null;
    };
    let waiting: ReturnType<typeof setTimeout> | undefined;
    // Not at once: the key that made something go away must not press what stands in its place.
    const lookSoon = () => {
      clearTimeout(waiting);
      waiting = setTimeout(look);
    };
    const look = () => {
      if (trail === null || (document.activeElement && document.activeElement !== document.body)) return;
      const [element] = trail.path;
      // Switched off for a moment, while it saves: it gets the focus back when it is on again.
      if (element!.isConnected && element!.matches(':disabled')) return;
      placeFor(trail)?.focus({ preventScroll: true });
    };
    const changes = new MutationObserver(lookSoon);
    changes.observe(document.body, { childList: true, subtree: true, attributeFilter: ['disabled', 'hidden'] });
    document.addEventListener('focusin', note);
    document.addEventListener('pointerdown', letGo, true);
    return () => {
      clearTimeout(waiting);
      changes.disconnect();
      document.removeEventListener('focusin', note);
      document.removeEventListener('pointerdown', letGo, true);
    };
  }, []);
  return null;
}

/** Where an element stood: itself and all it stood in, each with its place among what could have the focus there. */
interface Trail {
  path: HTMLElement[];
  places: number[];
}

function trailOf(element: HTMLElement): Trail {
  const path: HTMLElement[] = [];
  for (let one: HTMLElement | null = element; one && one !== document.body; one = one.parentElement) path.push(one);
  // Places are worked out only as far up as something is likely to stay: a page holds thousands.
  const places = path.slice(0, NEAR).map((one) => [...one.querySelectorAll(FOCUSABLE)].indexOf(element));
  return { path, places };
}

/** How far up the place of an element is known. */
const NEAR = 6;

function placeFor({ path, places }: Trail): HTMLElement | null {
  for (const one of path) {
    const back = one.isConnected ? undefined : one.dataset.focusBack;
    const place = back === undefined ? null : document.querySelector<HTMLElement>(back);
    if (place) return place;
  }
  const at = path.findIndex((one) => one.isConnected);
  const stays = path[at];
  if (!stays) return document.querySelector<HTMLElement>('main');
  const near = [...stays.querySelectorAll<HTMLElement>(FOCUSABLE)].filter(isShown);
  const place = near[Math.min(places[at] ?? 0, near.length - 1)];
  if (place) return place;
  // Nothing is left in there to have it: the part of the page itself has it, for what is read next.
  stays.tabIndex = -1;
  return stays;
}

const isShown = (element: HTMLElement): boolean => element.checkVisibility?.() ?? true;
