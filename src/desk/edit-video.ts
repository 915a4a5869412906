import { array, object, string } from 'yup';
import { PRIVACIES, type Privacy } from '@/core/delivery';
import { uniqueTags } from '@/core/words';
import { addChange, firstUndone, lastMade, markChange } from '@/store/changes';
import { type Database, database } from '@/store/database';
import { deleteDraft, makeDrop } from '@/store/drops';
import { announce } from '@/store/feed';
import { applyMarkerChange, type MarkerChange, markersOf } from '@/store/markers';
import { setVideo, type Video, videoById } from '@/store/videos';
import { DeskError, found } from './desk-error';
import { idShape } from './id-shape';

/** Bounds well above any site's, so that a text over a site's limit is kept and said, not lost. */
const editShape = object({
  title: string().max(1000, 'A title has at most 1,000 characters.'),
  description: string().max(100_000, 'A description has at most 100,000 characters.'),
  tags: array(string().max(500).defined()).max(500, 'A video has at most 500 tags.'),
  privacy: string().oneOf(PRIVACIES),
  chapterColours: array(string().max(40).defined()).max(40),
  pictureId: idShape().nullable(),
}).noUnknown();

const TYPED_FIELDS = ['title', 'description'];

/** A field of a video that can be changed and undone, with the shape of its value. */
interface ChangeValues {
  title: string;
  description: string;
  tags: string[];
  privacy: Privacy;
  chapterColours: string[];
  pictureId: string | null;
  markers: MarkerChange;
  channel: { id: string; ticked: boolean };
}

type ChangedField = keyof ChangeValues;

/** Sets fields of a video; each change is written down and can be undone. @throws ValidationError, DeskError */
export async function editVideo(id: string, input: unknown): Promise<void> {
  const given = await editShape.validate(input, { stripUnknown: false });
  await database().transaction(async (trx) => {
    const video = found(await videoById(trx, id, true), 'video');
    for (const field of Object.keys(given) as (keyof typeof given)[]) {
      const value = field === 'tags' ? uniqueTags(given.tags ?? []) : given[field];
      if (value === undefined) continue;
      const before = video[field as keyof Video] ?? null;
      await change(trx, id, field, before, value);
    }
    await announce(trx, 'video', id);
  });
}

/**
 * Puts markers and takes others away, as one change that can be undone.
 * @param colours the colours that are for viewers from now on, where that changes too
 */
export async function changeMarkers(id: string, made: MarkerChange, colours?: string[]): Promise<void> {
  await database().transaction(async (trx) => {
    const video = found(await videoById(trx, id, true), 'video');
    const touched = new Set([...made.remove, ...made.put.map((marker) => marker.id)]);
    const there = (await markersOf(trx, id)).filter((marker) => touched.has(marker.id));
    const known = new Set(there.map((marker) => marker.id));
    const back: MarkerChange = {
      put: there,
      remove: made.put.map((marker) => marker.id).filter((each) => !known.has(each)),
    };
    await change(trx, id, 'markers', back, made);
    if (colours) await change(trx, id, 'chapterColours', video.chapterColours, colours);
    await announce(trx, 'video', id);
  });
}

/** Ticks a channel for a video, or takes the tick back. @throws DeskError where it was sent there already */
export async function tickChannel(id: string, channelId: string, ticked: boolean): Promise<void> {
  await database().transaction(async (trx) => {
    found(await videoById(trx, id, true), 'video');
    const there = await trx('drops').where({ videoId: id, channelId }).first('state');
    if (ticked === (there !== undefined)) return;
    if (there && there.state !== 'draft') {
      throw new DeskError('not now', 'This video was sent there. Remove it from the site first.');
    }
    await change(trx, id, 'channel', { id: channelId, ticked: !ticked }, { id: channelId, ticked });
    await announce(trx, 'video', id);
  });
}

/** Takes the last change back. What was changed is returned, or undefined where there was nothing. */
export async function undo(id: string): Promise<string | undefined> {
  return step(id, lastMade, (entry) => entry.before, 'undone');
}

/** Makes the change again that was undone last. */
export async function redo(id: string): Promise<string | undefined> {
  return step(id, firstUndone, (entry) => entry.after, 'made');
}

async function step(
  id: string,
  find: typeof lastMade,
  value: (entry: { before: string; after: string }) => string,
  state: 'made' | 'undone',
): Promise<string | undefined> {
  return database().transaction(async (trx) => {
    found(await videoById(trx, id, true), 'video');
    const entry = await find(trx, id);
    if (!entry) return undefined;
    await apply(trx, id, entry.field as ChangedField, JSON.parse(value(entry)));
    await markChange(trx, entry.id, state);
    await announce(trx, 'video', id);
    return entry.field;
  });
}

async function change(trx: Database, id: string, field: ChangedField, before: unknown, after: unknown): Promise<void> {
  const [was, is] = [JSON.stringify(before), JSON.stringify(after)];
  if (was === is) return;
  await apply(trx, id, field, after);
  await addChange(trx, id, { field, before: was, after: is }, TYPED_FIELDS.includes(field));
}

async function apply(trx: Database, id: string, field: ChangedField, value: unknown): Promise<void> {
  if (field === 'markers') return applyMarkerChange(trx, id, value as MarkerChange);
  if (field === 'channel') {
    const { id: channelId, ticked } = value as ChangeValues['channel'];
    if (ticked) await makeDrop(trx, id, channelId);
    else await deleteDraft(trx, id, channelId);
    return;
  }
  const titleFrom = field === 'title' ? { titleFrom: 'person' as const } : {};
  await setVideo(trx, id, { [field]: value ?? undefined, ...titleFrom });
}
