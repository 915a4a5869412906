import type { DeclarationField } from '../../declarations';
import type { PartName } from '../values';

export type DeclaredPart = Extract<
  PartName,
  'about' | 'audience' | 'permissions' | 'money' | 'telling' | 'credits' | 'products'
>;

/** The group of each declaration: one part each. */
export const GROUP_OF: Record<DeclarationField, DeclaredPart> = {
  category: 'about',
  language: 'about',
  recordedOn: 'about',
  place: 'about',
  broadcast: 'about',
  forChildren: 'audience',
  adultsOnly: 'audience',
  countries: 'audience',
  licence: 'permissions',
  embedding: 'permissions',
  comments: 'permissions',
  ratings: 'permissions',
  adverts: 'money',
  paidPlacement: 'money',
  tellSubscribers: 'telling',
  credits: 'credits',
  products: 'products',
};

/** The declarations of a group, in the order in which they are declared. */
export const fieldsOf = (part: DeclaredPart): DeclarationField[] =>
  (Object.keys(GROUP_OF) as DeclarationField[]).filter((field) => GROUP_OF[field] === part);
