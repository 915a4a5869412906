import type { ChapterChoice, TimeLine } from '@/core/chapters';
import { type DefaultField, FIELD_NAMES, isDefaultField, type LayerValues, withValues } from '@/core/defaults';
import { siteIds } from '@/sites/registry';
import { type Database, database, transaction } from '@/store/database';
import { deleteDraft, dropsOf, makeDrop, setDropOn } from '@/store/drop/drops';
import { lookAtHeldAgain } from '@/store/drop/held';
import type { Drop, OwnOnChannel } from '@/store/drop/shape';
import { announce } from '@/store/feed';
import { askForJobsAnew } from '@/store/queue/jobs';
import { lockThing } from '@/store/queue/locks';
import { chooseCaptions } from '@/store/record/captions';
import {
  addChange,
  type Change,
  changedAfter,
  changeMadeIn,
  firstUndone,
  lastMade,
  markChange,
} from '@/store/record/changes';
import { cutById } from '@/store/record/cuts';
import {
  allDefaults,
  defaultsOf,
  deleteDefaults,
  type KeptLayer,
  type LayerKey,
  setDefaults,
} from '@/store/record/defaults';
import { deleteFileSet, type OwnFileSet, putFileSet } from '@/store/record/file-sets';
import { applyMarkerChange, type MarkerChange } from '@/store/record/markers';
import { deleteSeries, makeSeries, type Series, seriesById, setSeries } from '@/store/record/series';
import { deleteShelfLink, putShelfLink, type ShelfLink } from '@/store/record/shelf';
import { setVideo, type Video, videoById, videosOfSeries } from '@/store/record/videos';
import { channelById } from '@/store/site/channels';
import { DeskError } from '../desk-error';
import { windowNow } from '../window';
import { goesOn } from './one-thought';
import { keepToRelease } from './opening-fields';
import { reachOf } from './reach';

/** What a person changes on one thing: a video by its id, a layer by its owner, the link shelf. */
export type Subject = string;
export const SHELF_SUBJECT: Subject = 'shelf';
export const SERIES_SUBJECT: Subject = 'series';
export const FILE_SETS_SUBJECT: Subject = 'file-sets';
const PLACES: readonly Subject[] = [SHELF_SUBJECT, SERIES_SUBJECT, FILE_SETS_SUBJECT];

/** Whether there is such a thing beside videos. */
async function isKept(trx: Database, subject: Subject): Promise<boolean> {
  if (PLACES.includes(subject) || siteIds().includes(subject)) return true;
  return Boolean((await channelById(trx, subject)) ?? (await seriesById(trx, subject)));
}

/** A field that can be changed and undone beside those of the layers, with the shape of its value. */
interface ChangeValues {
  titled: Pick<Video, 'title' | 'titleFrom'>;
  /** The file in use. */
  cut: { cutId: string };
  meantBlanks: string[];
  wavedThrough: Video['wavedThrough'];
  summary: string;
  episode: string;
  series: Pick<Video, 'seriesId' | 'seriesFrom'>;
  chapterChoice: ChapterChoice | null;
  timeLine: TimeLine;
  captions: string[];
  pictureId: string | null;
  markers: MarkerChange;
  /** What was set for the channel goes with its tick, and comes back with it. */
  channel: { id: string; ticked: boolean; set?: Pick<Drop, 'own' | 'chosenPlaylists'> };
  /** What is set for one channel alone. */
  onChannel: { id: string; own: OwnOnChannel };
  onPlaylists: { id: string; chosenPlaylists: string[] | null };
  /** One field of a layer. */
  default: LayerKey & { field: DefaultField; value: unknown };
  /** A series with its name and pattern. */
  seriesWords: Pick<Series, 'id' | 'name' | 'pattern'>;
  /** A series with everything that it has, there or gone; `videos` are those that it had. */
  seriesThere: Pick<Series, 'id' | 'name' | 'pattern'> & { there: boolean; values: LayerValues; videos: string[] };
  shelfLink: { name: string; link: ShelfLink | null };
  fileSet: { id: string; set: OwnFileSet | null };
  remedies: Video['remedies'] | null;
  framings: Video['framings'];
  /** Several fields that change together, and are undone together. */
  several: FieldValue[];
}

