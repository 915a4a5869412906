import { type Browser, chromium } from 'playwright-core';

const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  // On a machine that stalls it would end what draws the pages, and they would stand still from then on.
  '--disable-gpu-watchdog',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];
/** Debian's Chromium, headless. */
export const startChromium = (): Promise<Browser> =>
  chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: FLAGS });

const holder = globalThis as typeof globalThis & { itsChromium?: Promise<Browser> };

/** The one browser of this process of tests, started by the first that asks; it ends with the process. */
export function itsChromium(): Promise<Browser> {
  holder.itsChromium ??= startChromium();
  return holder.itsChromium;
}
