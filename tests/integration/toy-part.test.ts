import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PARTS } from '@/core/parts';
import { settleDifferences } from '@/desk/actions/settle-differences';
import { undo } from '@/desk/changes/changes';
import { readNow } from '@/desk/differences/read-now';
import { reviseVideo } from '@/desk/drop/send';
import { askOfMany, undoMany } from '@/desk/many/ask-many';
import { doMany } from '@/desk/many/do-many';
import { editVideo, tickChannel } from '@/desk/video/edit-video';
import { lookAtDrop } from '@/desk/views/look-at-drop';
import { lookAtParts } from '@/desk/views/look-at-parts';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { SITE_PROFILES } from '@/sites/profiles';
import { SITES } from '@/sites/registry';
import { closeDatabase, database } from '@/store/database';
import { dropsOf, setDrop } from '@/store/drop/drops';
import { noteGivenParts } from '@/store/drop/parts';
import type { Job } from '@/store/queue/jobs';
import { makeVideo } from '@/store/record/videos';
import { keepAccount } from '@/store/site/accounts';
import { allChannels, keepChannels } from '@/store/site/channels';
import { give } from '@/worker/jobs/give';
import { newVideo } from '../setup/new-video';
import { motto } from './toy/motto';
import { asked, there, toyfold, toyfoldProfile } from './toy/toyfold';

let [videoId, dropId, accountId] = ['', '', ''];

/** All that a new part and a new site add: the folder, and a line each. */
beforeAll(async () => {
  Object.assign(PARTS, { motto });
  SITE_PROFILES.toyfold = toyfoldProfile;
  SITES.toyfold = { make: () => toyfold, port: 0 };
  process.env.KETTLE_SITE_TOYFOLD = 'http://toyfold.invalid';
  const db = database();
  const account = { site: 'toyfold', siteAccountId: 'toy', name: 'Toy', scope: '' };
  accountId = await keepAccount(db, account, { access: 'a', refresh: 'r', expiresAt: Date.now() + 3_600_000 });
  await keepChannels(db, accountId, [{ siteChannelId: 'toy', name: 'Toys', address: 'http://x', mayEarn: false }]);
  videoId = await makeVideo(db, newVideo('Toy boat'));
  const channel = (await allChannels(db)).find((each) => each.accountId === accountId);
  await tickChannel(videoId, channel?.id ?? '', true);
  await editVideo(videoId, { privacy: 'private', summary: 'A boat.', language: 'en' });
  const [drop] = await dropsOf(db, [videoId]);
  dropId = drop?.id ?? '';
  const sentWith = { site: {}, channel: {}, series: {}, seriesName: '', shelf: {} };
  await setDrop(db, dropId, { siteVideoId: 'toy-1', sentWith, liveAt: new Date(), confirmedTo: 'private' });
  await db('drops').where({ id: dropId }).update({ state: 'live' });
  await noteGivenParts(db, { id: dropId, round: 0 }, { privacy: { to: 'private' } });
});

afterAll(async () => {
  await database()('drops').where({ id: dropId }).delete();
  await database()('channels').where({ accountId }).delete();
  await database()('accounts').where({ id: accountId }).delete();
  Reflect.deleteProperty(PARTS, 'motto');
  delete SITE_PROFILES.toyfold;
  delete SITES.toyfold;
  await closeDatabase();
});

/** As a worker does what is due. */
async function given(): Promise<void> {
  const job = { subject: dropId } as Job;
  await give.run({ job, signal: new AbortController().signal, tell: () => undefined });
  await database()('jobs').where({ subject: dropId }).update({ state: 'done' });
}
const sheetChanges = async () =>
  (await lookAtSheet(videoId)).channels.flatMap(({ changes }) => changes.map(({ part, was, is }) => [part, was, is]));
const mottoNow = async () => (await lookAtParts(videoId))[0]?.parts.find(({ label }) => label === 'motto');

describe('a part that only its folder and its site’s lines know of', () => {
  it('is wanted, given alone, kept and read back', async () => {
    expect(await mottoNow()).toMatchObject({ label: 'motto', wanted: 'Spoken in en', given: null });
    await reviseVideo(videoId);
    await given();
    expect(there.get('toy-1')).toMatchObject({ title: 'Toy boat', motto: 'Spoken in en' });
    expect(await mottoNow()).toMatchObject({ given: { value: 'Spoken in en' }, toGive: [], shown: null });
    asked.length = 0;
    await editVideo(videoId, { language: 'de' });
    expect(await sheetChanges()).toEqual([['motto', 'Spoken in en', 'Spoken in de']]);
    await reviseVideo(videoId);
    await given();
    expect(asked).toEqual([{ motto: 'Spoken in de' }]);
  });

  it('is changed there, told, taken over for the channel, and undone', async () => {
    there.set('toy-1', { ...there.get('toy-1'), motto: 'Spoken in fr' });
    await readNow(dropId);
    const page = await lookAtDrop(dropId);
    expect(page.differences).toEqual([{ part: 'motto', field: 'motto', meant: 'Spoken in de', shown: 'Spoken in fr' }]);
    expect(page.mayTakeOver).toBe(true);
    await settleDifferences(dropId, { way: 'take over' });
    expect(await mottoNow()).toMatchObject({ wanted: 'Spoken in fr', given: { value: 'Spoken in fr' }, toGive: [] });
    await undo(videoId);
    expect(await sheetChanges()).toEqual([['motto', 'Spoken in fr', 'Spoken in de']]);
    await reviseVideo(videoId);
    await given();
    expect(there.get('toy-1')?.motto).toBe('Spoken in de');
  });

  it('is set on many at once, and taken back', async () => {
    const signal = new AbortController().signal;
    const act = { do: 'set', field: 'language', value: 'it' };
    const { id } = await askOfMany({ ids: [videoId], act });
    await doMany(id, () => undefined, signal);
    expect(await mottoNow()).toMatchObject({ wanted: 'Spoken in it' });
    await undoMany(id);
    await doMany(id, () => undefined, signal);
    expect(await mottoNow()).toMatchObject({ wanted: 'Spoken in de', toGive: [] });
  });

  it('is held against what its site takes before it goes', async () => {
    await editVideo(videoId, { language: `en-${'x'.repeat(8)}-${'y'.repeat(8)}-${'z'.repeat(8)}` });
    asked.length = 0;
    await reviseVideo(videoId);
    await given();
    expect(asked).toEqual([]);
    const notices = await database()('notices').where({ dropId }).pluck('says');
    expect(notices.at(-1)).toContain('The motto is too long');
  });
});