/** A field with a value that it has before or after a change. */
export interface FieldValue {
  field: ChangedField;
  value: unknown;
}

export type ChangedField = keyof ChangeValues | DefaultField;

const TYPED_FIELDS: readonly string[] = [
  ...['titled', 'summary', 'episode', 'place', 'language', 'credits', 'template', 'titlePattern', 'onChannel'],
  ...['default', 'seriesWords', 'shelfLink', 'fileSet'],
];

/**
 * Makes a change and writes it down, so that it can be taken back. Whether anything changed is returned.
 * @param subject the video, or the place, whose undo takes it back
 * @param before the value of the field now
 * @param after the value that it gets
 */
export async function change(
  trx: Database,
  subject: Subject,
  field: ChangedField,
  before: unknown,
  after: unknown,
): Promise<boolean> {
  const [was, is] = [JSON.stringify(before ?? null), JSON.stringify(after ?? null)];
  if (was === is) return false;
  await apply(trx, subject, field, after);
  const made = { field, before: was, after: is, madeIn: windowNow() };
  await addChange(trx, subject, made, (last) => TYPED_FIELDS.includes(field) && goesOn(last, made));
  return true;
}

/** What a step back or forth came to. */
export interface Stepped {
  field: string;
  /** What could not be put back, and why. */
  kept: string[];
}

/** Takes the last change of a thing back. What was changed is returned, or undefined where there was nothing. */
export async function undo(subject: Subject): Promise<Stepped | undefined> {
  return step(subject, lastMade, 'undone');
}

/** Makes the change again that was undone last. */
export async function redo(subject: Subject): Promise<Stepped | undefined> {
  return step(subject, firstUndone, 'made');
}

/**
 * Takes a change of a video back that was made in a window, as far as nobody has changed the same since. Whether it is taken back
 * is returned, also where that was done before.
 */
export async function undoMadeIn(videoId: string, window: string): Promise<boolean> {
  const made = async (trx: Database) => {
    const change = await changeMadeIn(trx, videoId, window);
    return change?.state === 'made' ? change : undefined;
  };
  // Where it stays, it is still to be undone after what was changed since.
  const stepped = await step(videoId, made, 'undone', 'made');
  if (stepped) return stepped.kept.length === 0;
  return (await changeMadeIn(database(), videoId, window))?.state === 'undone';
}

/** What a change is about: two that are about the same would undo each other. */
function aboutWhat(field: string, value: unknown): string {
  const { id, name, layer, owner, field: inner } = (value ?? {}) as Record<string, unknown>;
  return JSON.stringify([field, id ?? name, layer, owner, inner]);
}

const aboutAll = (change: Change): string[] =>
  stepsIn(change, 'made').map(({ field, from, to }) => aboutWhat(field, to ?? from));

const CHANGED_SINCE = 'It stays as it is now: it was changed since.';

/** @param whereKept how the change stands then where nothing came of it: it can be neither undone nor made again, or stays */
async function step(
  subject: Subject,
  find: (trx: Database, subject: Subject) => Promise<Change | undefined>,
  state: 'made' | 'undone',
  whereKept: 'dropped' | 'made' = 'dropped',
): Promise<Stepped | undefined> {
  return transaction(async (trx) => {
    // Whoever undoes a change waits for others who change the same thing.
    const video = await videoById(trx, subject, true);
    if (!video) await lockThing(trx, subject);
    if (!video && !(await isKept(trx, subject))) throw new DeskError('not found', 'There is nothing like that here.');
    const entry = await find(trx, subject);
    if (!entry) return undefined;
    if (state === 'undone' && entry.field === 'seriesThere') await mayUnmake(trx, JSON.parse(entry.before));
    const steps = stepsIn(entry, state);
    const kept: string[] = [];
    // What somebody else has done since is theirs, and is not undone along with it.
    const since = state === 'undone' ? (await changedAfter(trx, subject, entry.id)).flatMap(aboutAll) : [];
    const again = async () => {
      for (const { field, from, to } of steps) {
        const isChanged = since.includes(aboutWhat(field, to ?? from));
        const why = isChanged ? CHANGED_SINCE : await reasonToKeep(trx, subject, field, from, to);
        if (why) kept.push(why);
        else await apply(trx, subject, field, to);
      }
    };
    // What changes layers reaches other videos, too.
    if (video && entry.field !== 'several') await again();
    else await reachOf(trx, again);
    await markChange(trx, entry.id, kept.length === steps.length ? whereKept : state);
    await announce(trx, video ? 'video' : 'layers', subject.slice(0, 36));
    return { field: entry.field, kept };
  });
}

