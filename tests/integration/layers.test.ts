import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { LayerValues } from '@/core/defaults';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { redo, undo } from '@/desk/changes/changes';
import { editDefaults } from '@/desk/defaults/defaults';
import { moveUp } from '@/desk/defaults/move-up';
import {
  duplicateSeries,
  editSeries,
  exportSeries,
  importSeries,
  newSeries,
  removeSeries,
} from '@/desk/defaults/series';
import { editShelfLink, newShelfLink, removeShelfLink } from '@/desk/defaults/shelf';
import { sendVideo } from '@/desk/drop/send';
import { askOfMany } from '@/desk/many/ask-many';
import { editOnChannel, editVideo, tickChannel } from '@/desk/video/edit-video';
import { dropPicture, openPicture, takeFrameAsPicture } from '@/desk/video/pictures';
import { tagOffers } from '@/desk/video/suggest-tags';
import { lookAtLayer, lookAtLinks, lookAtSeriesList } from '@/desk/views/look-at-layers';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import type { SheetChannel, SheetView } from '@/desk/views/views';
import { database } from '@/store/database';
import { newId } from '@/store/ids';
import { makeClip } from '../setup/clips';
import {
  announcedCut,
  bringFile,
  channelsOfTheYard,
  untilGiven,
  untilSheet,
  untilState,
  videosAt,
} from '../setup/desk';
import { aWorker } from '../setup/worker';

aWorker();
let series: string;
let ids: Map<string, string>;
const idOf = (name: string) => ids.get(name) ?? '';
const clip = makeClip({ name: 'layers.mp4', seconds: 5 });

beforeAll(async () => {
  ids = await channelsOfTheYard();
  series = await newSeries({ name: 'Bilge Talk', pattern: 'bilge-talk_{episode}_{title}' });
});
afterAll(async () => {
  // Other tests' files are to be in no series.
  for (const { id } of (await lookAtSeriesList()).series) await removeSeries(id);
});

const ofSeries = (values: Record<string, unknown>) => editDefaults({ layer: 'series', owner: series }, values);
const ofChannel = (name: string, values: Record<string, unknown>) =>
  editDefaults({ layer: 'channel', owner: idOf(name) }, values);
const cleared = (values: LayerValues) => Object.fromEntries(Object.keys(values).map((field) => [field, null]));

/** A video of the series that no worker has to read. */
async function onDesk(fileName: string, ...channels: string[]): Promise<string> {
  const cut = await announcedCut({ fileName, size: 1000 });
  for (const name of channels) await tickChannel(cut.videoId, idOf(name), true);
  return cut.videoId;
}

async function channelOf(videoId: string, name: string): Promise<SheetChannel> {
  const found = (await lookAtSheet(videoId)).channels.find(({ id }) => id === idOf(name));
  if (!found) throw new Error(`There is no channel ${name}`);
  return found;
}

const layersOf = async (videoId: string, name: string, field: keyof SheetChannel['values']) =>
  (await channelOf(videoId, name)).values[field].from.map(({ layer }) => layer);

