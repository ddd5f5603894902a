import { AxeBuilder } from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

/** What of axe is asked for: the standard up to its newest level A and AA, and what is good practice beside. */
const AXE_TAGS = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'];

/** On the dark ground nothing but colours differs. */
const COLOUR_RULES = ['color-contrast', 'link-in-text-block'];

/**
 * Expects that axe finds nothing on what is on screen: everything on the light ground, colours on the dark one.
 *
 * @param within what of the page is looked at; all of it where nothing is said
 */
export async function expectNothingFound(page: Page, name: string, within = 'html'): Promise<void> {
  for (const ground of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme: ground });
    // No page holds frames, so axe runs in one go (“legacy”), in less than half the time.
    // Only what is wrong is asked for: gathering what is right takes most of the time.
    // Of long tables the first rows are enough: the others are drawn alike.
    const axe = new AxeBuilder({ page })
      .setLegacyMode(true)
      .include(within)
      .withTags(AXE_TAGS)
      .options({ resultTypes: ['violations'] })
      .exclude('tbody tr:nth-child(n+12)');
    if (ground === 'dark') axe.withRules(COLOUR_RULES);
    const { violations } = await axe.analyze();
    expect(violations.map(({ id, nodes }) => `${name}, ${ground}: ${id} ${nodes[0]?.target}`)).toEqual([]);
  }
  await page.emulateMedia({ colorScheme: 'light' });
}
