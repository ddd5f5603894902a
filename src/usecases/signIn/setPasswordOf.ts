import { refuse, type Result } from '@/core/refusal';
import { readPassword } from '@/core/signIn/password';
import { slugOf } from '@/core/text/slug';
import { writeAudit } from '@/data/signIn/audit';
import { maybeCandidate, savePasswordHash, type Candidate } from '@/data/signIn/credentials';
import { deleteEntryLinksOf } from '@/data/signIn/entryLinks';
import { hashPassword } from '@/data/signIn/passwords';
import { deleteSignInsOf } from '@/data/signIn/signIns';
import type { House } from './house';

/**
 * Sets somebody’s password for whoever has the machine that Bimlo runs on, and so the data folder: nobody is asked whether they may.
 *
 * @param name as they sign in
 * @param ask gives the password, once it is known that there is such a person
 */
export async function setPasswordOf(
  { db, clock }: Pick<House, 'db' | 'clock'>,
  name: string,
  ask: () => Promise<string>,
): Promise<Result<Candidate>> {
  const person = await maybeCandidate(db, name, slugOf(name));
  if (!person) return refuse('notFound', `Nobody here is called ${name}.`);
  const read = readPassword(await ask(), [person.name, person.slug]);
  if (!read.ok) return read;
  const hash = await hashPassword(read.value);
  await db.transaction(async (tx) => {
    const at = clock.now();
    await savePasswordHash(tx, person.personId, hash, at);
    await deleteSignInsOf(tx, person.personId);
    await deleteEntryLinksOf(tx, person.personId);
    await writeAudit(tx, { at, kind: 'passwordChanged', personId: person.personId, detail: 'on the machine itself' });
  });
  return { ok: true, value: person };
}
