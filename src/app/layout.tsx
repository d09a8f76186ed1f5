import type { Metadata, Viewport } from 'next';
import { cookies } from 'next/headers';
import type { ReactNode } from 'react';
import { Palette } from '@/features/palette/Palette';
import { themeOf, THEME_COOKIE } from '@/ui/theme';
import './globals.css';

export const metadata: Metadata = {
  title: { default: 'Spiraxis', template: '%s · Spiraxis' },
  description: 'Which reading to take next, what it will mean, and when there is enough to name the part.',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default async function RootLayout({ children }: { children: ReactNode }) {
  const theme = themeOf((await cookies()).get(THEME_COOKIE)?.value);
  return (
    <html lang="en" data-theme={theme}>
      <body>
        {children}
        <Palette />
      </body>
    </html>
  );
}
