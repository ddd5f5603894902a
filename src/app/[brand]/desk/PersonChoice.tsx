'use client';

import { useRouter } from 'next/navigation';
import { useMay, useShell } from '@/ui/shell';

/** Whose desk it is; a manager may look at anybody's. */
export function PersonChoice({ slug }: { slug: string }) {
  const { brand, people, me } = useShell();
  const router = useRouter();
  const may = useMay();
  const name = people.find((person) => person.slug === slug)?.name;
  if (!may('lookAtOthersDesk')) return <>{name}’s desk</>;
  return (
    <select
      className="plain-select"
      aria-label="Whose desk"
      value={slug}
      onChange={(event) =>
        router.push(`/${brand.slug}/desk${event.target.value === me.slug ? '' : `?of=${event.target.value}`}`)
      }
    >
      {people.map((person) => (
        <option key={person.id} value={person.slug}>
          {person.name}’s desk
        </option>
      ))}
    </select>
  );
}
