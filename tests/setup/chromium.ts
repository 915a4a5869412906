import { type Browser, type BrowserServer, chromium } from 'playwright-core';

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
const OPTIONS = { executablePath: '/usr/bin/chromium-headless-shell', args: FLAGS };

/** Debian's Chromium, headless. */
export const startChromium = (): Promise<Browser> => chromium.launch(OPTIONS);

/** Debian's Chromium, headless, for several who come one after the other. */
export const serveChromium = (): Promise<BrowserServer> => chromium.launchServer({ ...OPTIONS, host: '127.0.0.1' });

/** A browser that is served; what one closes of it is one's own. */
export const joinChromium = (address: string): Promise<Browser> => chromium.connect(address);
