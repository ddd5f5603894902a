import { auditWords } from '@/core/signIn/audit';
import type { Instant } from '@/core/time/plan';
import { listAudit } from '@/data/signIn/audit';
import type { Db } from '../useCase';

/** Lines of the audit list on a page. */
export const AUDIT_PAGE_LINES = 100;

/** A line of the audit list as it is shown. */
export interface AuditRow {
  id: string;
  at: Instant;
  /** Empty where nobody is known. */
  who: string;
  words: string;
  address: string;
}

/** A page of the audit list as somebody sees it who works for these brands: the lines before that one, or the latest. */
export async function loadAudit(db: Db, brandIds: readonly string[], before: string | null): Promise<AuditRow[]> {
  const from = before !== null && /^\d{1,15}$/.test(before) ? before : null;
  const lines = await listAudit(db, brandIds, AUDIT_PAGE_LINES, from);
  return lines.map(({ id, at, kind, actorName, personName, brandName, address, detail }) => ({
    id,
    at,
    who: actorName ?? '',
    words: `${auditWords(kind, personName, brandName)}${detail === null ? '' : ` (${detail})`}`,
    address: address ?? '',
  }));
}
