import '@fontsource-variable/bricolage-grotesque';
import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import './globals.css';
import type { Metadata, Viewport } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { AsleepFiles } from '@/ui/arrivals/asleep';
import { DropAnywhere } from '@/ui/arrivals/drop-anywhere';
import { JustAdded } from '@/ui/arrivals/lazy-just-added';
import { LiveChanges } from '@/ui/live-changes';
import { Providers } from '@/ui/providers';
import { RestingSites } from '@/ui/resting-sites';
import { THEME_SCRIPT } from '@/ui/theme-switch';
import { TopBar } from '@/ui/top-bar';

export const metadata: Metadata = { title: { default: 'Kettle Drop', template: '%s · Kettle Drop' } };

export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default async function Layout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en" data-theme="light" suppressHydrationWarning>
      <body>
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: the script is our own constant */}
        <script nonce={nonce} suppressHydrationWarning dangerouslySetInnerHTML={{ __html: THEME_SCRIPT }} />
        <Providers>
          <TopBar />
          <LiveChanges />
          <RestingSites />
          <AsleepFiles />
          {children}
          <DropAnywhere />
          <JustAdded />
        </Providers>
      </body>
    </html>
  );
}
