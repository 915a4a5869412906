import { object, string } from 'yup';
import { type LayerValues, patternFinding } from '@/core/defaults';
import { withCutNames } from '@/core/words';
import { type Database, database, transaction } from '@/store/database';
import { announce } from '@/store/feed';
import { newId } from '@/store/ids';
import { lockThing } from '@/store/queue/locks';
import { defaultsOf, setDefaults } from '@/store/record/defaults';
import { allSeries, type Series, seriesById } from '@/store/record/series';
import { videosOfSeries } from '@/store/record/videos';
import { change, SERIES_SUBJECT } from '../changes/changes';
import { type Reached, reachOf } from '../changes/reach';
import { DeskError, found } from '../desk-error';
import { trimmed } from '../text-shape';
import { checkUnchanged, partedOn } from '../video/made-on';
import { checkedFields } from './defaults';

const wordsShape = object({
  name: trimmed().min(1, 'Give the series a name.').max(200, 'A name has at most 200 characters.'),
  pattern: trimmed()
    .max(300, 'A pattern has at most 300 characters.')
    .test(
      'pattern',
      ({ value }) => `${patternFinding(String(value)) ?? ''}.`,
      (pattern) => !pattern || patternFinding(pattern) === undefined,
    ),
}).noUnknown();

async function nameIsFree(trx: Database, name: string, but?: string): Promise<void> {
  const other = (await allSeries(trx)).find((series) => series.name.toLowerCase() === name.toLowerCase());
  if (other && other.id !== but) throw new DeskError('not taken', `There is a series called “${other.name}” already.`);
}

/** Makes a series with its defaults; its id is returned. Making can be undone on Series. */
async function putSeries(
  trx: Database,
  words: { name: string; pattern: string },
  values: LayerValues,
): Promise<string> {
  await nameIsFree(trx, words.name);
  const id = newId();
  const series = { id, ...words, values, videos: [] };
  await change(trx, SERIES_SUBJECT, 'seriesThere', { ...series, there: false }, { ...series, there: true });
  await announce(trx, 'layers', id);
  return id;
}

/** Makes an empty series. @throws DeskError where there is one of that name */
export async function newSeries(input: unknown): Promise<string> {
  const { name, pattern = '' } = await wordsShape.validate(input, { stripUnknown: false });
  if (!name) throw new DeskError('not taken', 'Give the series a name.');
  return transaction(async (trx) => {
    await lockThing(trx, SERIES_SUBJECT);
    return putSeries(trx, { name, pattern }, {});
  });
}

/**
 * Sets a series' name, or the pattern of its files' names.
 * @param input the fields; and `on`, by field, what stood there where the change was made
 * @throws ChangedMeanwhile where such a field has another value now
 */
export async function editSeries(id: string, input: unknown): Promise<Reached[]> {
  const { on, fields } = await partedOn(input);
  const words = await wordsShape.validate(fields, { stripUnknown: false });
  return transaction(async (trx) => {
    await lockThing(trx, SERIES_SUBJECT);
    await lockThing(trx, id);
    const { name, pattern } = found(await seriesById(trx, id), 'series');
    if (words.name !== undefined) checkUnchanged(on, 'name', name, words.name);
    if (words.pattern !== undefined) checkUnchanged(on, 'pattern', pattern, words.pattern);
    if (words.name) await nameIsFree(trx, words.name, id);
    const after = { id, name: words.name ?? name, pattern: words.pattern ?? pattern };
    return reachOf(trx, async () => {
      await change(trx, id, 'seriesWords', { id, name, pattern }, after);
      await announce(trx, 'layers', id);
    });
  });
}

/** Makes a series with the defaults of another and no pattern, so that no file fits both; its id is returned. */
export async function duplicateSeries(id: string): Promise<string> {
  return transaction(async (trx) => {
    await lockThing(trx, SERIES_SUBJECT);
    const { name } = found(await seriesById(trx, id), 'series');
    const taken = new Set((await allSeries(trx)).map((series) => series.name));
    let copy = `${name}, copy`;
    for (let n = 2; taken.has(copy); n += 1) copy = `${name}, copy ${n}`;
    return putSeries(trx, { name: copy, pattern: '' }, await defaultsOf(trx, { layer: 'series', owner: id }));
  });
}

/** Deletes a series; its videos stay, without its defaults. What was sent keeps what it was sent with. */
export async function removeSeries(id: string): Promise<Reached[]> {
  return transaction(async (trx) => {
    await lockThing(trx, SERIES_SUBJECT);
    await lockThing(trx, id);
    const { name, pattern } = found(await seriesById(trx, id), 'series');
    const values = await defaultsOf(trx, { layer: 'series', owner: id });
    const series = { id, name, pattern, values, videos: await videosOfSeries(trx, id) };
    return reachOf(trx, async () => {
      await change(trx, SERIES_SUBJECT, 'seriesThere', { ...series, there: true }, { ...series, there: false });
      await announce(trx, 'layers', id);
    });
  });
}

/** What an exported series says that it is. */
const EXPORT_KIND = 'kettle-drop series';

/** A series as a JSON file holds it. Channels are ids of this installation, and stay here. */
export async function exportSeries(id: string): Promise<{ series: Series; file: object }> {
  const db = database();
  const series = found(await seriesById(db, id), 'series');
  const { channels: _, ...defaults } = await defaultsOf(db, { layer: 'series', owner: id });
  const { name, pattern } = series;
  return { series, file: { kind: EXPORT_KIND, version: 1, name, pattern, defaults } };
}

const importShape = object({
  kind: string()
    .oneOf([EXPORT_KIND], 'This file is no series: its “kind” is not “kettle-drop series”.')
    .required('This file is no series: it has no “kind”.'),
  name: string().required('The series in this file has no name.'),
  pattern: string().default(''),
  defaults: object().default({}),
});

/** Templates of a file that was exported when their sections had other names. */
function withNamesOfToday({ template, titlePattern, ...values }: LayerValues): LayerValues {
  return {
    ...values,
    ...(template !== undefined && { template: withCutNames(template) }),
    ...(titlePattern !== undefined && { titlePattern: withCutNames(titlePattern) }),
  };
}

/** Makes a series of an exported file; one whose name there is gets another. Its id is returned. */
export async function importSeries(input: unknown): Promise<string> {
  const file = await importShape.validate(input);
  const { name = '', pattern = '' } = await wordsShape.validate({ name: file.name, pattern: file.pattern });
  const values = withNamesOfToday((await checkedFields(file.defaults)) as LayerValues);
  return transaction(async (trx) => {
    await lockThing(trx, SERIES_SUBJECT);
    const taken = new Set((await allSeries(trx)).map((series) => series.name.toLowerCase()));
    let free = name;
    for (let n = 2; taken.has(free.toLowerCase()); n += 1) free = `${name} ${n}`;
    const id = await putSeries(trx, { name: free, pattern }, {});
    await setDefaults(trx, { layer: 'series', owner: id }, values);
    return id;
  });
}
