'use client';

import Link from 'next/link';
import { CHOOSE_FIELD, Choose } from '@/ui/choose';
import { DraftInput } from '@/ui/fields/draft-input';
import { FIELD_LOOK, FieldRow } from '@/ui/fields/field-row';
import { useDraft } from '@/ui/saving/use-draft';
import type { SheetHandle } from '../use-sheet';

const HOW: Record<'file' | 'person', string> = {
  file: 'recognised from the file name',
  person: 'chosen here',
};

/** The series that a video is of, how that is known, and the number of the episode. */
export function SeriesRow({ handle }: { handle: SheetHandle }) {
  const { sheet, save } = handle;
  const { series, seriesOffer, allSeries } = sheet;
  const episode = useDraft(sheet.episode, (text, on) => save({ episode: text }, { episode: on }), {
    key: `${sheet.id} episode`,
  });
  return (
    <FieldRow
      id="series"
      label="Series"
      below={
        series ? (
          <>
            <span>{HOW[series.from]}</span>
            <Link href={`/series/${series.id}`} className="textlink">
              Its defaults
            </Link>
          </>
        ) : (
          <>
            {seriesOffer && (
              <button type="button" className="textlink" onClick={() => void save({ seriesId: seriesOffer.id })}>
                Put it in {seriesOffer.name}, the one used last
              </button>
            )}
            <Link href="/series" className="textlink">
              {allSeries.length === 0
                ? 'Make a series, and its words are there by themselves'
                : 'Series and their defaults'}
            </Link>
          </>
        )
      }
    >
      <div className="flex flex-wrap items-center gap-2">
        <Choose
          id="series"
          value={series?.id ?? ''}
          options={[['', 'in no series'], ...allSeries.map(({ id, name }) => [id, name] as const)]}
          onChange={(seriesId) => void save({ seriesId: seriesId || null })}
          className={`${CHOOSE_FIELD} min-w-52`}
        />
        <label htmlFor="episode" className="text-sm text-soft">
          Episode
        </label>
        <DraftInput id="episode" draft={episode} className={`${FIELD_LOOK} w-20 tabular-nums`} />
      </div>
    </FieldRow>
  );
}
