'use client';

import dynamic from 'next/dynamic';
import { PRIVACIES, type Privacy } from '@/core/delivery';
import { PLAIN_TITLE, textLength } from '@/core/words';
import { ChoiceCards } from '@/ui/fields/choice-cards';
import { PRIVACY_WORDS, RELEASE_SAYS } from '@/ui/fields/choices';
import { DraftArea, DraftInput } from '@/ui/fields/draft-input';
import { Below, FIELD, FieldRow } from '@/ui/fields/field-row';
import { LimitCount } from '@/ui/fields/limit-count';
import { LinksField } from '@/ui/fields/links-field';
import { useDraft } from '@/ui/saving/use-draft';
import { DiffersOn, SheetMark } from '../sheet-mark';
import type { SheetHandle } from '../use-sheet';
import { AsThere } from './as-there';
import { SeriesRow } from './series-row';
import { TagsRow } from './tags-row';
import { TemplateRow } from './template-row';

// What few change is loaded beside the page. With a boundary of its own, so that the choice that shows it is taken at once.
const ReleaseChoice = dynamic(() => import('./release-choice').then((part) => part.ReleaseChoice), {
  loading: () => null,
});

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
  const plainTitle = sheet.values.titlePattern.trim() === PLAIN_TITLE;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] md:grid-cols-[minmax(0,1fr)_minmax(260px,320px)]">
      <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-3.5 px-4 py-3.5">
        <FieldRow
          id="title"
          label="Title"
          below={
            <>
              {sheet.titleFrom === 'file' && <span>Made from the file name</span>}
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
          below={sites.map(
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
        >
          <DraftArea id="summary" draft={summary} placeholder="Two or three lines about this video" rows={3} />
        </FieldRow>
        <SeriesRow handle={handle} />
        <FieldRow
          id="links"
          label="Links"
          mark={<SheetMark handle={handle} field="links" />}
          below={<DiffersOn handle={handle} field="links" />}
        >
          <LinksField
            id="links"
            own={sheet.own.links}
            beneath={sheet.marks.links.beneath as typeof sheet.values.links}
            shelf={sheet.shelf}
            onChange={(links) => void save({ links })}
          />
        </FieldRow>
        <TagsRow handle={handle} />
        <TemplateRow handle={handle} />
        <PrivacyChoice handle={handle} />
      </div>
      <AsThere handle={handle} />
    </div>
  );
}

/** What those are told who may see it with a password. */
function PasswordField({ handle }: { handle: SheetHandle }) {
  const { values, id } = handle.sheet;
  const draft = useDraft(values.password, (password, on) => handle.save({ password }, { password: on }), {
    key: `${id} password`,
    raw: handle.sheet.own.password ?? null,
  });
  return (
    <div className="mt-2 max-w-80">
      <FieldRow id="password" label="Password" mark={<SheetMark handle={handle} field="password" />}>
        <DraftInput id="password" draft={draft} className={FIELD} />
      </FieldRow>
    </div>
  );
}

function PrivacyChoice({ handle }: { handle: SheetHandle }) {
  const { values } = handle.sheet;
  const waits = (privacy: Privacy) => privacy !== 'private' && values.release !== 'by itself';
  return (
    <fieldset id="privacy" tabIndex={-1} className="grid gap-1">
      <legend className="sr-only">Who may see it</legend>
      <div className="flex min-h-6 items-center justify-between gap-3">
        <span aria-hidden className="text-sm text-soft">
          Who may see it
        </span>
        <SheetMark handle={handle} field="privacy" />
      </div>
      <div>
        <ChoiceCards
          name="privacy"
          chosen={values.privacy}
          options={PRIVACIES.map((value) => ({
            value,
            ...PRIVACY_WORDS[value],
            ...(waits(value) && { says: RELEASE_SAYS[values.release as keyof typeof RELEASE_SAYS] }),
          }))}
          onChoose={(privacy) => void handle.save({ privacy })}
          className="min-w-40 flex-1"
        />
        <Below>
          <DiffersOn handle={handle} field="privacy" />
        </Below>
        {values.privacy === 'password' && <PasswordField handle={handle} />}
        {values.privacy !== 'private' && <ReleaseChoice handle={handle} />}
      </div>
    </fieldset>
  );
}
