'use client';

import { Tabs } from 'radix-ui';
import { useState } from 'react';
import { FIT_PLACES } from '@/core/fitting';
import { textLength } from '@/core/words';
import type { SheetChannel } from '@/desk/views/views';
import type { SheetHandle } from '../use-sheet';

/** The words as each ticked channel will show them: counted, with its fold, and with what had no room. */
export function AsThere({ handle }: { handle: SheetHandle }) {
  return (
    <section
      aria-label="Preview"
      className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-2.5 rounded-b-[10px] border-line bg-paper px-4 py-3.5 max-md:border-t md:border-l"
    >
      <h2>Preview</h2>
      <ThereTabs handle={handle} />
    </section>
  );
}

const OF_WORDS: ReadonlySet<string> = new Set(FIT_PLACES);
const trouble = (channel: SheetChannel) => channel.missing.filter(({ place }) => OF_WORDS.has(place));

export function ThereTabs({ handle }: { handle: SheetHandle }) {
  const ticked = handle.sheet.channels.filter((channel) => channel.ticked);
  const [chosen, setChosen] = useState<string>();
  const shown = ticked.find(({ id }) => id === chosen) ?? ticked[0];
  if (!shown)
    return <p className="text-soft">Tick a channel under “Where it goes” to see the words as they will be there.</p>;
  return (
    <Tabs.Root value={shown.id} onValueChange={setChosen}>
      <Tabs.List aria-label="Channels" className="mb-2.5 flex flex-wrap gap-1.5">
        {ticked.map((channel) => (
          <Tabs.Trigger
            key={channel.id}
            value={channel.id}
            className="rounded-lg border border-line px-2.5 py-1 text-left text-sm data-[state=active]:border-rim data-[state=active]:bg-held-wash"
          >
            {trouble(channel).length > 0 ? <b className="text-snag">▲ </b> : channel.leftOut.length > 0 ? '✂ ' : ''}
            {channel.name} <span className="text-[13px] text-soft">{channel.siteName}</span>
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      {ticked.map((channel) => (
        <Tabs.Content key={channel.id} value={channel.id}>
          <There channel={channel} />
        </Tabs.Content>
      ))}
    </Tabs.Root>
  );
}

/** How a site counts, for whoever asks. */
const COUNTED = {
  utf16: 'The site counts UTF-16 units: most emoji count as two or more.',
  codePoint: 'The site counts code points: an emoji may count as several.',
  grapheme: 'The site counts characters as people see them.',
  utf8: 'The site counts bytes: letters with marks and emoji count as two to four.',
} as const;

/** One channel's words as they will be there. */
export function There({ channel }: { channel: SheetChannel }) {
  const { words, rules, shownFirst, leftOut, search } = channel;
  const findings = trouble(channel);
  const folded = shownFirst !== undefined && shownFirst.length < words.text.length;
  return (
    <div className="@container">
      <div className="grid grid-cols-[minmax(0,1fr)] items-start gap-3 @lg:grid-cols-[minmax(0,1fr)_230px]">
        <div className="min-w-0 rounded-lg bg-sunk px-3.5 py-2.5 text-sm [overflow-wrap:anywhere]">
          {rules.title && <b className="mb-1 block font-semibold text-base">{words.title}</b>}
          {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls has to be reached by keys (WCAG 2.1.1) */}
          <div tabIndex={0} className="max-h-80 overflow-y-auto whitespace-pre-wrap">
            {folded ? shownFirst : words.text}
            {folded && (
              <>
                <span className="my-1.5 flex items-center gap-2 text-[12px] text-soft">
                  <span className="h-px flex-1 bg-rim" />
                  Hidden until expanded
                  <span className="h-px flex-1 bg-rim" />
                </span>
                {words.text.slice(shownFirst.length).replace(/^\s+/, '')}
              </>
            )}
            {words.text === '' && rules.text && <span className="text-soft">no text</span>}
            {!rules.text && <span className="text-soft">{rules.name} shows no text</span>}
          </div>
          {words.tags.length > 0 && typeof rules.tags === 'object' && (
            <p className="mt-2 border-line border-t pt-2 text-[13px] text-soft">Tags: {words.tags.join(', ')}</p>
          )}
        </div>
        <div className="grid gap-2 text-[13px]">
          <Count of="Title" text={words.title} limit={rules.title} />
          <Count of="Text" text={words.text} limit={rules.text} />
          <List title="To settle" sign="▲" look="text-snag" all={findings.map(({ what }) => what)} />
          <List title="Left out" sign="✂" look="" all={leftOut} />
          <List title="For search" sign="○" look="text-soft" all={search} />
          {findings.length + leftOut.length === 0 && <p className="text-live">● all of it fits</p>}
        </div>
      </div>
    </div>
  );
}

interface CountProps {
  of: string;
  text: string;
  limit: SheetChannel['rules']['title'];
}

function Count({ of, text, limit }: CountProps) {
  if (!limit) return null;
  const used = textLength(text, limit.unit);
  return (
    <p className="flex justify-between gap-2 tabular-nums">
      <span className="text-soft">{of}</span>
      <span data-tip={COUNTED[limit.unit]} className={used > limit.most ? 'font-semibold text-snag' : ''}>
        {used.toLocaleString('en')} of {limit.most.toLocaleString('en')}{' '}
        {limit.unit === 'utf8' ? 'bytes' : 'characters'}
      </span>
    </p>
  );
}

function List({ title, sign, look, all }: { title: string; sign: string; look: string; all: readonly string[] }) {
  if (all.length === 0) return null;
  return (
    <section aria-label={title}>
      <h3 className="text-[13px]">{title}</h3>
      <ul className={`grid gap-0.5 [overflow-wrap:anywhere] ${look}`}>
        {all.map((what) => (
          <li key={what}>
            {sign} {what}
          </li>
        ))}
      </ul>
    </section>
  );
}
