'use client';

import Link from 'next/link';
import Button from 'react-bootstrap/Button';
import { useShell } from '@/ui/shell';
import { FieldRefusal } from '@/ui/FieldRefusal';

/** Goes on with what was filled in, or without. */
export function BeginDeeds({
  label,
  next,
  problem,
  isBusy,
}: {
  label: string;
  /** The step that comes then; null where nothing is left out. */
  next: string | null;
  problem: string | null;
  isBusy: boolean;
}) {
  const { brand } = useShell();
  return (
    <>
      <FieldRefusal>{problem}</FieldRefusal>
      <div className="deeds">
        <Button type="submit" disabled={isBusy}>
          {label}
        </Button>
        {next !== null && (
          <Link className="btn btn-outline" href={`/${brand.slug}/begin?step=${next}`} prefetch={false}>
            Leave this for later
          </Link>
        )}
      </div>
    </>
  );
}
