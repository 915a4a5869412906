'use client';

import type { DropPageView } from '@/desk/views/drop-page';
import { ChangeList } from '@/ui/drop/change-list';
import { Moment } from '@/ui/moment';
import { Part } from './part';

/** Each time that it was handed in for review, and what came of it. */
export function Reviews({ view }: { view: DropPageView }) {
  const { reviews, expected } = view;
  if (reviews.length === 0) return null;
  return (
    <Part name="Reviews">
      {expected && (
        <p>
          An answer is to be expected between <Moment at={expected.from} /> and <Moment at={expected.to} />,{' '}
          {expected.by === 'reviews before' ? 'as long as the reviews before took' : 'by the hours that the site names'}
          .
        </p>
      )}
      <ol className="grid gap-2">
        {reviews.map(({ id, handedInAt, endedAt, approved, reason, remedy, changes }, index) => (
          <li key={id} className="border-line border-t pt-2 first:border-t-0 first:pt-0">
            <b className="font-semibold">
              {approved === undefined ? '○ in review' : approved ? '● approved' : '▲ turned down'}
            </b>{' '}
            <span className="text-soft">
              handed in <Moment at={handedInAt} />
              {endedAt && (
                <>
                  , answered <Moment at={endedAt} />
                </>
              )}
            </span>
            {reason && (
              <p>
                {reason}. {remedy}
              </p>
            )}
            {index > 0 &&
              (changes.length > 0 ? (
                <ChangeList changes={changes} says="Different from the time before:" />
              ) : (
                <p className="text-[13px] text-soft">Handed in again with the same words</p>
              ))}
          </li>
        ))}
      </ol>
    </Part>
  );
}
