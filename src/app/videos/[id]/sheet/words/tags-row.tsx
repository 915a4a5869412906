'use client';

import { useQuery } from '@tanstack/react-query';
import { type TagOffer, type TagRules, tagsFromText } from '@/core/words';
import type { TagOffers } from '@/desk/video/suggest-tags';
import { ask } from '@/ui/ask';
import { buttonLook } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { ChipsField } from '@/ui/fields/chips-field';
import { FieldRow } from '@/ui/fields/field-row';
import { LimitCount } from '@/ui/fields/limit-count';
import { PopButton } from '@/ui/pop-button';
import { DiffersOn, SheetMark } from '../sheet-mark';
import type { SheetHandle } from '../use-sheet';

/** For each site with a list of tags, those of its ticked channel that has most. */
function tagCounts({ channels }: SheetHandle['sheet']): { site: string; rules: TagRules; tags: string[] }[] {
  const most = new Map<string, { site: string; rules: TagRules; tags: string[] }>();
  for (const { ticked, rules, values } of channels) {
    if (!ticked || typeof rules.tags !== 'object') continue;
    const tags = values.tags.value;
    const longest = most.get(rules.name);
    if (!longest || longest.tags.length < tags.length) {
      most.set(rules.name, { site: rules.name, rules: rules.tags, tags });
    }
  }
  return [...most.values()];
}

/** Tags with the count and budget of each site that has a list of them, and what could be added. */
export function TagsRow({ handle }: { handle: SheetHandle }) {
  const { sheet, save } = handle;
  const counts = tagCounts(sheet);
  const add = (tag: string) => {
    const { way, items } = sheet.own.tags ?? { way: 'add', items: [] };
    void save({ tags: { way, items: [...items, tag] } });
  };
  return (
    <FieldRow
      id="tags"
      label="Tags"
      mark={<SheetMark handle={handle} field="tags" />}
      below={
        <>
          {counts.map(({ site, rules: { most }, tags }) => (
            <LimitCount key={site} used={tags.length} most={most} says={`on ${site}`} />
          ))}
          <DiffersOn handle={handle} field="tags" />
        </>
      }
    >
      <ChipsField
        id="tags"
        one="tag"
        own={sheet.own.tags}
        beneath={sheet.marks.tags.beneath as string[]}
        onChange={(own) => void save({ tags: own })}
        parse={tagsFromText}
        placeholder="keel, scarf joint …"
      />
      <TagOfferList handle={handle} onAdd={add} />
    </FieldRow>
  );
}

/** What could be added, with why; it is asked for only when somebody opens it. */
function TagOfferList({ handle, onAdd }: { handle: SheetHandle; onAdd: (tag: string) => void }) {
  return (
    <PopButton
      button={{ className: `${buttonLook('plain')} mt-1`, children: BUTTONS.suggestTags }}
      panel={{
        label: 'Tags to add',
        align: 'start',
        className: 'max-h-[60vh] w-[min(460px,92vw)] overflow-y-auto p-3.5',
      }}
    >
      <Offers handle={handle} onAdd={onAdd} />
    </PopButton>
  );
}

function Offers({ handle, onAdd }: { handle: SheetHandle; onAdd: (tag: string) => void }) {
  const { sheet } = handle;
  const { data, error } = useQuery({
    // Of its own key, so that it is read again when the words or the tags are others.
    queryKey: ['tag offers', sheet.id, sheet.updatedAt, sheet.values.tags.join(',')],
    queryFn: () => ask<TagOffers>(`/api/videos/${sheet.id}/tag-offers`),
    placeholderData: (before) => before,
  });
  if (error) return <p className="text-snag">▲ {error.message}</p>;
  if (!data) return <p className="text-soft">Looking at earlier videos, captions and words …</p>;
  const variants = Object.entries(data.variants);
  if (data.suggestions.length === 0 && variants.length === 0) {
    return (
      <p className="text-soft">
        Nothing to suggest yet. Suggestions come from earlier videos, captions and the summary.
      </p>
    );
  }
  const row = ({ tag, why }: TagOffer) => (
    <li key={`${tag} ${why}`} className="flex items-baseline gap-2">
      <button
        type="button"
        onClick={() => onAdd(tag)}
        aria-label={`Add the tag ${tag}`}
        className="rounded-full bg-sunk px-2.5 py-0.5 text-sm hover:bg-copper-wash"
      >
        <span aria-hidden>+ </span>
        {tag}
      </button>
      <span className="text-[13px] text-soft">{why}</span>
    </li>
  );
  return (
    <div className="grid gap-3">
      {data.suggestions.length > 0 && (
        <section>
          <h3 className="mb-1">To add</h3>
          <ul className="grid gap-1">{data.suggestions.map(row)}</ul>
        </section>
      )}
      {variants.length > 0 && (
        <section>
          <h3 className="mb-1">Other ways people write them</h3>
          <ul className="grid gap-1">
            {variants.flatMap(([tag, offers]) =>
              offers.map((offer) => row({ ...offer, why: `“${tag}”, ${offer.why}` })),
            )}
          </ul>
        </section>
      )}
    </div>
  );
}
