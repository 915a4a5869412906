import type { ReactNode } from 'react';

/** One part of the page of a drop, under its heading. */
export function Part({ name, says, children }: { name: string; says?: string; children: ReactNode }) {
  return (
    <section aria-label={name} className="enamel overflow-hidden">
      <div className="flex flex-wrap items-baseline gap-x-3 border-line border-b px-4 py-2.5">
        <h2>{name}</h2>
        {says && <span className="text-[13px] text-soft">{says}</span>}
      </div>
      <div className="grid gap-3 px-4 py-3.5 text-sm">{children}</div>
    </section>
  );
}
