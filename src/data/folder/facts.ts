import type { Queryable } from '../database/db';

/** Reads a fact about the data folder. */
export async function maybeFact(db: Queryable, key: string): Promise<string | undefined> {
  return (await db.rows<{ value: string }>('select value from folder_facts where key = $1', [key]))[0]?.value;
}

/** Writes a fact about the data folder. */
export async function setFact(tx: Queryable, key: string, value: string): Promise<void> {
  await tx.run(
    'insert into folder_facts (key, value) values ($1, $2) on conflict (key) do update set value = excluded.value',
    [key, value],
  );
}
