import { RIGHTS, type Deed } from '@/core/rights/may';

/** In place of a page about what whoever looks may not do. */
export function NotForYou({ deed }: { deed: Deed }) {
  const { roles, words } = RIGHTS[deed];
  return (
    <div className="empty">
      <h2>This page is not for your role</h2>
      <p>
        Only {roles.map((role) => `a ${role}`).join(' or ')} {words}. Who may do what stands under People.
      </p>
    </div>
  );
}
