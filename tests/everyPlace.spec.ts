import { expectNothingFound } from './support/axe';
import { PLACES } from './support/places';
import { oldLabels } from './support/plainWords';
import { expectNoneSideways } from './support/sideways';
import { dangling, walk } from './support/tabWalk';
import { expect, test } from './support/test';

/** Before there is a brand, and where there is nothing. */
const OUTSIDE = ['/begin', '/who', '/fennel-moor/begin', '/fennel-moor/nowhere'];

test('on every place words are plain, axe finds nothing on either ground, nothing is scrolled sideways, and Tab leads through what is seen and named', async ({
  page,
}) => {
  test.setTimeout(900_000);
  let isFirst = true;
  for (const place of [...PLACES, ...OUTSIDE])
    await test.step(place, async () => {
      // A phone first: a page that is opened on one may choose another arrangement.
      await page.setViewportSize({ width: 390, height: 800 });
      await page.goto(place);
      // What the made-up networks show is theirs: it has no controls and a width of its own.
      const isOurs = !place.startsWith('/standins');
      if (isOurs) await expectNoneSideways(page, place);
      else await page.setViewportSize({ width: 1280, height: 800 });
      expect([place, await oldLabels(page)]).toEqual([place, []]);
      await expectNothingFound(page, place);
      if (!isOurs || OUTSIDE.includes(place)) return;
      // The rail is the same everywhere.
      if (!isFirst) await page.locator('#place').focus();
      isFirst = false;
      expect({ place, wrong: await walk(page) }).toEqual({ place, wrong: [] });
      expect({ place, dangling: await dangling(page) }).toEqual({ place, dangling: [] });
    });
});
