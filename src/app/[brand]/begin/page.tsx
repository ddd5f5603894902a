import type { Metadata } from 'next';
import { BEGIN_STEPS, BeginSteps, type BeginStep } from '@/app/begin/BeginSteps';
import { brandOfPage } from '@/app/server/brand';
import { listRuleSheets } from '@/usecases/brands/reading';
import { WhenTakenOver } from '@/ui/WhenTakenOver';
import { loadNextOpenings } from '@/usecases/rhythm/nextOpenings';
import { BeginChannels } from './BeginChannels';
import { BeginIdea } from './BeginIdea';
import { BeginPeople } from './BeginPeople';
import { BeginRhythm } from './BeginRhythm';

export const metadata: Metadata = { title: 'A new brand' };

const LEADS: Record<BeginStep, string> = {
  brand: '',
  channels:
    'A channel is one account on one network. Its rule sheet says how long a caption may be and which pictures it takes.',
  people: 'Whoever writes, draws or signs off. Steps are given to them by what they can do.',
  rhythm: 'How often do you want to post? Bimlo suggests days and times, and shows each as an opening on the calendar.',
  idea: 'What could the first post be about?',
};

/** The steps to a new brand after its first: channels, people, rhythm, and an idea. */
export default async function BeginBrand({
  params,
  searchParams,
}: {
  params: Promise<{ brand: string }>;
  searchParams: Promise<{ step?: string | string[] }>;
}) {
  const { db, brand, channels, people, now } = await brandOfPage((await params).brand);
  const { step: asked } = await searchParams;
  const step = BEGIN_STEPS.find((one) => one === asked && one !== 'brand') ?? 'channels';
  return (
    <div className="begin">
      <h1>{brand.name}</h1>
      <BeginSteps current={step} slug={brand.slug} />
      <p className="soft">{LEADS[step]}</p>
      {step === 'channels' && (
        <WhenTakenOver>
          <BeginChannels
            key={channels.length}
            sheets={(await listRuleSheets(db)).map(({ id, rules }) => ({ id, rules }))}
            present={channels.map(({ name, callSign, color, sheet }) => ({ name, callSign, color, slug: sheet.slug }))}
          />
        </WhenTakenOver>
      )}
      {step === 'rhythm' && (
        <WhenTakenOver>
          <BeginRhythm />
        </WhenTakenOver>
      )}
      {step === 'people' && <BeginPeople key={people.length} />}
      {step === 'idea' && <BeginIdea openings={await loadNextOpenings(db, brand, now)} />}
    </div>
  );
}
