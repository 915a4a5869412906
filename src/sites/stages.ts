import { number, object, string } from 'yup';
import { fraction, viewerTime } from '@/core/time';
import { SiteError, type SiteState } from './contract';

/** The stages of processing that several sites tell by these words. */
const STAGES = ['receiving', 'queued', 'first', 'full', 'ready', 'failed'] as const;
type Stage = (typeof STAGES)[number];

export const stageShape = () => string().oneOf(STAGES).required();

/** Something of a video that is ready, as several sites tell it. */
export const versionShape = object({
  of: string()
    .oneOf(['picture', 'thumbnail'] as const)
    .required(),
  lines: number().integer().min(1),
  readyAt: string().datetime().required(),
});

/**
 * How far a site is, by its stage.
 * @param name the site's, for where it gives no reason
 * @param says what it is doing, by stage or for all of them
 * @param playsIn stages in which a version can be watched already
 */
export function stateOfStage(
  told: { stage: Stage; progress: number; reason: string | null | undefined },
  name: string,
  says: string | Partial<Record<Stage, string>>,
  playsIn: readonly Stage[] = [],
): SiteState {
  const { stage, progress, reason } = told;
  if (stage === 'receiving' || stage === 'ready') return { stage };
  if (stage === 'failed') return { stage, reason: reason ?? `${name} does not say why` };
  const fraction = stage === 'queued' ? undefined : progress;
  const plays = playsIn.includes(stage) ? { plays: true } : {};
  return {
    ...{ stage: 'processing', says: typeof says === 'string' ? says : (says[stage] ?? 'being prepared') },
    ...{ fraction, ...plays },
  };
}

/** A chapter that a site shows, as viewers read it. @param seconds its start; `length` the video's, where it is known */
export function shownChapter(seconds: number, title: string, length: number | undefined) {
  return { stamp: viewerTime(fraction(Math.floor(seconds)), length ?? seconds), title };
}

/** Waits for something to be removed; what is gone already is as well. */
export async function evenIfGone(removed: Promise<unknown>): Promise<void> {
  await removed.catch((error) => {
    if (!(error instanceof SiteError) || error.kind !== 'missing') throw error;
  });
}
