import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { text } from 'node:stream/consumers';
import type { Browser, BrowserContext, BrowserContextOptions, Download, Locator, Page } from 'playwright-core';
import { afterAll, afterEach, beforeAll, expect } from 'vitest';
import { BUTTONS } from '@/ui/button-words';
import { itsChromium } from './chromium';
import { PATIENCE } from './patience';

const MOST_SHOWN = 2500;

/** The browser of a file of tests, from its first test on. */
export interface ItsBrowser {
  /** A context of its own; all are closed with the last test. */
  newContext(options?: BrowserContextOptions): Promise<BrowserContext>;
  /** A page in a context of its own. */
  newPage(options?: BrowserContextOptions): Promise<Page>;
}

/**
 * The browser of this process of tests, for one file. Its clocks are those of another zone than the server's, so that a page which
 * the server wrote with its own is found. A page that throws fails its test. Where a test fails, what its pages show is
 * printed: CI leaves nothing else to look at.
 */
export function itsBrowser(): ItsBrowser {
  let browser: Browser;
  /** What pages threw since it was looked at last. */
  const thrown: string[] = [];
  beforeAll(async () => {
    browser = await itsChromium();
  });
  afterAll(() => Promise.all(browser?.contexts().map((context) => context.close()) ?? []));
  afterEach(async ({ task }) => {
    const errors = thrown.splice(0);
    if (task.result?.state !== 'fail') return expect(errors, 'what pages threw').toEqual([]);
    for (const page of browser.contexts().flatMap((context) => context.pages())) {
      const shown = await page.evaluate(() => document.body.innerText).catch((error: Error) => error.message);
      console.error(`— ${task.name}: ${page.url()}\n${shown.slice(0, MOST_SHOWN)}`);
    }
    for (const error of errors) console.error(error);
  });
  const newContext: ItsBrowser['newContext'] = async (options) => {
    const context = await browser.newContext({ timezoneId: 'Europe/Berlin', ...options });
    context.setDefaultTimeout(PATIENCE);
    context.on('weberror', (error) => thrown.push(`${error.page()?.url()}: ${error.error().message}`));
    return context;
  };
  return { newContext, newPage: async (options) => (await newContext(options)).newPage() };
}

/** Lets every section of a Sheet be open on the pages of a context, as a person may have it. */
export async function withOpenSections(context: BrowserContext): Promise<BrowserContext> {
  await context.addInitScript(() => {
    // A page that is empty yet has none.
    if (location.protocol.startsWith('http')) localStorage.setItem('sheet sections all open', 'yes');
  });
  return context;
}

/** What a download holds. */
export const textOf = async (download: Download): Promise<string> => text(await download.createReadStream());

/** Waits until the file of the Sheet on the page has arrived and been read. */
export const untilRead = (page: Page) => page.getByRole('button', { name: BUTTONS.replaceFile }).waitFor();

/** Takes one of a list: the list is opened by its button, and a choice pressed. */
export async function choose(list: Locator, name: string): Promise<void> {
  await list.click();
  await list.page().getByRole('option', { name, exact: true }).click();
}

const axeSource = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

interface AxeResult {
  violations: { id: string; impact: string; nodes: { target: string[]; failureSummary: string }[] }[];
}

const THEMES = ['light', 'dark'] as const;
type Theme = (typeof THEMES)[number];

/** Only colours differ between the themes: in the dark one just what looks at them is run again. */
const OF_COLOURS = ['color-contrast', 'link-in-text-block'];

/** A page, or the part of it that a test has brought about: looking at a whole Sheet takes seconds, and each is looked at once. */
type Shown = Page | Locator;
const pageOf = (shown: Shown): Page => ('page' in shown ? shown.page() : shown);

/**
 * What axe finds on a page or a part of it, in each theme; the page is left in its own.
 * @param rules to be switched on that are off by themselves
 */
async function axeFindings(shown: Shown, themes: readonly Theme[], rules: readonly string[] = []) {
  const page = pageOf(shown);
  const part = await ('page' in shown ? shown : shown.locator('html')).elementHandle();
  const before = await page.evaluate(() => document.documentElement.dataset.theme);
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axeSource);
  const found: { impact: string; says: string }[] = [];
  for (const theme of themes) {
    const options = {
      ...(theme === 'dark' && themes.length > 1
        ? { runOnly: { type: 'rule', values: OF_COLOURS } }
        : { rules: Object.fromEntries(rules.map((rule) => [rule, { enabled: true }])) }),
      resultTypes: ['violations'],
    };
    const inTheme = await page.evaluate(
      async ([name, how, inside]) => {
        document.documentElement.dataset.theme = name;
        type Axe = { run(inside: Node, options: object): Promise<AxeResult> };
        const { axe } = window as unknown as { axe: Axe };
        const { violations } = await axe.run(inside ?? document, how);
        return violations.flatMap(({ id, impact, nodes }) =>
          nodes.map((node) => ({ impact, says: `${name} ${id}: ${node.target} ${node.failureSummary}` })),
        );
      },
      [theme, options, part] as const,
    );
    found.push(...inTheme);
  }
  await page.evaluate((name) => {
    if (name === undefined) delete document.documentElement.dataset.theme;
    else document.documentElement.dataset.theme = name;
  }, before);
  return found;
}

/**
 * Runs axe on a page, or a part of it, in both themes with every rule that it has for WCAG 2.2 A and AA, the size of what is pressed among
 * them (2.5.8): no finding at all may be there, and the page may not scroll sideways (1.4.10).
 * @param themes in which it is looked at
 */
export async function expectReachable(shown: Shown, themes: readonly Theme[] = THEMES): Promise<void> {
  const page = pageOf(shown);
  const found = await axeFindings(shown, themes, ['target-size']);
  expect(
    found.map(({ says }) => says),
    page.url(),
  ).toEqual([]);
  const { scrollWidth, clientWidth } = await page.evaluate(() => {
    const { scrollWidth, clientWidth } = document.documentElement;
    return { scrollWidth, clientWidth };
  });
  expect(scrollWidth, `${page.url()} scrolls sideways`).toBeLessThanOrEqual(clientWidth);
}

/** Runs axe on a page or a part of it in both themes; no serious or critical finding may be there. */
export async function expectAccessible(shown: Shown): Promise<void> {
  const found = await axeFindings(shown, THEMES);
  const serious = found.filter(({ impact }) => impact === 'serious' || impact === 'critical');
  expect(serious.map(({ says }) => says)).toEqual([]);
}
