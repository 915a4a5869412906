import type { DropState, Stop } from './life';

/** Where a drop stands, for people; while it moves, before what is said of how far it is. */
export const STATE_WORDS: Record<Exclude<DropState, 'snag'>, string> = {
  draft: 'Not sent yet',
  packing: 'Preparing',
  landing: 'Uploading',
  settling: 'The site is processing',
  clearing: 'The site is checking',
  proofing: 'Checking what it shows',
  held: 'Ready to open',
  opening: 'Opening',
  closing: 'Closing',
  live: 'Live',
  removing: 'Being removed',
  removed: 'Removed from the site',
};

/** What a drop has behind it at each stop, for people. */
export const STOP_WORDS: Record<Stop, string> = {
  packed: 'Ready to upload',
  landed: 'Uploaded',
  settled: 'Processed',
  cleared: 'Passed by the site',
  proofed: 'Checked',
  live: 'Live',
};