describe('a series', () => {
  it('is recognised by the file’s name, with title, episode and ticks; what no pattern fits is in none and goes nowhere', async () => {
    await ofSeries({ channels: [idOf('Tide Notes'), newId()] });
    const known = await lookAtSheet(await onDesk('bilge-talk_07_the-pump_FINAL-v2.mp4'));
    expect(known).toMatchObject({ title: 'The pump', episode: '7', series: { name: 'Bilge Talk', from: 'file' } });
    expect(known.channels.filter(({ ticked }) => ticked).map(({ name }) => name)).toEqual(['Tide Notes']);
    const other = await lookAtSheet(await onDesk('something-else.mp4'));
    expect(other).toMatchObject({ title: 'Something else', series: undefined });
    expect(other.channels.some(({ ticked }) => ticked)).toBe(false);
    // The one used last is an offer to press.
    expect(other.seriesOffer).toEqual({ id: series, name: 'Bilge Talk' });
    await editVideo(other.id, { seriesId: series });
    expect((await channelOf(other.id, 'Tide Notes')).ticked).toBe(true);
    await undo(other.id);
    expect((await channelOf(other.id, 'Tide Notes')).ticked).toBe(false);
    await editVideo(other.id, { seriesId: series });
    await editVideo(other.id, { seriesId: null });
    expect(await lookAtSheet(other.id)).toMatchObject({ series: undefined });
    expect((await channelOf(other.id, 'Tide Notes')).ticked).toBe(false);
    await editVideo(known.id, { seriesId: null });
    await editVideo(known.id, { episode: '' });
    await editVideo(known.id, { seriesId: series });
    expect(await lookAtSheet(known.id)).toMatchObject({ episode: '7', series: { from: 'person' } });
    await ofSeries({ channels: null });
  });

  it('is duplicated, exported, imported, deleted and brought back, with its defaults and its videos', async () => {
    const values: LayerValues = {
      template: '{{summary}}\n\n{{#links}}\n{{line}}\n{{/links}}',
      tags: { way: 'replace', items: ['bilge'] },
      picture: { way: 'moment', at: { num: 13, den: 2 } },
      file: { way: 'set', set: 'trailer' },
    };
    await ofSeries(values);
    const videoId = await onDesk('bilge-talk_8_pumps.mp4');
    const copy = await duplicateSeries(series);
    expect(await lookAtLayer({ layer: 'series', owner: copy })).toMatchObject({
      name: 'Bilge Talk, copy',
      pattern: '',
      set: values,
    });
    const { file } = await exportSeries(series);
    const there = await importSeries(JSON.parse(JSON.stringify(file)));
    expect(await lookAtLayer({ layer: 'series', owner: there })).toMatchObject({
      name: 'Bilge Talk 2',
      pattern: 'bilge-talk_{episode}_{title}',
      set: values,
    });
    await removeSeries(there);
    await removeSeries(copy);
    const reached = await removeSeries(series);
    expect(reached.find((each) => each.videoId === videoId)?.fields).toContain('tags');
    expect((await lookAtSheet(videoId)).series).toBeUndefined();
    await undo('series');
    expect((await lookAtSheet(videoId)).series?.id).toBe(series);
    expect((await lookAtLayer({ layer: 'series', owner: series })).set).toEqual(values);
    await ofSeries(cleared(values));
  });

  it('has its name and its pattern set and set back, each as one step however it was typed', async () => {
    const words = async () => {
      const { name, pattern, canUndo } = await lookAtLayer({ layer: 'series', owner: fresh });
      return { name, pattern, canUndo };
    };
    const fresh = await newSeries({ name: 'Rig', pattern: '' });
    for (const name of ['Rigg', 'Riggi', 'Rigging']) await editSeries(fresh, { name });
    await editSeries(fresh, { pattern: 'rigging_{title}' });
    expect(await words()).toEqual({ name: 'Rigging', pattern: 'rigging_{title}', canUndo: true });
    expect((await lookAtSheet(await onDesk('rigging_two-shrouds.mp4'))).series?.id).toBe(fresh);
    await undo(fresh);
    expect(await words()).toEqual({ name: 'Rigging', pattern: '', canUndo: true });
    await undo(fresh);
    expect(await words()).toEqual({ name: 'Rig', pattern: '', canUndo: false });
    await redo(fresh);
    await redo(fresh);
    expect(await words()).toMatchObject({ name: 'Rigging', pattern: 'rigging_{title}' });
    await expect(editSeries(fresh, { name: 'bilge talk' })).rejects.toThrow('already');
    await removeSeries(fresh);
  });

  it('changes hands with what each of them ticks, and what was set on a channel stays', async () => {
    const fresh = await newSeries({ name: 'Ropes', pattern: '' });
    await editDefaults({ layer: 'series', owner: fresh }, { channels: [idOf('Quay School')] });
    await ofSeries({ channels: [idOf('Tide Notes'), idOf('Marrow Quay Films')] });
    const videoId = await onDesk('bilge-talk_40_hands.mp4');
    const ticked = async () =>
      (await lookAtSheet(videoId)).channels.filter((channel) => channel.ticked).map(({ name }) => name);
    expect(await ticked()).toEqual(['Tide Notes', 'Marrow Quay Films']);
    await editOnChannel(videoId, { channelId: idOf('Tide Notes'), set: { title: 'Its own there' } });
    await editVideo(videoId, { seriesId: fresh });
    expect(await ticked()).toEqual(['Tide Notes', 'Quay School']);
    await undo(videoId);
    expect(await ticked()).toEqual(['Tide Notes', 'Marrow Quay Films']);
    await ofSeries({ channels: null });
    await removeSeries(fresh);
  });

  it('is unmade only while nothing hangs on it', async () => {
    const fresh = await newSeries({ name: 'Unmade' });
    await undo('series');
    await expect(lookAtLayer({ layer: 'series', owner: fresh })).rejects.toMatchObject({ kind: 'not found' });
    await redo('series');
    await editDefaults({ layer: 'series', owner: fresh }, { privacy: 'link' });
    await expect(undo('series')).rejects.toThrow('in use since');
    await removeSeries(fresh);
  });
});

