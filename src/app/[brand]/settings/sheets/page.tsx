import type { Metadata } from 'next';
import Link from 'next/link';
import { NotForYou } from '../NotForYou';
import { brandOfPage } from '@/app/server/brand';
import { listRuleSheets, listSettingVersions } from '@/usecases/brands/reading';
import { SheetEditor } from './SheetEditor';

export const metadata: Metadata = { title: 'Rule sheets' };

interface Props {
  params: Promise<{ brand: string }>;
  searchParams: Promise<{ sheet?: string; copy?: string }>;
}

/** The rule sheets: look at one, change it, or make another from its copy. */
export default async function SheetsPage({ params, searchParams }: Props) {
  const { db, brand, may } = await brandOfPage((await params).brand);
  if (!may('manageHouse')) return <NotForYou deed="manageHouse" />;
  const { sheet: asked, copy } = await searchParams;
  const sheets = await listRuleSheets(db);
  const chosen = sheets.find(({ id }) => id === (copy ?? asked)) ?? sheets[0];
  if (!chosen) return <p className="soft">There is no rule sheet.</p>;
  const versions = await listSettingVersions(db, 'rule sheet', [chosen.id]);
  const isCopy = copy !== undefined;
  const href = `/${brand.slug}/settings/sheets`;
  return (
    <>
      <nav className="channel-tabs" aria-label="Rule sheet">
        {sheets.map(({ id, name, channels }) => (
          <Link
            key={id}
            href={`${href}?sheet=${id}`}
            aria-current={!isCopy && id === chosen.id ? 'page' : undefined}
            prefetch={false}
          >
            {name} <span className="soft">{channels === 1 ? '1 channel' : `${channels} channels`}</span>
          </Link>
        ))}
      </nav>
      <p>
        {isCopy ? (
          <>A new rule sheet, beginning as a copy of {chosen.name}.</>
        ) : (
          <Link href={`${href}?copy=${chosen.id}`} prefetch={false}>
            Make a new one from a copy of {chosen.name}
          </Link>
        )}
      </p>
      <SheetEditor
        key={`${chosen.id} ${isCopy}`}
        id={isCopy ? null : chosen.id}
        sheet={isCopy ? { ...chosen.rules, name: '', slug: '', automatic: false } : chosen.rules}
        version={isCopy ? 0 : (versions.get(chosen.id) ?? 0)}
        channels={isCopy ? 0 : chosen.channels}
      />
    </>
  );
}
