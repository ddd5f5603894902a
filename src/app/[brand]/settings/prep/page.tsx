import type { Metadata } from 'next';
import { SHIPPED_PREP } from '@/core/prep/shipped';
import { PIECE_SUBJECTS } from '@/core/prep/subject';
import { FORMATS } from '@/core/rulesheets/types';
import { listPrepSheets } from '@/usecases/prep/reading';
import { listSettingVersions, prepSheetKey } from '@/usecases/brands/reading';
import { NotForYou } from '../NotForYou';
import { brandOfPage } from '@/app/server/brand';
import { PrepSheets } from './PrepSheets';

export const metadata: Metadata = { title: 'Prep sheets' };

/** The steps each format and each kind of piece needs, which every new one gets. */
export default async function PrepPage({ params }: { params: Promise<{ brand: string }> }) {
  const { db, brand, channels, may } = await brandOfPage((await params).brand);
  if (!may('manageBrand')) return <NotForYou deed="manageBrand" />;
  const own = new Map((await listPrepSheets(db, brand.id)).map(({ subject, lines }) => [subject, lines]));
  const taken = new Set(channels.flatMap(({ sheet }) => sheet.formats.map(({ format }) => format)));
  const subjects = [...FORMATS.filter((format) => taken.has(format)), ...PIECE_SUBJECTS];
  const versions = await listSettingVersions(
    db,
    'prep sheet',
    subjects.map((subject) => prepSheetKey(brand.id, subject)),
  );
  return (
    <PrepSheets
      key={brand.id}
      sheets={subjects.map((subject) => ({
        subject,
        isOwn: own.has(subject),
        lines: [...(own.get(subject) ?? SHIPPED_PREP[subject])],
        version: versions.get(prepSheetKey(brand.id, subject)) ?? 0,
      }))}
    />
  );
}
