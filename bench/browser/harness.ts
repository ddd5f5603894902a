/** What every compared calendar offers to the benchmark in the page. */
export interface Compared {
  /** Draws the calendar anew in an empty page. */
  mount(posts: number): void;
  unmount(): void;
  /** Goes to the month after. */
  next(): void;
}

declare global {
  interface Window {
    compared: Compared;
    firstPaintMs: (posts: number) => Promise<number>;
    nextMonthMs: () => Promise<number>;
    dropMs: () => Promise<number> | undefined;
    /** Waits for the next drop: a post arrives in the column of another. */
    watchDrop: (id: string, target: string) => void;
    longTasks: number[];
  }
}

/** Whether a post stands on the page and can be seen; what is carried by the pointer does not count. */
export const isSeen = (id: string): boolean =>
  [...document.querySelectorAll(`[data-post="${id}"]`)].some(
    (element) => !element.closest(CARRIED) && element.checkVisibility({ visibilityProperty: true }),
  );

/** What the compared calendars draw under the pointer while dragging. */
const CARRIED = '.rbc-addons-dnd-drag-preview, .fc-event-mirror, .fc-event-dragging';

/** Resolves after the next frame was painted: the task after its animation callbacks. */
const painted = (): Promise<void> =>
  new Promise((resolve) => {
    requestAnimationFrame(() => {
      const channel = new MessageChannel();
      channel.port1.onmessage = () => resolve();
      channel.port2.postMessage(null);
    });
  });

/** Longest wait for something to be drawn, in milliseconds: what takes longer is a fault of the benchmark. */
const PATIENCE_MS = 20_000;

async function until(isDone: () => boolean): Promise<void> {
  const start = performance.now();
  while (!isDone()) {
    if (performance.now() - start > PATIENCE_MS) throw new Error('it was never drawn');
    await painted();
  }
  await painted();
}

/** Puts the measures on the page. */
export function measure(compared: Compared): void {
  window.compared = compared;
  window.firstPaintMs = async (posts) => {
    compared.unmount();
    await painted();
    const start = performance.now();
    compared.mount(posts);
    await until(() => isSeen('post-0') && isSeen(`post-${posts - 1}`));
    return performance.now() - start;
  };
  window.nextMonthMs = async () => {
    const start = performance.now();
    compared.next();
    await until(() => isSeen('post-0 b'));
    return performance.now() - start;
  };
  window.watchDrop = (id, target) => {
    const place = document.querySelector(`[data-post="${target}"]`)!.getBoundingClientRect();
    const arrived = () =>
      [...document.querySelectorAll(`[data-post="${id}"]`)].some((element) => {
        const { left } = element.getBoundingClientRect();
        return !element.closest(CARRIED) && Math.abs(left - place.left) < place.width / 2;
      });
    window.dropMs = () => undefined;
    addEventListener(
      'pointerup',
      () => {
        const start = performance.now();
        const result = until(arrived).then(() => performance.now() - start);
        window.dropMs = () => result;
      },
      { capture: true, once: true },
    );
  };
  window.longTasks = [];
  new PerformanceObserver((list) =>
    window.longTasks.push(...list.getEntries().map(({ duration }) => duration)),
  ).observe({
    entryTypes: ['longtask'],
  });
}
