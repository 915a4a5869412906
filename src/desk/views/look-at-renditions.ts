import type { CutMeasures } from '@/core/delivery';
import {
  type Expected,
  leftOutOf,
  type PlannedRendition,
  recipeWords,
  soundAroundWords,
  type Work,
  workOf,
} from '@/core/renditions';
import { database } from '@/store/database';
import { madeBefore, type Rendition, renditionsOf, settingsOf } from '@/store/files/renditions';
import { type JobProgress, jobsOf } from '@/store/queue/jobs';
import type { VideoRecord } from '../drop/record';
import type { TickedChannel } from '../layers/record-values';
import { expectedHere, isToBeFiled, planOfVideo } from '../rendition/plan-of-video';

/** A file that goes to some channels: as it will be, as it is being made, or as it was made. */
export interface RenditionView {
  /** Undefined while it is only planned, and for the file as it is. */
  id: string | undefined;
  work: Work;
  state: 'as it is' | 'planned' | 'waiting' | 'making' | 'on hold' | 'ready' | 'failed' | 'gone';
  /** What it is, in a line. */
  says: string;
  /** What of the cut is not in it. */
  leftOut: string[];
  channels: { name: string; why: string[] }[];
  expected: Expected | undefined;
  /** Bytes, once it is made. */
  size: number | undefined;
  /** How long it took to make. */
  seconds: number | undefined;
  /** How far around the parts that are silent, or have other sound, its sound is new; '' where there are none. */
  around: string;
  progress: JobProgress | undefined;
  trouble: string | undefined;
}

/** Every file that the cut in use goes out as, or went out as. */
export async function renditionViews(
  record: VideoRecord,
  goesTo: readonly TickedChannel[],
  measures: CutMeasures | undefined,
): Promise<RenditionView[]> {
  const { cut } = record;
  if (!cut?.facts) return [];
  const db = database();
  const [kept, before] = await Promise.all([renditionsOf(db, [cut.id]), madeBefore(db)]);
  const jobs = await jobsOf(
    db,
    'encode',
    kept.map(({ id }) => id),
  );
  const plan = planOfVideo(record, goesTo, measures, kept);
  const nameOf = new Map(goesTo.map(({ drop, channel }) => [drop.id, channel.name]));
  const slowest = (names: readonly string[]) => {
    const lines = goesTo
      .filter(({ channel }) => names.includes(channel.name))
      .flatMap((each) => each.channel.bytesPerSecond ?? []);
    return lines.length > 0 ? Math.min(...lines) : undefined;
  };
  const sent = goesTo.filter(({ drop }) => !isToBeFiled(drop) && drop.renditionId);
  const views = (plan?.renditions ?? []).map((planned) => {
    const settings = settingsOf(planned.recipe);
    const made = kept.find((each) => each.settings === settings);
    return view(planned, made, nameOf);
  });
  // What is at its site already stands with what it was sent as.
  for (const rendition of kept) {
    const there = sent.filter(({ drop }) => drop.renditionId === rendition.id);
    if (there.length === 0) continue;
    const channels = there.map(({ channel }) => ({ name: channel.name, why: [] }));
    const same = views.find(({ id }) => id === rendition.id);
    if (same) same.channels.push(...channels);
    else
      views.push({
        ...view({ recipe: rendition.recipe, work: workOf(rendition.recipe), for: [] }, rendition, nameOf),
        channels,
      });
  }
  return views
    .map((each) => ({
      ...each,
      expected:
        each.state === 'ready'
          ? undefined
          : expectedHere(each.recipe, record, before, slowest(each.channels.map(({ name }) => name))),
    }))
    .map(({ recipe: _, ...each }) => each);

  function view(
    { recipe, work, for: goes }: PlannedRendition,
    made: Rendition | undefined,
    names: ReadonlyMap<string, string>,
  ) {
    const job = made && jobs.get(made.id);
    const state = !recipe
      ? ('as it is' as const)
      : !made
        ? ('planned' as const)
        : made.state !== 'waiting'
          ? made.state
          : job?.held
            ? ('on hold' as const)
            : job?.progress?.fraction !== undefined
              ? ('making' as const)
              : job
                ? ('waiting' as const)
                : ('planned' as const);
    return {
      ...{
        id: made?.id,
        work,
        state,
        says: recipeWords(recipe),
        leftOut: cut?.facts ? leftOutOf(recipe, cut.facts) : [],
        recipe,
      },
      channels: goes.map(({ key, why }) => ({ name: names.get(key) ?? '', why })),
      size: made?.state === 'ready' ? made.size : undefined,
      seconds: made?.seconds,
      around: made?.state === 'ready' ? soundAroundWords(made.soundAround) : '',
      progress: job?.progress,
      trouble: made?.trouble ?? job?.trouble,
    };
  }
}
