import { captions } from './captions';
import { chapters } from './chapters';
import { declaredPart } from './declared';
import { file } from './file';
import { moment } from './moment';
import type { Part } from './part';
import { picture } from './picture';
import { playlists } from './playlists';
import { privacy } from './privacy';
import { tags } from './tags';
import { text } from './text';
import { title } from './title';
import type { PartName } from './values';
import { video } from './video';

/** Every part, by its name, in the order in which they are told: who sees it comes before all else, then what it is in the order of the Sheet. */
export const PARTS: { [N in PartName]: Part<N> } = {
  privacy,
  video,
  file,
  chapters,
  title,
  text,
  tags,
  picture,
  moment,
  captions,
  about: declaredPart('about', 'about it'),
  audience: declaredPart('audience', 'for whom'),
  permissions: declaredPart('permissions', 'what may be done with it'),
  money: declaredPart('money', 'money'),
  telling: declaredPart('telling', 'telling people'),
  credits: declaredPart('credits', 'credits'),
  products: declaredPart('products', 'products'),
  playlists,
};

/** Names of all parts, in their order. */
export const partNames = (): PartName[] => Object.keys(PARTS) as PartName[];

export const isPartName = (name: string): name is PartName => Object.hasOwn(PARTS, name);
