import type { Page } from 'playwright-core';

/** What pages were kept from by their own policy, each as the browser said it; none is the only good list. */
export function keptFrom(page: Page): string[] {
  const said: string[] = [];
  page.on('console', (message) => {
    if (/Content Security Policy|Refused to/i.test(message.text())) said.push(message.text());
  });
  return said;
}
