import { chromium } from 'playwright-core';
const [,, url, out, w='1280', h='800', ...rest] = process.argv;
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] });
const page = await browser.newPage({ viewport: { width: +w, height: +h } });
await page.goto(url);
await page.waitForTimeout(1500);
for (const step of rest) { await eval(`(async () => { ${step} })()`); await page.waitForTimeout(500); }
await page.screenshot({ path: out });
await browser.close();