describe('values', () => {
  it('come from the nearest layer that sets them, lists from all that add, and each says from which', async () => {
    const videoId = await onDesk('bilge-talk_9_layers.mp4', 'Marrow Quay', 'Tide Notes');
    const privacy = async () => (await channelOf(videoId, 'Marrow Quay')).values.privacy;
    const steps: [set: (value: string | null) => Promise<unknown>, value: string, layer: string][] = [
      [(value) => editDefaults({ layer: 'site', owner: 'lanternfold' }, { privacy: value }), 'link', 'site'],
      [(value) => ofChannel('Marrow Quay', { privacy: value }), 'everyone', 'channel'],
      [(value) => ofSeries({ privacy: value }), 'private', 'series'],
      [(value) => editVideo(videoId, { privacy: value }), 'everyone', 'video'],
      [(value) => editOnChannel(videoId, { channelId: idOf('Marrow Quay'), set: { privacy: value } }), 'link', 'drop'],
    ];
    for (const [set, value, layer] of steps) {
      await set(value);
      expect(await privacy()).toMatchObject({ value, from: [{ layer }] });
    }
    expect((await channelOf(videoId, 'Tide Notes')).values.privacy.from[0]?.layer).toBe('video');
    for (const [set] of steps) await set(null);
    expect(await privacy()).toEqual({ value: 'private', from: [] });
    await ofChannel('Marrow Quay', { tags: { way: 'add', items: ['quay'] } });
    await ofSeries({ tags: { way: 'add', items: ['bilge', 'Quay'] } });
    await editVideo(videoId, { tags: { way: 'add', items: ['pump'] } });
    const { words, values } = await channelOf(videoId, 'Marrow Quay');
    expect(words.tags).toEqual(['quay', 'bilge', 'pump']);
    expect(values.tags.from.map(({ layer }) => layer)).toEqual(['channel', 'series', 'video']);
    await editVideo(videoId, { tags: { way: 'replace', items: ['alone'] } });
    expect((await channelOf(videoId, 'Marrow Quay')).words.tags).toEqual(['alone']);
    await ofChannel('Marrow Quay', { tags: null });
    await ofSeries({ tags: null });
  });

  it('of the record are those that all its channels share; a channel that differs is named', async () => {
    await ofChannel('Quay School', { forChildren: true });
    await ofChannel('Marrow Quay', { forChildren: false });
    const videoId = await onDesk('bilge-talk_10_law.mp4', 'Quay School');
    const law = async () => (await lookAtSheet(videoId)).marks.forChildren;
    expect(await lookAtSheet(videoId)).toMatchObject({ values: { forChildren: true } });
    expect(await law()).toMatchObject({ set: false, from: [{ layer: 'channel', name: 'Quay School' }] });
    // The law's question is answered for that channel, and what may not be on for children is off there.
    expect((await channelOf(videoId, 'Quay School')).missing.map(({ place }) => place)).not.toContain(
      'declared-forChildren',
    );
    await tickChannel(videoId, idOf('Marrow Quay'), true);
    expect((await law()).differs.map(({ name, value }) => [name, value])).toEqual([
      ['Marrow Quay', false],
      ['Quay School', true],
    ]);
    await tickChannel(videoId, idOf('Tide Notes'), true);
    const open = (await channelOf(videoId, 'Tide Notes')).missing.map(({ place }) => place);
    expect(open).toContain('declared-forChildren');
    await ofChannel('Marrow Quay', { forChildren: null });
  });

  it('move up to the series, to the channel and to the whole video, as one change that can be undone', async () => {
    const videoId = await onDesk('bilge-talk_11_up.mp4', 'Marrow Quay');
    const other = await onDesk('bilge-talk_12_up-too.mp4', 'Marrow Quay');
    await editVideo(videoId, { category: 'craft', tags: { way: 'add', items: ['oak'] } });
    await ofSeries({ tags: { way: 'add', items: ['bilge'] } });
    const reached = await moveUp(videoId, { field: 'tags', to: 'series' });
    expect(reached.map(({ title, fields }) => [title, fields])).toContainEqual(['Up too', ['tags']]);
    expect((await channelOf(other, 'Marrow Quay')).words.tags).toEqual(['bilge', 'oak']);
    expect((await lookAtSheet(videoId)).own.tags).toBeUndefined();
    await undo(videoId);
    expect((await channelOf(other, 'Marrow Quay')).words.tags).toEqual(['bilge']);
    expect((await lookAtSheet(videoId)).own.tags?.items).toEqual(['oak']);
    await redo(videoId);
    await moveUp(videoId, { field: 'category', to: 'channel', toChannel: idOf('Marrow Quay') });
    expect(await layersOf(videoId, 'Marrow Quay', 'category')).toEqual(['channel']);
    await undo(videoId);
    expect(await layersOf(videoId, 'Marrow Quay', 'category')).toEqual(['video']);
    await editOnChannel(videoId, { channelId: idOf('Marrow Quay'), set: { place: 'The slip' } });
    await moveUp(videoId, { field: 'place', channelId: idOf('Marrow Quay'), to: 'video' });
    expect((await lookAtSheet(videoId)).own.place).toBe('The slip');
    expect((await channelOf(videoId, 'Marrow Quay')).own.place).toBeUndefined();
    await expect(moveUp(videoId, { field: 'licence', to: 'series' })).rejects.toThrow('is not set here');
    await ofSeries({ tags: null });
  });

  it('take playlists by their titles, each channel those that it has; by hand they are its own', async () => {
    const videoId = await onDesk('bilge-talk_13_lists.mp4', 'Marrow Quay');
    await ofSeries({ playlists: { way: 'add', items: ['No such list'] } });
    expect(await channelOf(videoId, 'Marrow Quay')).toMatchObject({
      chosenPlaylists: [],
      unknownPlaylists: ['No such list'],
      playlistsFrom: [{ layer: 'series' }],
    });
    await editOnChannel(videoId, { channelId: idOf('Marrow Quay'), playlists: [] });
    expect((await channelOf(videoId, 'Marrow Quay')).unknownPlaylists).toEqual([]);
    await ofSeries({ playlists: null });
  });
});

