import '@fontsource-variable/source-sans-3';
import '@fontsource-variable/source-serif-4';
import './globals.css';
import type { Metadata } from 'next';
import { cookies } from 'next/headers';
import type { ReactNode } from 'react';

export const metadata: Metadata = {
  title: { default: 'Ember Rail', template: '%s · Ember Rail' },
  description: 'Design, judge, build and check transformer-fed linear DC supplies.',
};

export default async function RootLayout({ children }: { children: ReactNode }) {
  // Kept in a cookie so that the page arrives in the right colours and never flashes.
  const theme = (await cookies()).get('theme')?.value === 'dark' ? 'dark' : 'light';
  return (
    <html lang="en" data-theme={theme}>
      <body>{children}</body>
    </html>
  );
}
