import './globals.css';
import './signs.css';
import type { Metadata } from 'next';
import { cookies, headers } from 'next/headers';
import type { ReactNode } from 'react';
import { BEFORE_READY } from '@/ui/before-ready';
import { Ready } from '@/ui/ready';
import { FONTS } from './fonts';

export const metadata: Metadata = {
  title: { default: 'Ember Rail', template: '%s · Ember Rail' },
  description: 'Design, judge, build and check transformer-fed linear DC supplies.',
};

export default async function RootLayout({ children }: { children: ReactNode }) {
  // Kept in a cookie so that the page arrives in the right colours and never flashes.
  const chosen = (await cookies()).get('theme')?.value;
  const theme = chosen === 'dark' || chosen === 'light' ? chosen : undefined;
  return (
    <html lang="en" data-theme={theme} className={FONTS} suppressHydrationWarning>
      <body>
        <script
          nonce={(await headers()).get('x-nonce') ?? undefined}
          dangerouslySetInnerHTML={{ __html: BEFORE_READY }}
          suppressHydrationWarning
        />
        {children}
        <Ready />
      </body>
    </html>
  );
}
