'use client';

import { type FormEvent, useState } from 'react';
import type { ListValue } from '@/core/defaults';
import { type LinkItem, linkLine, type NamedLink, type Shelf } from '@/core/words';
import { Button } from '@/ui/button';
import { CHOOSE_SMALL, Choose } from '@/ui/choose';
import { SMALL_FIELD } from './field-row';
import { TakeOff } from './take-off';

interface LinksFieldProps {
  id: string;
  own: ListValue<LinkItem> | undefined;
  beneath: readonly LinkItem[];
  shelf: Shelf;
  onChange: (value: ListValue<LinkItem> | null) => void;
}

const shown = (item: LinkItem, shelf: Shelf): NamedLink | undefined =>
  'shelf' in item ? (Object.hasOwn(shelf, item.shelf) ? shelf[item.shelf] : undefined) : item;

const keyOf = (item: LinkItem) => JSON.stringify(item);

/** Links of a video: its own with words and address, or those of the shelf by name. */
export function LinksField({ id, own, beneath, shelf, onChange }: LinksFieldProps) {
  const [label, setLabel] = useState('');
  const [url, setUrl] = useState('');
  const from = own?.way === 'replace' ? [] : beneath;
  const mine = own?.items ?? [];
  const way = own?.way ?? 'add';
  const put = (items: LinkItem[]) => onChange(items.length === 0 && way === 'add' ? null : { way, items });
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (url.trim() === '') return;
    // Nobody types the scheme; an address without one is of the web.
    const address = /^[a-z]+:/i.test(url.trim()) ? url.trim() : `https://${url.trim()}`;
    put([...mine, { label: label.trim(), url: address }]);
    setLabel('');
    setUrl('');
  };
  const line = (item: LinkItem, isMine: boolean) => {
    const link = shown(item, shelf);
    const words = link ? linkLine(link) : `▲ the shelf has no “${'shelf' in item ? item.shelf : ''}”`;
    const rest = (all: readonly LinkItem[]) => all.filter((each) => each !== item);
    return (
      <li key={keyOf(item)} className="flex items-center gap-2 text-sm">
        <span className={`min-w-0 [overflow-wrap:anywhere] ${isMine ? '' : 'text-soft'}`}>{words}</span>
        {'shelf' in item && <span className="rounded bg-sunk px-1.5 text-[12px] text-soft">shelf</span>}
        <TakeOff
          label={`Remove the link ${link?.label || words}`}
          onClick={() => (isMine ? put(rest(mine)) : onChange({ way: 'replace', items: [...rest(from), ...mine] }))}
        />
      </li>
    );
  };
  const used = new Set([...from, ...mine].map(keyOf));
  const free = Object.keys(shelf).filter((name) => !used.has(keyOf({ shelf: name })));
  return (
    <div className="grid gap-1.5">
      {from.length + mine.length > 0 && (
        <ul className="grid gap-0.5 pt-1.5">
          {from.map((item) => line(item, false))}
          {mine.map((item) => line(item, true))}
        </ul>
      )}
      <form onSubmit={add} className="flex flex-wrap gap-2">
        <input
          id={id}
          value={label}
          onChange={(event) => setLabel(event.target.value)}
          placeholder="Plans of the box"
          className={`${SMALL_FIELD} w-44`}
        />
        <input
          value={url}
          onChange={(event) => setUrl(event.target.value)}
          placeholder="https://"
          aria-label="Address of the link"
          inputMode="url"
          className={`${SMALL_FIELD} w-52 flex-1`}
        />
        <Button type="submit" className="py-1.5">
          Add
        </Button>
        {free.length > 0 && (
          <Choose
            label="Take a link from the shelf"
            value=""
            options={[['', 'from the shelf …'], ...free.map((name): [string, string] => [name, name])]}
            onChange={(shelf) => shelf !== '' && put([...mine, { shelf }])}
            className={CHOOSE_SMALL}
          />
        )}
      </form>
    </div>
  );
}
