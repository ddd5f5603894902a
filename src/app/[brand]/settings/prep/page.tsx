import type { Metadata } from 'next';
import { SHIPPED_PREP } from '@/core/prep/shipped';
import { FORMATS } from '@/core/rulesheets/types';
import { listPrepSheets } from '@/data/prepSheets';
import { brandOfPage } from '@/app/server/brand';
import { PrepSheets } from './PrepSheets';

export const metadata: Metadata = { title: 'Prep sheets' };

/** The steps each format needs, which every new post gets. */
export default async function PrepPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand, channels } = await brandOfPage((await params).brand);
  const own = new Map((await listPrepSheets(db, brand.id)).map(({ format, lines }) => [format, lines]));
  const taken = new Set(channels.flatMap(({ sheet }) => sheet.formats.map(({ format }) => format)));
  return (
    <PrepSheets
      key={brand.id}
      sheets={FORMATS.filter((format) => taken.has(format)).map((format) => ({
        format,
        isOwn: own.has(format),
        lines: [...(own.get(format) ?? SHIPPED_PREP[format])],
      }))}
    />
  );
}
