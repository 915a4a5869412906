import type { CarriedState } from '@/core/drop';
import { clear } from './clear';
import { close } from './close';
import { hold } from './hold';
import { land } from './land';
import { open } from './open';
import { pack } from './pack';
import { proof } from './proof';
import { remove } from './remove';
import { settle } from './settle';
import type { Step } from './step';

/** The step that carries a drop on from each state in which the worker looks after it. */
export const STEPS: Record<CarriedState, Step> = {
  packing: pack,
  landing: land,
  settling: settle,
  clearing: clear,
  proofing: proof,
  held: hold,
  opening: open,
  closing: close,
  removing: remove,
};
