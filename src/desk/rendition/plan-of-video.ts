import os from 'node:os';
import type { CutMeasures } from '@/core/delivery';
import {
  type Destination,
  type Expected,
  expectedOf,
  type MadeBefore,
  type Plan,
  planRenditions,
  type Recipe,
  recipeText,
} from '@/core/renditions';
import type { Drop } from '@/store/drop/shape';
import type { Rendition } from '@/store/files/renditions';
import type { VideoRecord } from '../drop/record';
import { fileSetAt, framingsAt, remediesAt } from '../layers/layers';
import type { TickedChannel } from '../layers/record-values';

/** States of drops whose file is not chosen yet. */
const OPEN: readonly Drop['state'][] = ['draft', 'packing', 'removed'];

/** Whether the file of a drop is still to be chosen, or made. */
export const isToBeFiled = ({ state, snag }: Pick<Drop, 'state' | 'snag'>): boolean =>
  OPEN.includes(state) || (state === 'snag' && snag?.at === 'packing');

/** What one channel asks of the file. */
export function destinationAt(record: VideoRecord, { channel, drop, profile }: TickedChannel): Destination {
  const { layers, video, cut } = record;
  const { name, file } = profile;
  return {
    key: drop.id,
    site: { name, file },
    set: fileSetAt(layers, video, channel, drop),
    remedies: remediesAt(video, drop, cut?.id),
    framings: framingsAt(video, drop),
  };
}

/**
 * Which files a video goes out as, to the channels whose file is not chosen yet.
 * @param made files that are there, or are being made, of its cut
 * @returns undefined until the cut has been read
 */
export function planOfVideo(
  record: VideoRecord,
  goesTo: readonly TickedChannel[],
  measures: CutMeasures | undefined,
  made: readonly Rendition[],
): Plan | undefined {
  const facts = record.cut?.facts;
  if (!facts) return undefined;
  const texts = made.flatMap(({ recipe, state }) =>
    recipe && (state === 'ready' || state === 'waiting') ? [recipeText(recipe)] : [],
  );
  const open = goesTo.filter(({ drop }) => isToBeFiled(drop));
  return planRenditions(
    { facts, measures },
    open.map((each) => destinationAt(record, each)),
    new Set(texts),
  );
}

/** What to expect of a file on this machine. @param bytesPerSecond of the line, where it is known */
export function expectedHere(
  recipe: Recipe | undefined,
  { cut }: VideoRecord,
  before: readonly MadeBefore[],
  bytesPerSecond?: number,
): Expected | undefined {
  return cut?.facts && expectedOf(recipe, cut.facts, { before, cores: os.availableParallelism(), bytesPerSecond });
}
