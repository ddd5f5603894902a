import { createHash, randomBytes } from 'node:crypto';
import type { Queryable } from '../database/db';

/** A key that cannot be guessed (256 bits), as it stands in an address. */
export const newKey = (): string => randomBytes(32).toString('base64url');

/** What is kept of a key: who reads the database does not have the key by it (SHA-256). */
export const hashOfKey = (key: string): Buffer => createHash('sha256').update(key).digest();

/** What seals the cookies of this house; made at the first call. */
export async function cookieKey(db: Queryable): Promise<string> {
  const read = () => db.rows<{ key: string }>('select cookie_key as key from house_keys');
  const [kept] = await read();
  if (kept) return kept.key;
  await db.run('insert into house_keys (cookie_key) values ($1) on conflict do nothing', [newKey()]);
  return (await read())[0]!.key;
}
