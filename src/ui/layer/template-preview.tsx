'use client';

import { useState } from 'react';
import { valueOver } from '@/core/defaults';
import { type Fitted, fitToSite } from '@/core/fitting';
import { linksOf, TemplateError } from '@/core/words';
import type { LayerView } from '@/desk/views/views';
import { CHOOSE_SMALL, Choose } from '@/ui/choose';

/** The words of a layer filled in with the latest video's, as each site would get them. */
export function TemplatePreview({ view }: { view: LayerView }) {
  const [chosen, setChosen] = useState(0);
  const { sample, rules } = view;
  const site = rules[chosen] ?? rules[0];
  if (!site) return null;
  const value = <F extends 'template' | 'titlePattern' | 'tags' | 'links'>(field: F) =>
    valueOver<F>(field, view.beneath[field].value, view.set[field]);
  const { summary, title, chapters, duration, names } = sample;
  const links = linksOf(value('links'), view.shelf).links;
  const input = {
    title,
    summary,
    chapters,
    duration,
    links,
    titlePattern: value('titlePattern'),
    template: value('template'),
    tags: value('tags'),
    names: { ...names, shelf: view.shelf },
  };
  let fitted: Fitted | undefined;
  let trouble: string | undefined;
  try {
    fitted = fitToSite(input, site);
  } catch (error) {
    if (!(error instanceof TemplateError)) throw error;
    trouble = error.message;
  }
  return (
    <section aria-label="Preview" className="grid grid-cols-[minmax(0,1fr)] gap-2">
      <div className="flex flex-wrap items-center gap-2.5">
        <h3>Preview</h3>
        <span className="text-[13px] text-soft">with “{title}”, as on</span>
        <Choose
          label="As on which site"
          value={String(chosen)}
          options={rules.map(({ name }, index) => [String(index), name] as const)}
          onChange={(index) => setChosen(Number(index))}
          className={CHOOSE_SMALL}
        />
      </div>
      {trouble && <p className="text-sm text-snag">▲ {trouble}</p>}
      {fitted && (
        <>
          <div className="max-h-72 overflow-y-auto whitespace-pre-wrap rounded-lg bg-sunk px-3.5 py-2.5 text-sm [overflow-wrap:anywhere]">
            {fitted.title && <b className="block font-semibold">{fitted.title}</b>}
            {fitted.text}
          </div>
          <ul className="grid gap-0.5 text-[13px]">
            {fitted.findings.map(({ what }) => (
              <li key={what} className="text-snag">
                ▲ {what}
              </li>
            ))}
            {fitted.leftOut.map((what) => (
              <li key={what}>✂ {what}</li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