describe('a change of defaults', () => {
  it('says which unsent videos it reaches and in what; those that set it themselves are left alone', async () => {
    const plain = await onDesk('bilge-talk_30_plain.mp4', 'Marrow Quay');
    const own = await onDesk('bilge-talk_31_own.mp4', 'Marrow Quay');
    const other = await onDesk('bilge-talk_32_other.mp4', 'Marrow Quay Films');
    await editVideo(own, { place: 'Its own', language: 'de' });
    const reached = new Map(
      (await ofChannel('Marrow Quay', { place: 'The slip', language: 'en' })).map((each) => [
        each.videoId,
        each.fields,
      ]),
    );
    expect(reached.get(plain)?.sort()).toEqual(['language', 'place']);
    expect([reached.has(own), reached.has(other)]).toEqual([false, false]);
    const again = await ofChannel('Marrow Quay', { place: 'The slip' });
    expect(again).toEqual([]);
    // Undone on the channel's page, it is as it was.
    await undo(idOf('Marrow Quay'));
    await undo(idOf('Marrow Quay'));
    expect((await channelOf(plain, 'Marrow Quay')).values).toMatchObject({
      place: { value: '', from: [] },
      language: { value: '', from: [] },
    });
  });

  it('reaches a video on the one channel where it was not sent yet, and not where it was', async () => {
    const videoId = await onDesk('bilge-talk_33_both.mp4', 'Marrow Quay', 'Tide Notes');
    const sentWith = JSON.stringify({ site: {}, channel: {}, series: {}, seriesName: '', shelf: {} });
    await database()('drops')
      .where({ videoId, channelId: idOf('Tide Notes') })
      .update({ state: 'live', sentWith });
    const reached = await ofSeries({ place: 'The pump' });
    expect(reached.find((each) => each.videoId === videoId)?.fields).toEqual(['place']);
    expect((await channelOf(videoId, 'Marrow Quay')).values.place.value).toBe('The pump');
    expect((await channelOf(videoId, 'Tide Notes')).values.place.value).toBe('');
    await database()('drops').where({ videoId }).update({ state: 'live', sentWith });
    expect((await ofSeries({ place: null })).map((each) => each.videoId)).not.toContain(videoId);
  });
});

