import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { editDefaults } from '@/desk/defaults/defaults';
import { lookAtBoard, lookAtChannels, lookAtStatus } from '@/desk/look/look';
import { lookAtLayer, lookAtLinks, lookAtSeriesList } from '@/desk/look/look-at-layers';
import { lookAtSheet } from '@/desk/look/look-at-sheet';
import { tickChannel } from '@/desk/video/edit-video';
import { editMarkers } from '@/desk/video/markers';
import { closeDatabase, database } from '@/store/database';
import { newId } from '@/store/ids';
import { makeVideo } from '@/store/videos';
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
      ...{ id: newId(), isNew: true, time: { num: n * 20, den: 1 } },
      ...{ name: `Marker ${n}`, note: '', colour: 'green' },
    })),
  });

/** How many queries something asks of the database. */
async function queriesOf(act: () => Promise<unknown>): Promise<number> {
  let asked = 0;
  const hear = () => {
    asked += 1;
  };
  database().on('query', hear);
  await act().finally(() => database().removeListener('query', hear));
  return asked;
}

describe('a page asks the database as often', () => {
  it.each<[what: string, most: number, look: () => Promise<unknown>]>([
    ['the Board', 15, lookAtBoard],
    ['Channels', 14, lookAtChannels],
    ['the status', 15, lookAtStatus],
    ['Series', 14, lookAtSeriesList],
    ['a site’s defaults', 20, () => lookAtLayer({ layer: 'site', owner: 'lanternfold' })],
    ['Links', 14, lookAtLinks],
    ['a change of defaults', 27, () => editDefaults({ layer: 'site', owner: 'pipwire' }, { place: newId() })],
  ])('for many videos as for few: %s', async (_, most, look) => {
    const few = await queriesOf(look);
    await more(6);
    expect(await queriesOf(look)).toBe(few);
    expect(few).toBeLessThanOrEqual(most);
  });

  it('for a video with a thousand markers as for one with three', async () => {
    const videoId = await more(1);
    const few = await queriesOf(() => lookAtSheet(videoId));
    await putMarkers(videoId, 1000);
    expect(await queriesOf(() => lookAtSheet(videoId))).toBe(few);
  });
});
