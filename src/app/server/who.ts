import { cookies } from 'next/headers';
import type { Actor } from '@/core/rights/may';
import type { Db } from '@/usecases/useCase';
import { maybeActor, maybePersonBySlug } from '@/usecases/people/reading';
import { isId } from './request';

/** The cookie that says who one is. */
export const PERSON_COOKIE = 'bimlo_person';

/** How that cookie is kept: for a year, for our own pages only. */
export const PERSON_COOKIE_OPTIONS = { httpOnly: true, sameSite: 'strict', path: '/', maxAge: 31_536_000 } as const;

/**
 * Who asks: whom the cookie names, if they work here. Where nobody is named, the demo has chosen one (`BIMLO_DEMO_PERSON`,
 * a slug); otherwise it is nobody.
 */
export async function whoAsks(db: Db): Promise<{ id: string; actor: Actor } | null> {
  const named = (await cookies()).get(PERSON_COOKIE)?.value ?? '';
  const id = isId(named) ? named : await demoPersonId(db);
  const actor = id === undefined ? undefined : await maybeActor(db, id);
  return id !== undefined && actor ? { id, actor } : null;
}

async function demoPersonId(db: Db): Promise<string | undefined> {
  const slug = process.env.BIMLO_DEMO_PERSON;
  return slug ? (await maybePersonBySlug(db, slug))?.id : undefined;
}
