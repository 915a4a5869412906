import { boolean, type InferType, string } from 'yup';
import type { Declarations } from '@/core/declarations';

/** How Lanternfold calls what is declared of a video. */
export const declaredShape = {
  category: string(),
  language: string(),
  licence: string().oneOf(['all-rights', 'cc-by'] as const),
  recordedOn: string(),
  place: string(),
  madeForChildren: boolean(),
  adultsOnly: boolean(),
  paidPlacement: boolean(),
  comments: string().oneOf(['open', 'hold-doubtful', 'hold-all', 'off'] as const),
  ratings: boolean(),
  embedding: boolean(),
  tellSubscribers: boolean(),
  adverts: string().oneOf(['off', 'context', 'interest'] as const),
};

type Theirs = { [K in keyof typeof declaredShape]?: InferType<(typeof declaredShape)[K]> };

const LICENCE = { 'all rights reserved': 'all-rights', 'creative commons': 'cc-by' } as const;
const COMMENTS = { open: 'open', 'hold doubtful': 'hold-doubtful', 'hold all': 'hold-all', off: 'off' } as const;
const ADVERTS = { off: 'off', 'by context': 'context', 'by interest': 'interest' } as const;

function back<K extends string, V extends string>(names: Record<K, V>, value: V | undefined): K | undefined {
  return (Object.keys(names) as K[]).find((key) => names[key] === value);
}

/** What is declared, in Lanternfold's words. */
export function toLanternfold(declared: Partial<Declarations>): Theirs {
  const { licence, comments, adverts, forChildren, credits: _credits, products: _products, ...same } = declared;
  return {
    ...same,
    madeForChildren: forChildren,
    licence: licence && LICENCE[licence],
    comments: comments && COMMENTS[comments],
    adverts: adverts && ADVERTS[adverts],
  };
}

/** What Lanternfold says is declared, in our words. */
export function fromLanternfold(theirs: Theirs): Partial<Declarations> {
  const { category, language, recordedOn, place, adultsOnly, paidPlacement, ratings, embedding, tellSubscribers } =
    theirs;
  return {
    category,
    language,
    recordedOn,
    place,
    adultsOnly,
    paidPlacement,
    ratings,
    embedding,
    tellSubscribers,
    forChildren: theirs.madeForChildren,
    licence: back(LICENCE, theirs.licence),
    comments: back(COMMENTS, theirs.comments),
    adverts: back(ADVERTS, theirs.adverts),
  };
}
