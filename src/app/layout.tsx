import type { Metadata, Viewport } from 'next';
import { cookies, headers } from 'next/headers';
import type { ReactNode } from 'react';
import { signedHere } from '@/features/gate/page';
import { Offline } from '@/features/offline/OfflineStrip';
import { Palette } from '@/features/palette/Palette';
import { themeOf, THEME_COOKIE } from '@/ui/theme';
import { WhoProvider } from '@/ui/who';
import './globals.css';

export const metadata: Metadata = {
  title: { default: 'Spiraxis', template: '%s · Spiraxis' },
  description: 'Which reading to take next, what it will mean, and when there is enough to name the part.',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default async function RootLayout({ children }: { children: ReactNode }) {
  const theme = themeOf((await cookies()).get(THEME_COOKIE)?.value);
  // What stands for a page that is not on a device is kept with the program: it is nobody's.
  const kept = /^\/(offline|begun)(\?|$)/.test((await headers()).get('x-path') ?? '');
  const who = kept ? null : await signedHere();
  return (
    <html lang="en" data-theme={theme}>
      <body>
        <WhoProvider who={who && { name: who.name, role: who.role, licences: who.licences }}>
          {children}
          {who && !who.oneTime ? <Palette /> : null}
          <Offline nobodys={kept} />
        </WhoProvider>
      </body>
    </html>
  );
}