describe('words', () => {
  it('with a blank that is left open are not sent, and the Sheet says which', async () => {
    const videoId = await onDesk('bilge-talk_14_blank.mp4', 'Marrow Quay');
    await editVideo(videoId, { summary: 'Two lines.', forChildren: false, template: '{{summary}}\n{{sponsor}}' });
    expect((await channelOf(videoId, 'Marrow Quay')).missing).toContainEqual({
      place: 'template',
      what: 'The blank “sponsor” is left open',
    });
    expect((await sendVideo(videoId)).sent).toEqual([]);
    await editVideo(videoId, { template: '{{summary}}\n{{#unclosed}}' });
    expect((await channelOf(videoId, 'Marrow Quay')).missing.map(({ place }) => place)).toContain('template');
    await editVideo(videoId, { template: null });
    expect((await channelOf(videoId, 'Marrow Quay')).missing.map(({ place }) => place)).not.toContain('template');
  });

  it('written by hand for one channel keep the link to the record’s: it says when those change', async () => {
    const videoId = await onDesk('bilge-talk_15_hand.mp4', 'Marrow Quay');
    await editVideo(videoId, { summary: 'The record’s.' });
    const { recordText } = await channelOf(videoId, 'Marrow Quay');
    const put = (set: Record<string, unknown>) => editOnChannel(videoId, { channelId: idOf('Marrow Quay'), set });
    await put({ text: 'By hand.', textOver: recordText });
    expect(await channelOf(videoId, 'Marrow Quay')).toMatchObject({ recordMoved: false, words: { text: 'By hand.' } });
    await editVideo(videoId, { summary: 'The record’s, changed.' });
    const moved = await channelOf(videoId, 'Marrow Quay');
    expect(moved).toMatchObject({ recordMoved: true, recordText: 'The record’s, changed.' });
    await put({ textOver: moved.recordText });
    expect((await channelOf(videoId, 'Marrow Quay')).recordMoved).toBe(false);
    await put({ text: '' });
    expect(await channelOf(videoId, 'Marrow Quay')).toMatchObject({ words: { text: 'The record’s, changed.' } });
  });

  it('are offered tags by what went with them on the channel’s earlier videos, and other ways to write them', async () => {
    const earlier = await onDesk('bilge-talk_16_greasing-the-windlass.mp4', 'Marrow Quay Films');
    await editVideo(earlier, { tags: { way: 'add', items: ['deck gear', 'windlass'] } });
    // As if it had gone there; what nobody has seen yet says nothing of the channel's tags.
    await database()('drops').where({ videoId: earlier }).update({ state: 'live' });
    const videoId = await onDesk('bilge-talk_17_a-windlass-again.mp4', 'Marrow Quay Films');
    await editVideo(videoId, { tags: { way: 'add', items: ['chain locker'] } });
    const { suggestions, variants } = await tagOffers(videoId);
    expect(suggestions).toContainEqual({ tag: 'deck gear', why: 'went with “windlass” on 1 of 1 earlier video' });
    expect(variants['chain locker']?.map(({ tag }) => tag)).toEqual(['chainlocker', 'chain lockers']);
  });
});

