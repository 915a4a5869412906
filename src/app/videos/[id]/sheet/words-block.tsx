'use client';

import { useState } from 'react';
import { chapterLines, chapterText } from '@/core/chapters';
import { PRIVACIES, type Privacy } from '@/core/delivery';
import { type TagRules, tagsFromText, textLength } from '@/core/words';
import { ChoiceCards } from './choice-cards';
import { DraftArea, DraftInput } from './draft-input';
import { FIELD, FieldRow } from './field-row';
import { LimitCount } from './limit-count';
import { useTimeLine } from './time-line-state';
import { useDraft } from './use-draft';
import type { SheetHandle } from './use-sheet';

/** Title, description, tags and privacy. */
export function WordsBlock({ handle }: { handle: SheetHandle }) {
  const { sheet, save } = handle;
  const title = useDraft(sheet.title, (text) => save({ title: text }));
  const description = useDraft(sheet.description, (text) => save({ description: text }));
  // One line for each site, not for each channel: channels of a site have the same limits.
  const sites = [
    ...new Map(sheet.channels.filter((each) => each.ticked).map((each) => [each.site, each.rules])).values(),
  ];
  const { chapters: made, duration } = useTimeLine();
  const chapters = made.length > 0 ? `\n\n${chapterText(chapterLines(made, duration))}` : '';
  return (
    <section aria-label="Words" className="enamel grid gap-3.5 px-4 py-3.5">
      <h2>Words</h2>
      <FieldRow
        id="title"
        label="Title"
        below={
          <>
            <span>{sheet.titleFrom === 'file' ? 'made from the file name' : 'written here'}</span>
            {sites.map(
              ({ name, title: limit }) =>
                limit && (
                  <LimitCount
                    key={name}
                    used={textLength(title.text.trim(), limit.unit)}
                    most={limit.most}
                    site={name}
                  />
                ),
            )}
          </>
        }
      >
        <DraftInput id="title" draft={title} placeholder="The phrase that people would search for" />
      </FieldRow>
      <FieldRow
        id="description"
        label="Description"
        below={
          <>
            {made.length > 0 && <span>the chapters follow below it</span>}
            {sites.map(
              ({ name, title: hasTitle, text: limit, chapters: way }) =>
                limit &&
                hasTitle && (
                  <LimitCount
                    key={name}
                    used={textLength(
                      description.text.trim() + (way?.way === 'description' ? chapters : ''),
                      limit.unit,
                    )}
                    most={limit.most}
                    site={name}
                  />
                ),
            )}
          </>
        }
      >
        <DraftArea id="description" draft={description} placeholder="Two or three lines about this video" />
      </FieldRow>
      <Tags handle={handle} />
      <PrivacyChoice privacy={sheet.privacy} onChoose={(privacy) => save({ privacy })} />
    </section>
  );
}

function Tags({ handle }: { handle: SheetHandle }) {
  const { sheet, save } = handle;
  const [typed, setTyped] = useState('');
  const add = () => {
    const fresh = tagsFromText(typed);
    setTyped('');
    if (fresh.length > 0) void save({ tags: [...sheet.tags, ...fresh] });
  };
  const lists = sheet.channels.flatMap(({ ticked, rules }): [string, TagRules][] =>
    ticked && typeof rules.tags === 'object' ? [[rules.name, rules.tags]] : [],
  );
  return (
    <FieldRow
      id="tags"
      label="Tags"
      below={
        <>
          <span>commas or Enter between them</span>
          {[...new Map(lists)].map(([name, { mostWithCommas, most }]) => (
            <LimitCount
              key={name}
              used={mostWithCommas ? sheet.tags.join(',').length : sheet.tags.length}
              most={mostWithCommas ?? most}
              site={name}
            />
          ))}
        </>
      }
    >
      <div className={`${FIELD} flex flex-wrap gap-1.5`}>
        {sheet.tags.map((tag) => (
          <span key={tag} className="inline-flex items-center gap-1 rounded-full bg-sunk px-2.5 py-0.5 text-sm">
            {tag}
            <button
              type="button"
              aria-label={`Take off the tag ${tag}`}
              onClick={() => save({ tags: sheet.tags.filter((each) => each !== tag) })}
              className="text-soft hover:text-snag"
            >
              ×
            </button>
          </span>
        ))}
        <input
          id="tags"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onBlur={add}
          onKeyDown={(event) => {
            if (event.key === 'Enter' || event.key === ',') {
              event.preventDefault();
              add();
            } else if (event.key === 'Backspace' && typed === '' && sheet.tags.length > 0) {
              void save({ tags: sheet.tags.slice(0, -1) });
            }
          }}
          placeholder={sheet.tags.length === 0 ? 'keel, scarf joint, …' : ''}
          className="min-w-32 flex-1 bg-transparent outline-none"
        />
      </div>
    </FieldRow>
  );
}

const PRIVACY_WORDS: Record<Privacy, { name: string; says: string }> = {
  everyone: { name: 'Everyone', says: 'opens by itself once it is proofed' },
  link: { name: 'People with the link', says: 'stays so until you open it' },
  private: { name: 'Only me', says: 'stays closed until you open it' },
};

function PrivacyChoice({ privacy, onChoose }: { privacy: Privacy; onChoose: (privacy: Privacy) => void }) {
  return (
    <fieldset id="privacy" className="grid gap-1 sm:grid-cols-[112px_minmax(0,1fr)] sm:gap-3.5">
      <legend className="sr-only">Who may see it</legend>
      <span aria-hidden className="pt-2 text-sm text-soft">
        Privacy
      </span>
      <ChoiceCards
        name="privacy"
        chosen={privacy}
        options={PRIVACIES.map((value) => ({ value, ...PRIVACY_WORDS[value] }))}
        onChoose={onChoose}
        className="flex-1"
      />
    </fieldset>
  );
}
