import { hash, verify } from '@node-rs/argon2';

/**
 * What a password costs to be looked at: 19 MiB of memory, two rounds, one lane (OWASP Password Storage Cheat Sheet, 2023), by
 * Argon2id, which the package takes where nothing else is said.
 */
const COST = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

/** A password as it is kept: Argon2id with its salt and cost (PHC string). */
export const hashPassword = (password: string): Promise<string> => hash(password, COST);

/** What is compared with where there is no password: made once, of what nobody types. */
let nobodys: Promise<string> | undefined;

/**
 * Whether a password is the one kept. Where none is kept, as much is computed, so that time does not tell.
 *
 * @param kept as `hashPassword` gave it; null where there is none
 */
export async function isPassword(kept: string | null, password: string): Promise<boolean> {
  const nothing = await (nobodys ??= hashPassword(crypto.randomUUID()));
  const isRight = await verify(kept ?? nothing, password);
  return kept !== null && isRight;
}