describe('series that are known by the files’ names', () => {
  it('are told where two have one pattern, and take the videos whose files fit and that are in none', async () => {
    const { videoId } = await announcedCut({ fileName: 'tar-pots_3_boiling.mp4', size: 4 });
    const { videoId: other } = await announcedCut({ fileName: 'no-pots.mp4', size: 4 });
    const one = await newSeries({ name: 'Tar Pots', pattern: 'tar-pots_{episode}_{title}' });
    expect(await lookAtLayer({ layer: 'series', owner: one })).toMatchObject({ samePattern: [], fitting: [videoId] });
    await askOfMany({ ids: [videoId], act: { do: 'series', seriesId: one } });
    await untilSheet(videoId, (sheet) => sheet.series?.id === one && sheet.episode === '3');
    expect((await lookAtSheet(other)).series).toBeUndefined();
    const two = await newSeries({ name: 'Tar Pots too', pattern: ' TAR-pots_{episode}_{title}' });
    const { samePattern, fitting } = await lookAtLayer({ layer: 'series', owner: two });
    expect([samePattern, fitting]).toEqual([['Tar Pots'], []]);
    for (const id of [one, two]) await removeSeries(id);
  });
});

describe('the link shelf', () => {
  it('is used by name; a change reaches what is not sent, and a link that is gone stops it', async () => {
    await newShelfLink({ name: 'pump-plans', label: 'Plans', url: 'https://plans.example/1' });
    await ofSeries({ template: '{{summary}}\n\n{{shelf.pump-plans}}' });
    const videoId = await onDesk('bilge-talk_18_shelf.mp4', 'Marrow Quay');
    await editVideo(videoId, { summary: 'S', links: { way: 'add', items: [{ shelf: 'pump-plans' }] } });
    const text = async () => (await channelOf(videoId, 'Marrow Quay')).words.text;
    expect(await text()).toBe('S\n\nPlans: https://plans.example/1');
    await editShelfLink('pump-plans', { url: 'https://plans.example/2' });
    expect(await text()).toBe('S\n\nPlans: https://plans.example/2');
    const uses = (await lookAtLinks()).links.find(({ name }) => name === 'pump-plans')?.uses;
    expect(uses?.map(({ kind, says }) => [kind, says])).toEqual([
      ['layer', 'the series Bilge Talk'],
      ['video', 'Shelf'],
    ]);
    await removeShelfLink('pump-plans');
    expect((await lookAtLinks()).missing).toEqual(['pump-plans']);
    expect((await channelOf(videoId, 'Marrow Quay')).missing.map(({ what }) => what)).toContain(
      'There is no link “pump-plans” on the shelf',
    );
    await undo('shelf');
    expect(await text()).toBe('S\n\nPlans: https://plans.example/2');
  });
});

