import type { ReactNode } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';

/** A whole HTML page of a stand-in; React escapes every text that came from outside. */
export function page(title: string, style: string, body: ReactNode): string {
  return `<!doctype html>${renderToStaticMarkup(
    <html lang="en">
      <head>
        <meta charSet="utf-8" />
        <meta name="viewport" content="width=device-width, initial-scale=1" />
        <title>{title}</title>
        {/* biome-ignore lint/security/noDangerouslySetInnerHtml: the style is our own constant */}
        <style dangerouslySetInnerHTML={{ __html: style }} />
      </head>
      <body>{body}</body>
    </html>,
  )}`;
}
