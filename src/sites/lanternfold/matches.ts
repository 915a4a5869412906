import { array, type InferType, number, object, string } from 'yup';
import type { RightsAsk } from '@/core/drop';
import type { RightsMatch } from '@/core/rights';
import { fraction } from '@/core/time';

/** A match as Lanternfold tells of it; the span in seconds. */
export const matchShape = object({
  id: string().required(),
  owner: string().required(),
  work: string().defined(),
  from: number().required(),
  to: number().required(),
  wants: string().required(),
  countries: array(
    string()
      .matches(/^[A-Z]{2}$/)
      .required(),
  ).default([]),
  state: string()
    .oneOf(['open', 'agreed', 'disputed', 'withdrawn', 'upheld'] as const)
    .required(),
  dispute: object({ text: string().defined(), answerBy: string().datetime(), answer: string() }).default(undefined),
});

const ASKS: Record<string, RightsAsk> = { share: 'income', silence: 'silence', close: 'closing' };

const seconds = (told: number) => fraction(Math.round(told * 1000), 1000);

/** A match in our words. One that closes a video in some countries only leaves it open in all others. */
export function toMatch({ wants, from, to, dispute, ...match }: InferType<typeof matchShape>): RightsMatch {
  const asks = wants === 'close' && match.countries.length > 0 ? 'closing in countries' : ASKS[wants];
  return {
    ...match,
    ...{ asks, from: seconds(from), to: seconds(to) },
    ...(dispute && {
      dispute: {
        text: dispute.text,
        answerBy: dispute.answerBy ? new Date(dispute.answerBy) : undefined,
        answer: dispute.answer ?? undefined,
      },
    }),
  };
}
