import { expect, type Page } from '@playwright/test';

/** How far a page can be scrolled sideways, in pixels. */
export const sideways = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const place = document.querySelector('.place-body') ?? document.documentElement;
    return Math.max(
      document.documentElement.scrollWidth - document.documentElement.clientWidth,
      getComputedStyle(place).overflowX === 'visible' ? 0 : place.scrollWidth - place.clientWidth,
    );
  });

/** Widths a page is looked at: a phone, a tablet, a desk. */
const WIDTHS = [360, 768, 1280];

/** Expects that what is loaded at a phone’s width needs no scrolling sideways at any width, and leaves it at a desk’s. */
export async function expectNoneSideways(page: Page, place: string): Promise<void> {
  for (const width of WIDTHS) {
    await page.setViewportSize({ width, height: 800 });
    expect({ width, place, over: await sideways(page) }).toEqual({ width, place, over: 0 });
  }
}
