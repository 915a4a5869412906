import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { type Browser, chromium, type Page } from 'playwright-core';
import { expect } from 'vitest';

const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

/** Debian's Chromium, headless. */
export function startBrowser(): Promise<Browser> {
  return chromium.launch({ executablePath: '/usr/bin/chromium', args: FLAGS });
}

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface AxeResult {
  violations: { id: string; impact: string; nodes: { target: string[]; failureSummary: string }[] }[];
}

/** Runs axe on a page in both themes; no serious or critical finding may be there. */
export async function expectAccessible(page: Page): Promise<void> {
  const before = await page.evaluate(() => document.documentElement.dataset.theme);
  for (const theme of ['light', 'dark']) {
    await page.evaluate((name) => {
      document.documentElement.dataset.theme = name;
    }, theme);
    await page.evaluate(axeSource);
    const { violations } = await page.evaluate(async () => {
      const { axe } = window as unknown as { axe: { run(): Promise<AxeResult> } };
      return axe.run();
    });
    const serious = violations.filter(({ impact }) => impact === 'serious' || impact === 'critical');
    const list = serious.map(
      ({ id, nodes }) => `${theme} ${id}: ${nodes.map((node) => `${node.target} ${node.failureSummary}`).join('\n')}`,
    );
    expect(list).toEqual([]);
  }
  await page.evaluate((name) => {
    document.documentElement.dataset.theme = name;
  }, before);
}
