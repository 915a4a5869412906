import type { WorkingState } from '@/core/drop';
import { clear } from './clear';
import { close } from './close';
import { land } from './land';
import { open } from './open';
import { pack } from './pack';
import { proof } from './proof';
import { remove } from './remove';
import { settle } from './settle';
import type { Step } from './step';

/** The step that carries a drop on from each state that is the worker's. */
export const STEPS: Record<WorkingState, Step> = {
  packing: pack,
  landing: land,
  settling: settle,
  clearing: clear,
  proofing: proof,
  opening: open,
  closing: close,
  removing: remove,
};
