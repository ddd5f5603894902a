import type { Queryable } from '../database/db';

/** What is set by a form, while others may have the same form open. */
export type Setting =
  | 'brand'
  | 'person'
  | 'channel'
  | 'rhythm'
  | 'rule sheet'
  | 'pillar'
  | 'campaign'
  | 'repeat'
  /** Its key is the brand's id and what it is the prep of. */
  | 'prep sheet'
  /** Its key is the brand's id and its slug. */
  | 'fan-out'
  /** Its key is the brand's id. */
  | 'writing service';

/** The key of a prep sheet. */
export const prepSheetKey = (brandId: string, subject: string): string => `${brandId} ${subject}`;

/** The key of a fan-out. */
export const fanOutKey = (brandId: string, slug: string): string => `${brandId} ${slug}`;

/** How often each of these was changed; one that never was is absent and has version 0. */
export async function listSettingVersions(
  db: Queryable,
  setting: Setting,
  keys: readonly string[],
): Promise<Map<string, number>> {
  const rows = await db.rows<{ key: string; version: number }>(
    'select key, version from setting_versions where setting = $1 and key = any($2::text[])',
    [setting, keys],
  );
  return new Map(rows.map(({ key, version }) => [key, version]));
}

/** Counts a change up and holds the setting until the transaction ends, if it has the version it was seen at. @returns whether it has */
export async function advanceSetting(tx: Queryable, setting: Setting, key: string, seen: number): Promise<boolean> {
  const changed =
    seen === 0
      ? await tx.run(
          'insert into setting_versions (setting, key, version) values ($1, $2, 1) on conflict (setting, key) do nothing',
          [setting, key],
        )
      : await tx.run(
          'update setting_versions set version = version + 1 where setting = $1 and key = $2 and version = $3',
          [setting, key, seen],
        );
  return changed === 1;
}

/** Counts a change up that was not based on a version somebody saw. */
export async function bumpSetting(tx: Queryable, setting: Setting, key: string): Promise<void> {
  await tx.run(
    `insert into setting_versions (setting, key, version) values ($1, $2, 1)
     on conflict (setting, key) do update set version = setting_versions.version + 1`,
    [setting, key],
  );
}
