'use client';

import dynamic from 'next/dynamic';
import type { TemplateFieldProps } from './template-field';

const LOOK = 'rounded-lg border border-line px-3 py-2 text-sm';

/** The line is gone just now: what was typed elsewhere on the page is not to go with it. */
function NotFetched({ value }: TemplateFieldProps) {
  return (
    <div className={LOOK}>
      <p className="text-snag">▲ The editor could not be fetched. Load this page again when Kettle Drop answers.</p>
      <pre className="mt-1 whitespace-pre-wrap font-mono [overflow-wrap:anywhere]">{value}</pre>
    </div>
  );
}

/** The editor of templates, fetched when it is to be shown: it is larger than everything else on its page. */
export const TemplateField = dynamic<TemplateFieldProps>(
  () =>
    import('./template-field').then(
      (loaded) => loaded.TemplateField,
      () => NotFetched,
    ),
  { ssr: false, loading: () => <p className={`${LOOK} text-soft`}>Fetching the editor …</p> },
);
