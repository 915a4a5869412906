import type { CarriedState } from '@/core/drop';

/** What each step asks a site for, as the page of a drop says it. */
export const PURPOSES: Record<CarriedState, string> = {
  packing: 'take away what was there before',
  landing: 'bring the file and its words',
  settling: 'ask how far it is',
  clearing: 'ask what its checks say',
  proofing: 'set and read back what it shows',
  held: 'keep its opening time',
  opening: 'open it',
  closing: 'close it',
  removing: 'remove it',
};