describe('what was sent', () => {
  it('stays as it was when defaults and links change; today’s are sent on one action', async () => {
    await ofSeries({ template: '{{summary}}\n\n{{shelf.pump-plans}}', titlePattern: '{{title}} ({{episode}})' });
    const videoId = await bringFile(clip, 'Marrow Quay', 'bilge-talk_19_sent.mp4');
    await editVideo(videoId, { summary: 'Sent.', forChildren: false });
    await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready');
    expect(await sendVideo(videoId)).toEqual({ sent: ['Marrow Quay'], notReady: [] });
    const { id } = await untilState(videoId, 'live');
    const there = async () => (await videosAt('lanternfold')).find(({ key }) => String(key).startsWith(id));
    const first = { title: 'Sent (19)', description: 'Sent.\n\nPlans: https://plans.example/2' };
    expect(await there()).toMatchObject(first);
    const reached = await ofSeries({ template: '{{summary}} From {{series}}.', titlePattern: null });
    expect(reached.map((each) => each.videoId)).not.toContain(videoId);
    await editShelfLink('pump-plans', { url: 'https://plans.example/3' });
    expect(await channelOf(videoId, 'Marrow Quay')).toMatchObject({
      words: { title: first.title, text: first.description },
      layersChanged: true,
      changes: [],
    });
    const uses = (await lookAtLinks()).links.find(({ name }) => name === 'pump-plans')?.uses;
    expect(uses?.filter(({ kind }) => kind === 'sent')).toEqual([
      expect.objectContaining({ videoId, older: 'https://plans.example/2' }),
    ]);
    // What stands in nothing that the site was given is no use of it, though the drop was sent with it.
    const textThere = () => database()('dropParts').where({ dropId: id, part: 'text' });
    const kept = await textThere().first('given');
    await textThere().update({ given: '"https://PLANS.example/2"' });
    expect((await lookAtLinks()).links.flatMap((link) => link.uses).filter(({ kind }) => kind === 'sent')).toEqual([]);
    await textThere().update(kept);
    await editSeries(series, { name: 'Bilge Talks' });
    // A change of the record goes out with the defaults that were in force.
    await editVideo(videoId, { summary: 'Sent, mended.' });
    await actOnDrop(id, { action: 'revise' });
    await untilGiven(videoId);
    // A link that is named only now is no link that is missing.
    await newShelfLink({ name: 'later', label: 'Later', url: 'https://later.example' });
    await editVideo(videoId, { links: { way: 'add', items: [{ shelf: 'later' }] } });
    expect((await channelOf(videoId, 'Marrow Quay')).missing.filter(({ what }) => what.includes('link'))).toEqual([]);
    expect(await there()).toMatchObject({ description: 'Sent, mended.\n\nPlans: https://plans.example/2' });
    await actOnDrop(id, { action: 'take over' });
    const given = await untilGiven(videoId);
    expect(given.channels.some(({ layersChanged }) => layersChanged)).toBe(false);
    expect(await there()).toMatchObject({ title: 'Sent', description: 'Sent, mended. From Bilge Talks.' });
    await ofSeries({ template: null });
  });
});

describe('pictures by habit', () => {
  const pictureOf = async (videoId: string) => {
    const { picture } = await untilSheet(videoId, (sheet) => sheet.picture !== undefined);
    if (!picture) throw new Error('There is no picture');
    const chunks: Buffer[] = [];
    for await (const chunk of (await openPicture(picture.id)).bytes) chunks.push(chunk as Buffer);
    return {
      picture,
      stats: await sharp(Buffer.concat(chunks)).extract({ left: 0, top: 0, width: 300, height: 700 }).stats(),
    };
  };

  it('are made from a fixed moment, or with the title over it, and give way to one that a person takes', async () => {
    await ofSeries({ picture: { way: 'moment', at: { num: 900, den: 1 } } });
    const videoId = await bringFile(clip, 'Marrow Quay', 'bilge-talk_20_picture.mp4');
    const plain = await pictureOf(videoId);
    expect(plain.picture).toMatchObject({ byHabit: true, source: 'frame', width: 1280, height: 720 });
    // Letting the site pick is one step, and one step back brings picture and habit again.
    await dropPicture(videoId);
    expect(await lookAtSheet(videoId)).toMatchObject({ picture: undefined, own: { picture: { way: 'none' } } });
    await undo(videoId);
    expect(await lookAtSheet(videoId)).toMatchObject({ picture: { id: plain.picture.id }, own: {} });
    await ofSeries({ picture: { way: 'layout', at: { num: 1, den: 1 }, band: 'beside' } });
    await untilSheet(videoId, (sheet) => sheet.picture !== undefined && sheet.picture.id !== plain.picture.id);
    const titled = await pictureOf(videoId);
    // The band is of a dark blue.
    expect(titled.stats.dominant.b).toBeGreaterThan(titled.stats.dominant.r);
    // Another title wants another picture, and so does the old one again.
    await editVideo(videoId, { title: 'Another title' });
    // Between the two there may be none.
    const isAnother = (id: string | undefined) => (sheet: SheetView) =>
      sheet.picture !== undefined && sheet.picture.id !== id;
    const another = (await untilSheet(videoId, isAnother(titled.picture.id))).picture?.id;
    await undo(videoId);
    await untilSheet(videoId, isAnother(another));
    await expect.poll(async () => (await pictureOf(videoId)).picture.size).toBe(titled.picture.size);
    await takeFrameAsPicture(videoId, { seconds: 2 });
    await ofSeries({ picture: { way: 'none' } });
    const other = await bringFile(clip, 'Marrow Quay', 'bilge-talk_21_none.mp4');
    await untilSheet(other, (sheet) => sheet.cut?.state === 'ready');
    expect((await lookAtSheet(videoId)).picture).toMatchObject({ byHabit: false });
    expect((await lookAtSheet(other)).picture).toBeUndefined();
    await ofSeries({ picture: null });
  });
});

