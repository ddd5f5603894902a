'use client';

import Table from 'react-bootstrap/Table';
import { rightsInWords } from '@/core/rights/inWords';
import { allowsOf, ROLES } from '@/core/rights/may';
import { useShell } from '@/ui/shell';

/** Who may do what here, in plain words. */
export function RightsTable() {
  const { brand } = useShell();
  return (
    <section className="rights" aria-labelledby="rights">
      <h2 id="rights">Who may do what</h2>
      <Table bsPrefix="settings-table">
        <thead>
          <tr>
            <th scope="col">What</th>
            {ROLES.map((role) => (
              <th key={role} scope="col">
                {role}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rightsInWords(allowsOf(brand)).map(({ what, who, isSet }) => (
            <tr key={what}>
              <th scope="row">{what}</th>
              {ROLES.map((role) => (
                <td key={role}>
                  {who[role] ? 'yes' : 'no'}
                  {isSet && role === 'maker' && <span className="soft small-text">, as the brand’s settings say</span>}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="soft small-text">Nobody sees a brand they do not work for.</p>
    </section>
  );
}
