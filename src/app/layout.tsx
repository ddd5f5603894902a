import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import { cookies } from 'next/headers';
import { NuqsAdapter } from 'nuqs/adapters/next/app';
import '@fontsource-variable/bricolage-grotesque/wght.css';
import '@fontsource-variable/hanken-grotesk/wght.css';
import '@fontsource-variable/inconsolata/wght.css';
import '@fontsource/noto-color-emoji/emoji-400.css';
import '@/ui/styles/theme.scss';

export const metadata: Metadata = {
  title: { default: 'Bimlo', template: '%s · Bimlo' },
  description: 'Plan posts across many channels on one timetable.',
};

/** The ground of every page: type, paper, and the person's choice of a light or dark ground. */
export default async function RootLayout({ children }: { children: ReactNode }) {
  const ground = (await cookies()).get('bimlo_ground')?.value;
  return (
    <html lang="en" data-ground={ground === 'dark' || ground === 'light' ? ground : undefined}>
      <body>
        <NuqsAdapter>{children}</NuqsAdapter>
      </body>
    </html>
  );
}
