'use client';

import { chapterLines } from '@/core/chapters';
import { PRIVACIES, type Privacy } from '@/core/delivery';
import { chapterText } from '@/core/time';
import { PLAIN_TITLE, textLength } from '@/core/words';
import { ChoiceCards } from '@/ui/fields/choice-cards';
import { CHOICES, PRIVACY_WORDS } from '@/ui/fields/choices';
import { DraftArea, DraftInput } from '@/ui/fields/draft-input';
import { FIELD, FieldRow } from '@/ui/fields/field-row';
import { LimitCount } from '@/ui/fields/limit-count';
import { LinksField } from '@/ui/fields/links-field';
import { useDraft } from '@/ui/saving/use-draft';
import { SheetMark } from '../sheet-mark';
import { useTimeLine } from '../time-line/time-line-state';
import type { SheetHandle } from '../use-sheet';
import { SeriesRow } from './series-row';
import { TagsRow } from './tags-row';
import { TemplateRow } from './template-row';

/** What is typed for a video, and what the layers put around it. */
export function WordsBlock({ handle }: { handle: SheetHandle }) {
  const { sheet, save } = handle;
  const title = useDraft(sheet.title, (text, on) => save({ title: text }, { title: on }), { key: `${sheet.id} title` });
  const summary = useDraft(sheet.summary, (text, on) => save({ summary: text }, { summary: on }), {
    key: `${sheet.id} summary`,
  });
  // One line for each site, not for each channel: channels of a site have the same limits.
  const ticked = sheet.channels.filter((each) => each.ticked);
  const sites = [...new Map(ticked.map((each) => [each.site, each])).values()];
  const { chapters, duration } = useTimeLine();
  const chapterSigns = chapters.length > 0 ? chapterText(chapterLines(chapters, duration)) : '';
  const plainTitle = sheet.values.titlePattern.trim() === PLAIN_TITLE;
  return (
    <section aria-label="Words" className="enamel grid grid-cols-[minmax(0,1fr)] gap-3.5 px-4 py-3.5">
      <h2>Words</h2>
      <SeriesRow handle={handle} />
      <FieldRow
        id="title"
        label="Title"
        below={
          <>
            <span>{sheet.titleFrom === 'file' ? 'made from the file name' : 'written here'}</span>
            {sites.map(
              ({ rules: { name, title: limit }, words }) =>
                limit && (
                  <LimitCount
                    key={name}
                    used={textLength(plainTitle ? title.text.trim() : words.title, limit.unit)}
                    most={limit.most}
                    says={`on ${name}`}
                  />
                ),
            )}
          </>
        }
      >
        <DraftInput id="title" draft={title} placeholder="The phrase that people would search for" />
      </FieldRow>
      <FieldRow
        id="summary"
        label="Summary"
        below={
          <>
            {chapterSigns !== '' && <span>chapters, links and the rest come from the template</span>}
            {sites.map(
              ({ rules: { name, text: limit }, words }) =>
                limit && (
                  <LimitCount
                    key={name}
                    used={textLength(words.text, limit.unit)}
                    most={limit.most}
                    says={`on ${name}, the full text`}
                  />
                ),
            )}
          </>
        }
      >
        <DraftArea id="summary" draft={summary} placeholder="Two or three lines about this video" rows={3} />
      </FieldRow>
      <TemplateRow handle={handle} />
      <FieldRow id="links" label="Links" below={<SheetMark handle={handle} field="links" />}>
        <LinksField
          id="links"
          own={sheet.own.links}
          beneath={sheet.marks.links.beneath as typeof sheet.values.links}
          shelf={sheet.shelf}
          onChange={(links) => void save({ links })}
        />
      </FieldRow>
      <TagsRow handle={handle} />
      <PrivacyChoice handle={handle} />
    </section>
  );
}

function PrivacyChoice({ handle }: { handle: SheetHandle }) {
  const { values } = handle.sheet;
  const waits = (privacy: Privacy) => privacy === 'everyone' && values.release === 'on my word';
  return (
    <fieldset id="privacy" className="grid gap-1 sm:grid-cols-[112px_minmax(0,1fr)] sm:gap-3.5">
      <legend className="sr-only">Who may see it</legend>
      <span aria-hidden className="pt-2 text-sm text-soft">
        Privacy
      </span>
      <div>
        <ChoiceCards
          name="privacy"
          chosen={values.privacy}
          options={PRIVACIES.map((value) => ({
            value,
            ...PRIVACY_WORDS[value],
            ...(waits(value) && { says: 'waits, proofed' }),
          }))}
          onChoose={(privacy) => void handle.save({ privacy })}
          className="min-w-44 flex-1"
        />
        <Below>
          <SheetMark handle={handle} field="privacy" />
        </Below>
        {values.privacy === 'everyone' && (
          <>
            <select
              aria-label="How it opens"
              value={values.release}
              onChange={(event) => void handle.save({ release: event.target.value as typeof values.release })}
              className={`${FIELD} mt-2 max-w-80`}
            >
              {CHOICES.release?.map(([release, says]) => (
                <option key={release} value={release}>
                  {says}
                </option>
              ))}
            </select>
            <Below>
              <SheetMark handle={handle} field="release" />
            </Below>
          </>
        )}
      </div>
    </fieldset>
  );
}

function Below({ children }: { children: React.ReactNode }) {
  return <div className="mt-1 flex flex-wrap gap-x-3.5 text-[13px] text-soft">{children}</div>;
}
