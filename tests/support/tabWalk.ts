import type { Page } from '@playwright/test';

/** Presses of Tab in one place: more than any has controls of different kinds; long tables repeat theirs. */
const PRESSES = 24;

interface Stop {
  at: string;
  isBody: boolean;
  isNamed: boolean;
  isSeen: boolean;
  key: string;
}

/** Goes through what is on screen by Tab, and tells what had the focus without being seen, without a name, or nowhere. */
export async function walk(page: Page): Promise<string[]> {
  // A dialog gives the focus to its first control by itself, which may be its only one.
  const begun = await page.evaluate(() => document.activeElement !== document.body);
  await page.evaluate(noteStops);
  for (let press = 0; press < PRESSES; press++) await page.keyboard.press('Tab');
  const stops = await page.evaluate(() => window.stopNoting());
  const wrong = new Set<string>();
  const seen = new Set<string>();
  for (const stop of stops) {
    // After the last control the browser itself has the focus, then it begins again.
    if (stop.isBody && (begun || seen.size > 0)) break;
    if (seen.has(stop.key)) break;
    seen.add(stop.key);
    if (stop.isBody) wrong.add('the focus is nowhere');
    if (!stop.isSeen) wrong.add(`no focus to be seen: ${stop.at}`);
    if (!stop.isNamed) wrong.add(`no name: ${stop.at}`);
  }
  if (stops.length === 0) wrong.add('no key reached the page');
  return [...wrong];
}

declare global {
  interface Window {
    /** Ends noting, and gives what had the focus after each press of Tab. */
    stopNoting: () => Stop[];
  }
}

/** Runs in the page: notes what has the focus whenever Tab was pressed. */
function noteStops(): void {
  const stops: Stop[] = [];
  const rings = (one: Element) => {
    const { outlineStyle, outlineWidth, boxShadow } = getComputedStyle(one);
    return (outlineStyle !== 'none' && parseFloat(outlineWidth) > 0) || boxShadow !== 'none';
  };
  const stopAt = (element: HTMLElement): Stop => {
    // A field may be drawn by what is around it.
    const around = [element, element.parentElement, element.parentElement?.parentElement, element.closest('.marked')];
    const labels = [...((element as HTMLInputElement).labels ?? [])].map(({ textContent }) => textContent).join('');
    const named = (element.getAttribute('aria-labelledby') ?? '')
      .split(' ')
      .map((id) => document.getElementById(id)?.textContent ?? '')
      .join('');
    const name = [element.getAttribute('aria-label'), named, labels, element.textContent, element.title]
      .join('')
      .trim();
    element.dataset.walked ??= crypto.randomUUID();
    return {
      at: `${element.tagName.toLowerCase()}.${element.className} “${name.slice(0, 30)}”`,
      isBody: false,
      isNamed: name !== '',
      isSeen: around.some((one) => one && rings(one)),
      key: element.dataset.walked,
    };
  };
  const note = ({ key }: KeyboardEvent) => {
    if (key !== 'Tab') return;
    const element = document.activeElement as HTMLElement | null;
    if (!element || element === document.body)
      stops.push({ at: 'body', isBody: true, isNamed: true, isSeen: true, key: '' });
    else stops.push(stopAt(element));
  };
  document.addEventListener('keyup', note, { capture: true });
  window.stopNoting = () => {
    document.removeEventListener('keyup', note, { capture: true });
    return stops;
  };
}

/** References to what is not there. */
export const dangling = (page: Page): Promise<string[]> =>
  page.evaluate(() =>
    [...document.querySelectorAll('*')].flatMap((element) =>
      ['aria-describedby', 'aria-labelledby', 'aria-controls', 'aria-owns', 'aria-activedescendant'].flatMap((name) =>
        (element.getAttribute(name) ?? '')
          .split(/\s+/)
          .filter((id) => id !== '' && !document.getElementById(id))
          .map((id) => `${name}=${id} of ${element.tagName.toLowerCase()}.${element.className}`),
      ),
    ),
  );
