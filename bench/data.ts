import { addDays } from '@/core/time/days';
import { randomUUID } from 'node:crypto';
import { SHIPPED_RULE_SHEETS } from '@/core/rulesheets/shipped';
import { type LocalDate } from '@/core/time/plan';
import { insertBrand } from '@/data/brands/brands';
import { insertChannel, insertRuleSheets } from '@/data/brands/channels';
import type { Db } from '@/data/database/db';
import { insertPerson } from '@/data/people/people';
import { insertPieces } from '@/data/pieces/pieces';
import { insertPosts } from '@/data/posts/posts';

/** The month that holds 700 posts, and how many posts there are in all. */
export const MONTH: LocalDate = '2026-11-01';
export const POSTS = 100_000;
export const POSTS_OF_MONTH = 700;
export const BRAND = 'bench';
/** Who works there: a server that is told so is looked at as this person. */
const PERSON = 'bea';
export const AS_PERSON = { BIMLO_DEMO_PERSON: PERSON };

const COLORS = ['#2E7D50', '#6B7A2A', '#7A3B69', '#B4531F', '#3B6E7A', '#4A4E8C', '#94304B', '#6B5B2A'];
const BATCH = 2_000;

/** The days that the month arrangement shows: from the Monday before the first to the Sunday after the last. */
const FIRST_DAY: LocalDate = '2026-10-26';
const DAYS_SHOWN = 42;

/**
 * Fills an empty database with one brand of posts, 100,000 if nothing else is said; 700 of them lie in the weeks that the
 * month arrangement of November 2026 shows, the others before.
 *
 * @param shown how many lie in those weeks
 */
export async function fill(db: Db, count = POSTS, shown = POSTS_OF_MONTH): Promise<{ brandId: string }> {
  const [brandId, personId, pieceId] = [randomUUID(), randomUUID(), randomUUID()];
  const channelIds: string[] = [];
  await db.transaction(async (tx) => {
    await insertRuleSheets(
      tx,
      SHIPPED_RULE_SHEETS.map((sheet) => ({ id: randomUUID(), sheet })),
    );
    await insertBrand(tx, {
      id: brandId,
      slug: BRAND,
      name: 'Bench',
      zone: 'Europe/Lisbon',
      weekStart: 1,
      position: 0,
      delivers: 'networks',
    });
    await insertPerson(tx, { id: personId, slug: PERSON, name: 'Bea', role: 'manager', position: 0 }, [brandId]);
    for (const [position, sheet] of SHIPPED_RULE_SHEETS.slice(0, 8).entries()) {
      const id = randomUUID();
      channelIds.push(id);
      const callSign = sheet.name.slice(0, 2).toUpperCase();
      const color = COLORS[position]!;
      const { slug: ruleSheetSlug, name } = sheet;
      await insertChannel(tx, { id, brandId, ruleSheetSlug, name, callSign, color, account: '@bench', position });
    }
    await insertPieces(tx, [
      {
        id: pieceId,
        brandId,
        title: 'Everything',
        note: '',
        link: '',
        sourceText: 'text',
        ownerId: personId,
        createdAt: '2020-01-01T00:00:00.000Z',
      },
    ]);
  });
  for (let from = 0; from < count; from += BATCH) {
    const posts = Array.from({ length: Math.min(BATCH, count - from) }, (_, offset) => {
      const index = from + offset;
      const channel = index % 8;
      const sheet = SHIPPED_RULE_SHEETS[channel]!;
      const isShown = index < shown;
      const date = isShown ? addDays(FIRST_DAY, index % DAYS_SHOWN) : addDays('2026-10-25', -(index % 2_400));
      return {
        id: randomUUID(),
        brandId,
        pieceId,
        channelId: channelIds[channel]!,
        format: sheet.formats[0]!.format,
        title: `Post number ${index} of the bench`,
        headline: 'A headline',
        caption: `Saturn’s rings are thin, number ${index}. If you scale them to a football pitch, they are thinner than the paint 🌠 of the lines.`,
        hashtags: '#NightSky #Rings',
        link: 'https://fennelmoor.example/rings',
        date,
        time: `${String(6 + (index % 16)).padStart(2, '0')}:${String((index * 7) % 60).padStart(2, '0')}`,
        stage: isShown ? ('production' as const) : ('published' as const),
        ownerId: personId,
        publishedAt: isShown ? null : `${date}T12:00:00.000Z`,
        address: '',
        createdAt: '2026-01-01T00:00:00.000Z',
      };
    });
    await insertPosts(db, posts);
  }
  await db.script('analyze');
  return { brandId };
}
