'use client';

import type { SheetChannel } from '@/desk/views/views';

const short = (text: string) => (text.length > 60 ? `${text.slice(0, 57)}…` : text);

/** What has changed since it went to the site, field by field: what it has now, and what it would get. */
export function ChangeList({
  changes,
  says = 'Changed here, not sent yet:',
}: Pick<SheetChannel, 'changes'> & { says?: string }) {
  if (changes.length === 0) return null;
  return (
    <details className="text-[13px]">
      <summary className="cursor-pointer">
        <b className="text-held">{says}</b> {changes.map(({ field }) => field).join(', ')}
      </summary>
      <dl className="mt-1 grid gap-1.5">
        {changes.map(({ field, was, is }) => (
          <div key={field}>
            <dt className="text-soft">{field}</dt>
            <dd className="whitespace-pre-wrap">
              <del className="text-soft">{short(was) || 'nothing'}</del> → {short(is) || 'nothing'}
            </dd>
          </div>
        ))}
      </dl>
    </details>
  );
}
