import { array, boolean, type InferType, object, string } from 'yup';
import type { CountryRule, Declarations } from '@/core/declarations';

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
  shownIn: object({
    way: string()
      .oneOf(['all', 'only', 'not'] as const)
      .required(),
    countries: array(string().required()).required(),
  }).default(undefined),
  broadcast: string().oneOf(['unsaid', 'never', 'captioned', 'not-captioned'] as const),
  adverts: string().oneOf(['off', 'context', 'interest'] as const),
};

type Theirs = { [K in keyof typeof declaredShape]?: InferType<(typeof declaredShape)[K]> };

const LICENCE = { 'all rights reserved': 'all-rights', 'creative commons': 'cc-by' } as const;
const COMMENTS = { open: 'open', 'hold doubtful': 'hold-doubtful', 'hold all': 'hold-all', off: 'off' } as const;
const ADVERTS = { off: 'off', 'by context': 'context', 'by interest': 'interest' } as const;

const WHERE = { everywhere: 'all', 'only in': 'only', 'everywhere but': 'not' } as const;
const BROADCAST = {
  '': 'unsaid',
  never: 'never',
  'with captions': 'captioned',
  'without captions': 'not-captioned',
} as const;

function back<K extends string, V extends string>(names: Record<K, V>, value: V | undefined): K | undefined {
  return (Object.keys(names) as K[]).find((key) => names[key] === value);
}

/** What is declared, in Lanternfold's words. */
export function toLanternfold(declared: Partial<Declarations>): Theirs {
  const { licence, comments, adverts, forChildren, countries, broadcast, ...others } = declared;
  const { credits: _credits, products: _products, ...same } = others;
  return {
    ...same,
    madeForChildren: forChildren,
    licence: licence && LICENCE[licence],
    comments: comments && COMMENTS[comments],
    adverts: adverts && ADVERTS[adverts],
    broadcast: broadcast === undefined ? undefined : BROADCAST[broadcast],
    shownIn: countries && { way: WHERE[countries.way], countries: countries.codes },
  };
}

function rule({ way, countries }: NonNullable<Theirs['shownIn']>): CountryRule {
  return { way: back(WHERE, way) ?? 'everywhere', codes: countries };
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
    broadcast: back(BROADCAST, theirs.broadcast),
    countries: theirs.shownIn && rule(theirs.shownIn),
  };
}
