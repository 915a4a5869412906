import { object } from 'yup';
import { type FileSet, READY_SETS } from '@/core/renditions';
import { type Database, database, transaction } from '@/store/database';
import { announce } from '@/store/feed';
import { newId } from '@/store/ids';
import { lockThing } from '@/store/queue/locks';
import { codecsOfHardware } from '@/store/queue/workers';
import { firstUndone, lastMade } from '@/store/record/changes';
import { allDefaults } from '@/store/record/defaults';
import { allFileSets } from '@/store/record/file-sets';
import { allSeries } from '@/store/record/series';
import { change, FILE_SETS_SUBJECT } from '../changes/changes';
import { DeskError, found } from '../desk-error';
import { trimmed } from '../text-shape';
import { checkUnchanged, partedOn } from '../video/made-on';
import { settingsShape } from './settings-shape';

const setShape = object({
  name: trimmed().max(60, 'A name has at most 60 characters.').required('Give the set a name.'),
  settings: settingsShape.required(),
}).noUnknown();

/** A set with where it is in use. */
export interface FileSetView extends FileSet {
  ready: boolean;
  usedBy: string[];
}

/** Every set, and whether a change of them can be taken back or made again. */
export interface FileSetsView {
  sets: FileSetView[];
  canUndo: boolean;
  canRedo: boolean;
  /** Codecs that graphics hardware encodes here: only these may be made by it. */
  hardware: string[];
}

/** Every set: the ready ones first. */
export async function lookAtFileSets(): Promise<FileSetsView> {
  const db = database();
  const own = await allFileSets(db);
  const all = [...READY_SETS.map((set) => ({ ...set, ready: true })), ...own.map((set) => ({ ...set, ready: false }))];
  const [uses, last, next, hardware] = await Promise.all([
    usesOf(db),
    lastMade(db, FILE_SETS_SUBJECT),
    firstUndone(db, FILE_SETS_SUBJECT),
    codecsOfHardware(db),
  ]);
  return {
    sets: all.map((set) => ({ ...set, usedBy: uses.get(set.id) ?? [] })),
    canUndo: last !== undefined,
    canRedo: next !== undefined,
    hardware,
  };
}

/** Where sets are in use, by their ids: series and channels by name, videos as a count. */
async function usesOf(db: Database): Promise<Map<string, string[]>> {
  const [defaults, series, channels] = await Promise.all([
    allDefaults(db),
    allSeries(db),
    db('channels').select('id', 'name') as Promise<{ id: string; name: string }[]>,
  ]);
  const names = new Map([...series, ...channels].map(({ id, name }) => [id, name]));
  const uses = new Map<string, string[]>();
  const add = (set: string, by: string) => uses.set(set, [...(uses.get(set) ?? []), by]);
  for (const [owner, { file }] of defaults) if (file?.way === 'set') add(file.set, names.get(owner) ?? owner);
  for (const table of ['videos', 'drops']) {
    const rows: { set: string; count: number }[] = await db(table)
      .where('own', 'like', '%"file":%')
      .select({ set: db.raw(`JSON_VALUE(??, '$.file.set')`, ['own']), count: db.raw('COUNT(*)') })
      .groupBy('set');
    for (const { set, count } of rows) if (set) add(set, count === 1 ? 'one video' : `${count} videos`);
  }
  return uses;
}

async function checkName(trx: Database, name: string, id?: string): Promise<void> {
  const sets = [...READY_SETS, ...(await allFileSets(trx))];
  const taken = sets.some((set) => set.id !== id && set.name.toLowerCase() === name.toLowerCase());
  if (taken) throw new DeskError('not taken', `There is a set called “${name}” already. Choose another name.`);
}

/** Makes a set; its id is returned. @throws ValidationError, DeskError where the name is taken */
export async function newFileSet(input: unknown): Promise<{ id: string }> {
  const { name, settings } = await setShape.validate(input, { stripUnknown: false });
  const id = newId();
  await transaction(async (trx) => {
    await lockThing(trx, FILE_SETS_SUBJECT);
    await checkName(trx, name);
    await change(trx, FILE_SETS_SUBJECT, 'fileSet', { id, set: null }, { id, set: { id, name, settings } });
    await announce(trx, 'layers', FILE_SETS_SUBJECT);
  });
  return { id };
}

/**
 * Changes a set; what is being sent keeps it as it was.
 * @param input the fields; and `on`, by field, what stood there where the change was made
 * @throws ChangedMeanwhile where such a field has another value now
 */
export async function editFileSet(id: string, input: unknown): Promise<void> {
  const { on, fields } = await partedOn(input);
  const edit = await setShape.partial().validate(fields, { stripUnknown: false });
  await transaction(async (trx) => {
    await lockThing(trx, FILE_SETS_SUBJECT);
    const set = found(await ownSet(trx, id), 'set');
    if (edit.name !== undefined) {
      checkUnchanged(on, 'name', set.name, edit.name);
      await checkName(trx, edit.name, id);
    }
    if (edit.settings !== undefined) checkUnchanged(on, 'settings', set.settings, edit.settings);
    const after = { ...set, ...Object.fromEntries(Object.entries(edit).filter(([, value]) => value !== undefined)) };
    await change(trx, FILE_SETS_SUBJECT, 'fileSet', { id, set }, { id, set: after });
    await announce(trx, 'layers', FILE_SETS_SUBJECT);
  });
}

async function ownSet(trx: Database, id: string) {
  const set = (await allFileSets(trx)).find((each) => each.id === id);
  return set && { id: set.id, name: set.name, settings: set.settings };
}

/** Takes a set away. @throws DeskError where it is in use */
export async function removeFileSet(id: string): Promise<void> {
  await transaction(async (trx) => {
    await lockThing(trx, FILE_SETS_SUBJECT);
    const set = found(await ownSet(trx, id), 'set');
    const uses = (await usesOf(trx)).get(id) ?? [];
    if (uses.length > 0) {
      throw new DeskError('not now', `“${set.name}” is used by ${uses.join(', ')}. Choose another set there first.`);
    }
    await change(trx, FILE_SETS_SUBJECT, 'fileSet', { id, set }, { id, set: null });
    await announce(trx, 'layers', FILE_SETS_SUBJECT);
  });
}
