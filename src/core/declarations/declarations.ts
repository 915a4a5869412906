import type { CountryRule } from './countries';

/** How far comments are let through. */
export const COMMENT_WAYS = ['open', 'hold doubtful', 'hold all', 'off'] as const;
/** Which adverts may be shown. */
export const ADVERT_WAYS = ['off', 'by context', 'by interest'] as const;
/** Under which licence a video goes out. */
export const LICENCES = ['all rights reserved', 'creative commons'] as const;

/** Whether it was broadcast before, and how: a question of the law in some countries; '' says nothing. */
export const BROADCAST_WAYS = ['', 'never', 'with captions', 'without captions'] as const;

/** A language and its subtags (RFC 5646, 2.1), without the rare forms. */
export const LANGUAGE_TAG = /^[A-Za-z]{2,3}(-[A-Za-z0-9]{2,8})*$/;

/** Somebody who is named for their part in a video. */
export interface Credit {
  role: string;
  name: string;
}

/** What is declared of a video beside its words; stored once, and offered where a site takes it. */
export interface Declarations {
  /** The id of a category of the sites that have some; '' is none. */
  category: string;
  /** The language spoken, as a tag (BCP 47); '' says nothing. */
  language: string;
  licence: (typeof LICENCES)[number];
  /** The calendar day of the recording, as YYYY-MM-DD; '' says nothing. */
  recordedOn: string;
  /** '' says nothing, which is what most people want. */
  place: string;
  /** Whether it is aimed at children: a question of the law, so that it has no silent answer. */
  forChildren: boolean | undefined;
  /** Adults only. */
  adultsOnly: boolean;
  countries: CountryRule;
  paidPlacement: boolean;
  comments: (typeof COMMENT_WAYS)[number];
  ratings: boolean;
  embedding: boolean;
  tellSubscribers: boolean;
  broadcast: (typeof BROADCAST_WAYS)[number];
  adverts: (typeof ADVERT_WAYS)[number];
  credits: Credit[];
  /** Catalogue products by GTIN, in the order in which they are listed. */
  products: string[];
}

export type DeclarationField = keyof Declarations;

/** What holds of a video that nothing was declared of. */
export const PLAIN_DECLARATIONS: Declarations = {
  category: '',
  language: '',
  licence: 'all rights reserved',
  recordedOn: '',
  place: '',
  forChildren: undefined,
  adultsOnly: false,
  countries: { way: 'everywhere', codes: [] },
  paidPlacement: false,
  comments: 'open',
  ratings: true,
  embedding: true,
  tellSubscribers: true,
  broadcast: '',
  adverts: 'off',
  credits: [],
  products: [],
};

export const DECLARATION_FIELDS = Object.keys(PLAIN_DECLARATIONS) as DeclarationField[];

/** What each is called where people read it. */
export const DECLARATION_NAMES: Record<DeclarationField, string> = {
  category: 'category',
  language: 'language',
  licence: 'licence',
  recordedOn: 'recording date',
  place: 'place',
  forChildren: 'aimed at children',
  adultsOnly: 'age limit',
  countries: 'countries',
  paidPlacement: 'paid placement',
  comments: 'comments',
  ratings: 'ratings',
  embedding: 'embedding',
  tellSubscribers: 'telling the subscribers',
  broadcast: 'broadcast before',
  adverts: 'adverts',
  credits: 'credits',
  products: 'products',
};

/** What a site takes of the declarations, as data. */
export interface DeclarationRules {
  /** In the groups in which the site asks for them. */
  groups: readonly { name: string; fields: readonly DeclarationField[] }[];
  /** Where the site has categories, those that there are. */
  categories?: readonly { id: string; name: string }[];
  /** How many catalogue products a video has there. */
  products?: { fewest: number; most: number };
}

/** All fields that a site takes, in its order; none where it takes no declarations. */
export const fieldsTaken = (rules: DeclarationRules | undefined): DeclarationField[] =>
  (rules?.groups ?? []).flatMap(({ fields }) => fields);