/** The fields that a step sets, each from one value to another. */
function stepsIn(
  { field, before, after }: Change,
  state: 'made' | 'undone',
): { field: ChangedField; from: unknown; to: unknown }[] {
  const [from, to] = (state === 'undone' ? [after, before] : [before, after]).map((text) => JSON.parse(text));
  if (field !== 'several') return [{ field: field as ChangedField, from, to }];
  return (to as FieldValue[]).map(({ field: each, value }, index) => {
    return { field: each, from: (from as FieldValue[])[index]?.value, to: value };
  });
}

/** Why a value is not put back over what is there now: somebody has changed it on another way, or it has been sent. */
async function reasonToKeep(
  trx: Database,
  subject: Subject,
  field: ChangedField,
  from: unknown,
  to: unknown,
): Promise<string | undefined> {
  if (field === 'default') {
    const [was, next] = [from, to] as ChangeValues['default'][];
    if (!was || !next) return undefined;
    const { layer, owner, field: name } = next;
    if (owner !== subject) await lockThing(trx, owner);
    const now = (await defaultsOf(trx, { layer, owner }, true))[name] ?? null;
    if (JSON.stringify(now) === JSON.stringify(was.value ?? null)) return undefined;
    return `The ${FIELD_NAMES[name]} of the ${layer} stay as they are: they were changed there since.`;
  }
  if (field === 'channel') {
    const { id, ticked } = to as ChangeValues['channel'];
    if (ticked) return undefined;
    const drop = (await dropsOf(trx, [subject])).find(({ channelId }) => channelId === id);
    if (!drop || drop.state === 'draft') return undefined;
    const name = (await channelById(trx, id))?.name ?? 'the channel';
    return `The tick for ${name} stays: the video was sent there. Remove it from the site first.`;
  }
  if (field === 'cut') {
    const { cutId } = to as ChangeValues['cut'];
    if ((await cutById(trx, cutId))?.state === 'ready') return undefined;
    return 'The file stays: the other one is no longer here.';
  }
  return undefined;
}

/** Making a series is undone only while nothing hangs on it; deleting it can be undone with everything that it had. */
async function mayUnmake(trx: Database, before: ChangeValues['seriesThere']): Promise<void> {
  if (before.there) return;
  const [changed, videos] = [await lastMade(trx, before.id), await videosOfSeries(trx, before.id)];
  if (!changed && videos.length === 0) return;
  throw new DeskError('not now', `The series “${before.name}” is in use since; delete it on its page instead.`);
}

/** Whether some layer has the title drawn over pictures, so that another title wants another picture. */
async function drawsTitles(trx: Database, videoId: string): Promise<boolean> {
  const own = (await videoById(trx, videoId))?.own ?? {};
  return [own, ...(await allDefaults(trx)).values()].some(({ picture }) => picture?.way === 'layout');
}

type Appliers = { [F in keyof ChangeValues]: (trx: Database, id: Subject, value: ChangeValues[F]) => Promise<void> };