describe('bad input', () => {
  const layer = { layer: 'series', owner: newId() };
  it.each<[says: string, act: () => Promise<unknown>, why: RegExp]>([
    ['a field that there is not', () => ofSeries({ colour: 'red' }), /no default called “colour”/],
    ['a list without a way', () => ofSeries({ tags: ['keel'] }), /are given as/],
    ['a way that is none', () => ofSeries({ links: { way: 'perhaps', items: [] } }), /replace, add/],
    [
      'an address to run',
      () => ofSeries({ links: { way: 'add', items: [{ label: '', url: 'javascript:1' }] } }),
      /starts with https/,
    ],
    [
      'a moment before the start',
      () => ofSeries({ picture: { way: 'moment', at: { num: -1, den: 1 } } }),
      /after the start/,
    ],
    ['a file of no height', () => ofSeries({ file: { tallest: 3, kilobits: null } }), /tallest/],
    ['a template without end', () => ofSeries({ template: 'x'.repeat(50_001) }), /at most 50,000/],
    ['fields that are none', () => editDefaults({ layer: 'series', owner: series }, 'privacy'), /JSON object/],
    ['a site that is none', () => editDefaults({ layer: 'site', owner: 'elsewhere' }, {}), /no site elsewhere/],
    ['a series that is none', () => editDefaults(layer, {}), /There is no such series|no series|not there/i],
    ['a pattern for every file', () => editSeries(series, { pattern: '*' }), /takes every file/],
    ['a name that is taken', () => newSeries({ name: 'bilge talks' }), /a series called “Bilge Talks” already/],
    ['no name', () => newSeries({ name: ' ' }), /Give the series a name/],
    ['a file that is no series', () => importSeries({ name: 'X', version: 1 }), /no series/],
    [
      'a series with fields that there are not',
      () => importSeries({ kind: 'kettle-drop series', name: 'X', defaults: { a: 1 } }),
      /no default called “a”/,
    ],
    ['a name of capitals', () => newShelfLink({ name: 'Plans', label: '', url: 'https://a.example' }), /small letters/],
    [
      'a name on the shelf that is taken',
      () => newShelfLink({ name: 'pump-plans', label: '', url: 'https://a.example' }),
      /already/,
    ],
    ['a link that is none', () => editShelfLink('nothing', { label: 'x' }), /There is no such link|no link/i],
    ['a move to nowhere', () => moveUp(newId(), { field: 'tags', to: 'site' }), /one of/],
  ])('%s is refused', async (_, act, why) => {
    const before = JSON.stringify([await lookAtSeriesList(), await lookAtLinks()]);
    await expect(act()).rejects.toThrow(why);
    expect(JSON.stringify([await lookAtSeriesList(), await lookAtLinks()])).toBe(before);
  });
});
