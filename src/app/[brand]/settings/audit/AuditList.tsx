'use client';

import Link from 'next/link';
import Table from 'react-bootstrap/Table';
import type { AuditRow } from '@/usecases/signIn/loadAudit';
import { dayAndTime } from '@/ui/format';
import { useShell } from '@/ui/shell';

/**
 * The audit list, the latest first.
 *
 * @param next the number of the last line shown, where older ones may be there
 */
export function AuditList({ lines, next }: { lines: readonly AuditRow[]; next: string | null }) {
  const { brand } = useShell();
  if (lines.length === 0)
    return <p>Nothing to list. Sign-ins, invitations, exports and changes of roles will stand here.</p>;
  return (
    <section>
      <Table bsPrefix="settings-table" className="audit-table">
        <thead>
          <tr>
            <th scope="col">When</th>
            <th scope="col">Who</th>
            <th scope="col">What</th>
            <th scope="col">From</th>
          </tr>
        </thead>
        <tbody>
          {lines.map(({ id, at, who, words, address }) => (
            <tr key={id}>
              <td className="figures">{dayAndTime(at, brand.zone)}</td>
              <td>{who}</td>
              <td>{words}</td>
              <td className="figures">{address}</td>
            </tr>
          ))}
        </tbody>
      </Table>
      {next !== null && (
        <Link href={`/${brand.slug}/settings/audit?before=${next}`} prefetch={false}>
          Older
        </Link>
      )}
    </section>
  );
}
