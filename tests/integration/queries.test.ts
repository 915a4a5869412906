import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { editDefaults } from '@/desk/defaults/defaults';
import { tickChannel } from '@/desk/video/edit-video';
import { editMarkers } from '@/desk/video/markers';
import { lookAtChannels, lookAtStatus } from '@/desk/views/look';
import { lookAtBoard } from '@/desk/views/look-at-board';
import { lookAtLayer, lookAtLinks, lookAtSeriesList } from '@/desk/views/look-at-layers';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { closeDatabase, database } from '@/store/database';
import { newId } from '@/store/ids';
import { makeVideo } from '@/store/record/videos';
import { connectedChannels } from '../setup/desk';
import { newVideo } from '../setup/new-video';

let channels: string[];
beforeAll(async () => {
  channels = [...(await connectedChannels()).values()];
  await more(2);
});
afterAll(closeDatabase);

/** Puts videos on the desk, each ticked for every channel and with a few markers. */
async function more(count: number): Promise<string> {
  let last = '';
  for (let n = 0; n < count; n += 1) {
    last = await makeVideo(database(), newVideo(`One of many ${n}`));
    for (const channel of channels) await tickChannel(last, channel, true);
    await putMarkers(last, 3);
  }
  return last;
}

const putMarkers = (videoId: string, count: number) =>
  editMarkers(videoId, {
    put: Array.from({ length: count }, (_, n) => ({
      id: newId(),
      isNew: true,
      time: { num: n * 20, den: 1 },
      name: `Marker ${n}`,
      note: '',
      colour: 'green',
    })),
  });

/** What something asks of the database: how many queries, and how much comes back. */
async function askedBy(act: () => Promise<unknown>): Promise<{ queries: number; rows: number; bytes: number }> {
  const asked = { queries: 0, rows: 0, bytes: 0 };
  const hear = () => {
    asked.queries += 1;
  };
  const hearAnswer = (answer: unknown) => {
    if (!Array.isArray(answer)) return;
    asked.rows += answer.length;
    asked.bytes += JSON.stringify(answer).length;
  };
  database().on('query', hear).on('query-response', hearAnswer);
  await act().finally(() => database().removeListener('query', hear).removeListener('query-response', hearAnswer));
  return asked;
}

describe('a page asks the database as often', () => {
  it.each<[what: string, most: number, look: () => Promise<unknown>]>([
    ['the Board', 16, lookAtBoard],
    ['Channels', 14, lookAtChannels],
    ['the status', 16, lookAtStatus],
    ['Series', 14, lookAtSeriesList],
    ['a site’s defaults', 20, () => lookAtLayer({ layer: 'site', owner: 'lanternfold' })],
    ['Links', 14, lookAtLinks],
    ['a change of defaults', 27, () => editDefaults({ layer: 'site', owner: 'pipwire' }, { place: newId() })],
  ])('for many videos as for few: %s', async (_, most, look) => {
    // Once before it counts: a lock that nobody has had yet is made first.
    await look();
    const few = await askedBy(look);
    await more(6);
    expect((await askedBy(look)).queries).toBe(few.queries);
    expect(few.queries).toBeLessThanOrEqual(most);
  });

  it('for a video with a thousand markers as for one with three', async () => {
    const videoId = await more(1);
    const few = await askedBy(() => lookAtSheet(videoId));
    await putMarkers(videoId, 1000);
    expect((await askedBy(() => lookAtSheet(videoId))).queries).toBe(few.queries);
  });
});

describe('a page reads no more than it shows', () => {
  it('of a video, whatever else is on the desk', async () => {
    const videoId = await more(1);
    const before = await askedBy(() => lookAtSheet(videoId));
    await more(6);
    const after = await askedBy(() => lookAtSheet(videoId));
    expect(after.rows).toBe(before.rows);
    expect(after.bytes).toBeLessThan(before.bytes * 1.1);
  });

  it('of the Board, some lines and some kilobytes for each video', async () => {
    const before = await askedBy(lookAtBoard);
    await more(10);
    const after = await askedBy(lookAtBoard);
    // A video, its drops, and, of one that is not sent, its markers, for how many things are missing.
    const each = 1 + channels.length + 1 + 3 + channels.length;
    expect(after.rows - before.rows).toBeLessThanOrEqual(10 * each);
    expect(after.bytes - before.bytes).toBeLessThan(10 * 8000);
  });
});
