/** What the audit list tells. */
export const AUDIT_KINDS = [
  'begun',
  'signedIn',
  'notSignedIn',
  'signedOut',
  'signedOutEverywhere',
  'invited',
  'passwordLinkMade',
  'linkTakenBack',
  'joined',
  'passwordChanged',
  'personAdded',
  'personArchived',
  'roleChanged',
  'exported',
  'imported',
] as const;
export type AuditKind = (typeof AUDIT_KINDS)[number];

/** A line of the list in words, with the names it is about. */
export function auditWords(kind: AuditKind, person: string | null, brand: string | null): string {
  const whom = person ?? 'somebody who is not here any more';
  switch (kind) {
    case 'begun':
      return 'began this Bimlo';
    case 'signedIn':
      return 'signed in';
    case 'notSignedIn':
      return person === null ? 'a wrong name or password' : `a wrong password for ${whom}`;
    case 'signedOut':
      return 'signed out';
    case 'signedOutEverywhere':
      return `signed ${whom} out everywhere`;
    case 'invited':
      return `invited ${whom}`;
    case 'passwordLinkMade':
      return `made a link for a new password of ${whom}`;
    case 'linkTakenBack':
      return `took back the link of ${whom}`;
    case 'joined':
      return 'came in by their invitation';
    case 'passwordChanged':
      return `changed the password of ${whom}`;
    case 'personAdded':
      return `added ${whom}`;
    case 'personArchived':
      return `archived ${whom}`;
    case 'roleChanged':
      return `changed the role of ${whom}`;
    case 'exported':
      return brand === null ? 'exported' : `exported from ${brand}`;
    case 'imported':
      return brand === null ? 'imported' : `imported into ${brand}`;
  }
}