const APPLIERS: Appliers = {
  async titled(trx, id, { title, titleFrom }) {
    await setVideo(trx, id, { title, titleFrom });
    if (await drawsTitles(trx, id)) await askForJobsAnew(trx, 'picture', [id]);
  },
  summary: (trx, id, summary) => setVideo(trx, id, { summary }),
  episode: (trx, id, episode) => setVideo(trx, id, { episode }),
  async series(trx, id, { seriesId, seriesFrom }) {
    await setVideo(trx, id, { seriesId, seriesFrom });
    await askForJobsAnew(trx, 'picture', [id]);
  },
  async cut(trx, id, { cutId }) {
    await setVideo(trx, id, { cutId });
    await lookAtHeldAgain(trx, id);
    await askForJobsAnew(trx, 'plan early', [id]);
    await askForJobsAnew(trx, 'picture', [id]);
  },
  meantBlanks: (trx, id, meantBlanks) => setVideo(trx, id, { meantBlanks }),
  wavedThrough: (trx, id, wavedThrough) => setVideo(trx, id, { wavedThrough }),
  chapterChoice: (trx, id, chapterChoice) => setVideo(trx, id, { chapterChoice: chapterChoice ?? undefined }),
  timeLine: (trx, id, timeLine) => setVideo(trx, id, { timeLine }),
  captions: chooseCaptions,
  pictureId: (trx, id, pictureId) => setVideo(trx, id, { pictureId: pictureId ?? undefined }),
  markers: applyMarkerChange,
  async channel(trx, id, { id: channelId, ticked, set }) {
    if (ticked) {
      // First of all: what is looked for and not found locks the gap in which others are making theirs.
      await makeDrop(trx, id, channelId);
      if (set) await setDropOn(trx, id, channelId, set);
      await askForJobsAnew(trx, 'plan early', [id]);
    } else {
      await deleteDraft(trx, id, channelId);
    }
    // Those that open together wait for one channel more, or one less.
    await lookAtHeldAgain(trx, id);
  },
  async onChannel(trx, id, { id: channelId, own }) {
    const before = (await dropsOf(trx, [id])).find((drop) => drop.channelId === channelId)?.own ?? {};
    await setDropOn(trx, id, channelId, { own });
    await keepToRelease(trx, id, before, own, channelId);
  },
  onPlaylists: (trx, id, { id: channelId, chosenPlaylists }) =>
    setDropOn(trx, id, channelId, { chosenPlaylists: chosenPlaylists ?? undefined }),
  async default(trx, _id, { layer, owner, field, value }) {
    const key = { layer, owner };
    await setDefaults(trx, key, withValues(await defaultsOf(trx, key, true), { [field]: value ?? undefined }));
    await announce(trx, 'layers', owner);
  },
  seriesWords: (trx, _id, { id, name, pattern }) => setSeries(trx, id, { name, pattern }),
  async seriesThere(trx, _id, { id, name, pattern, there, values, videos }) {
    const key = { layer: 'series' as KeptLayer, owner: id };
    if (!there) {
      await deleteDefaults(trx, key);
      await deleteSeries(trx, id);
      return;
    }
    await makeSeries(trx, { name, pattern }, id);
    await setDefaults(trx, key, values);
    for (const video of videos) await setVideo(trx, video, { seriesId: id });
  },
  shelfLink: (trx, _id, { name, link }) => (link ? putShelfLink(trx, link) : deleteShelfLink(trx, name)),
  fileSet: (trx, _id, { id, set }) => (set ? putFileSet(trx, set) : deleteFileSet(trx, id)),
  remedies: (trx, id, remedies) => setVideo(trx, id, { remedies: remedies ?? undefined }),
  framings: (trx, id, framings) => setVideo(trx, id, { framings }),
  async several(trx, id, values) {
    for (const { field, value } of values) await apply(trx, id, field, value);
  },
};

async function apply(trx: Database, subject: Subject, field: ChangedField, value: unknown): Promise<void> {
  if (!isDefaultField(field)) return (APPLIERS[field] as Appliers['summary'])(trx, subject, value as string);
  const video = await videoById(trx, subject, true);
  if (!video) return;
  const own = withValues(video.own, { [field]: value ?? undefined });
  await setVideo(trx, subject, { own });
  await keepToRelease(trx, subject, video.own, own);
  if (field === 'picture') await askForJobsAnew(trx, 'picture', [subject]);
}
