import Link from 'next/link';

/** The steps to a new brand, and at last an idea. */
export const BEGIN_STEPS = ['brand', 'channels', 'people', 'rhythm', 'idea'] as const;
export type BeginStep = (typeof BEGIN_STEPS)[number];

const LABELS: Record<BeginStep, string> = {
  brand: 'Brand',
  channels: 'Channels',
  people: 'People',
  rhythm: 'Rhythm',
  idea: 'A first idea',
};

/** Where one is among the steps; those of a brand that is there are gone to freely. */
export function BeginSteps({ current, slug }: { current: BeginStep; slug: string | null }) {
  return (
    <nav aria-label="Steps to a new brand">
      <ol className="begin-steps">
        {BEGIN_STEPS.map((step) => (
          <li key={step} aria-current={step === current ? 'step' : undefined}>
            {slug === null || step === 'brand' || step === current ? (
              LABELS[step]
            ) : (
              <Link href={`/${slug}/begin?step=${step}`} prefetch={false}>
                {LABELS[step]}
              </Link>
            )}
          </li>
        ))}
      </ol>
    </nav>
  );
}
