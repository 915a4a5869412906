import { describe, expect, it } from 'vitest';
import { type LayerValues, PLAIN_DEFAULTS } from '@/core/defaults';
import { lanternfoldProfile } from '@/sites/lanternfold/profile';
import { stallmarketProfile } from '@/sites/stallmarket/profile';
import type { Drop } from '@/store/drop/shape';
import type { Video } from '@/store/record/videos';
import type { Channel } from '@/store/site/channels';
import {
  goesOnWith,
  inForceAt,
  type KeptLayers,
  layersAt,
  playlistsAt,
  revisesWith,
  sendsWith,
  wordsAt,
} from './layers';
import { recordValues, takesField } from './record-values';

const channelOf = (id: string, site = 'lanternfold') => ({ id, site, name: `Channel ${id}` }) as Channel;
const [QUAY, SCHOOL] = [channelOf('quay'), channelOf('school')];
const videoOf = (own: LayerValues, seriesId?: string) =>
  ({ title: 'Keel', summary: 'S', episode: '3', own, seriesId, createdAt: new Date('2026-11-25T10:00:00Z') }) as Video;
const dropOf = (fields: Partial<Drop> = {}) => ({ state: 'draft', own: {}, ...fields }) as Drop;

const kept = (defaults: Record<string, LayerValues> = {}): KeptLayers => ({
  defaults: new Map(Object.entries(defaults)),
  series: new Map([['plank', { id: 'plank', name: 'Plank by Plank', pattern: '', lastUsedAt: undefined }]]),
  shelf: {
    plans: { label: 'Plans', url: 'https://l.example/plans' },
    tools: { label: 'Tools', url: 'https://l.example/tools' },
  },
  fileSets: [],
  playlists: [
    { id: '1', channelId: 'quay', sitePlaylistId: 'p1', title: 'Plank by Plank', videos: 0 },
    { id: '2', channelId: 'school', sitePlaylistId: 'p2', title: 'Knots', videos: 0 },
  ],
});

describe('the layers of a video on a channel', () => {
  it('are site, channel, series, video and drop, each with its name', () => {
    const layers = layersAt(kept({ quay: { place: 'Yard' } }), videoOf({}, 'plank'), QUAY, dropOf());
    expect(layers.map(({ layer, name }) => [layer, name])).toEqual([
      ['site', 'Lanternfold'],
      ['channel', 'Channel quay'],
      ['series', 'Plank by Plank'],
      ['video', ''],
      ['drop', 'Channel quay'],
    ]);
  });

  it('are as they were for what was sent, as long as it is there', () => {
    const now = kept({ plank: { place: 'Now' }, quay: { place: 'Now', language: 'de' } });
    const video = videoOf({}, 'plank');
    const sentWith = { site: {}, channel: { place: 'Then' }, series: {}, seriesName: 'Planks', shelf: {} };
    const place = (drop: Drop) => inForceAt(now, video, QUAY, drop).place.value;
    expect(place(dropOf())).toBe('Now');
    expect(place(dropOf({ state: 'live', sentWith }))).toBe('Then');
    expect(place(dropOf({ state: 'snag', sentWith }))).toBe('Then');
    expect(place(dropOf({ state: 'removed', sentWith }))).toBe('Now');
    expect(wordsAt(now, video, QUAY, dropOf({ state: 'held', sentWith })).names).toMatchObject({
      series: 'Planks',
      shelf: {},
    });
  });

  it('go with what is sent, and of the shelf the links that its words use', () => {
    const layers = kept({ plank: { template: '{{summary}} {{shelf.plans}}' }, quay: { place: 'Yard' } });
    const sent = sendsWith(layers, videoOf({}, 'plank'), QUAY, dropOf());
    expect(sent).toMatchObject({ channel: { place: 'Yard' }, seriesName: 'Plank by Plank' });
    expect(Object.keys(sent.shelf)).toEqual(['plans']);
    const links = { way: 'add' as const, items: [{ shelf: 'tools' }] };
    const both = sendsWith(
      layers,
      videoOf({ links, titlePattern: '{{title}} {{address.tools}}' }, 'plank'),
      QUAY,
      dropOf(),
    );
    expect(Object.keys(both.shelf).sort()).toEqual(['plans', 'tools']);
  });
});

describe('a link that a video names only since it was sent', () => {
  const links = { way: 'add' as const, items: [{ shelf: 'tools' }, { shelf: 'plans' }] };
  const old = { label: 'Plans', url: 'https://l.example/old' };
  const sentWith = { site: {}, channel: {}, series: {}, seriesName: '', shelf: { plans: old } };
  const sent = dropOf({ state: 'live', sentWith });

  it('is as it is now, while the others stay as they went out', () => {
    const words = wordsAt(kept(), videoOf({ links }), QUAY, sent);
    expect(words.missingLinks).toEqual([]);
    expect(words.links.map(({ url }) => url)).toEqual(['https://l.example/tools', old.url]);
  });

  it('goes out with the changes, and is kept from then on', () => {
    const next = goesOnWith(kept(), videoOf({ links }), QUAY, sent);
    expect(next.shelf).toMatchObject({ plans: old, tools: { url: 'https://l.example/tools' } });
    expect(goesOnWith(kept(), videoOf({}), QUAY, sent)).toEqual(sentWith);
    // The file at the site was made without it: its chapters may not move.
    const since = { ...videoOf({}), remedies: { cutId: 'c', from: { num: 1, den: 1 } } };
    expect(revisesWith(kept(), since, QUAY, sent).remedies).toBeUndefined();
    expect(sendsWith(kept(), since, QUAY, sent).remedies).toEqual(since.remedies);
  });
});

describe('the words of a video on a channel', () => {
  it('have the recording date, or else the day on which it came, in its language', () => {
    const date = (own: LayerValues) => wordsAt(kept(), videoOf(own), QUAY, undefined).names.date;
    expect(date({})).toBe('25 November 2026');
    expect(date({ recordedOn: '2026-10-01', language: 'de' })).toBe('1. Oktober 2026');
  });

  it('say which links the shelf does not have', () => {
    const links = { way: 'add' as const, items: [{ shelf: 'gone' }, { shelf: 'plans' }] };
    const words = wordsAt(kept(), videoOf({ links }), QUAY, undefined);
    expect(words).toMatchObject({ missingLinks: ['gone'], links: [{ label: 'Plans' }] });
  });

  it('go into the playlists that the channel has of those that are named, or into those chosen by hand', () => {
    expect(playlistsAt(kept(), ['plank by plank ', 'Knots'], 'quay', undefined)).toEqual({
      ids: ['p1'],
      unknown: ['Knots'],
    });
    expect(playlistsAt(kept(), ['Knots'], 'quay', ['px'])).toEqual({ ids: ['px'], unknown: [] });
    expect(playlistsAt(kept(), [], 'quay', undefined)).toEqual({ ids: [], unknown: [] });
  });
});

describe('the values of a record that goes to several channels', () => {
  const ticked = (...channels: Channel[]) => {
    return channels.map((channel) => ({ channel, drop: dropOf(), profile: lanternfoldProfile }));
  };

  it('are those that most share, the others named', () => {
    const layers = kept({ quay: { place: 'Yard' }, tide: { place: 'Yard' }, school: { place: 'School' } });
    const { values, marks } = recordValues(layers, videoOf({}), ticked(QUAY, channelOf('tide'), SCHOOL));
    expect(values.place).toBe('Yard');
    expect(marks.place).toMatchObject({ set: false, from: [{ layer: 'channel' }] });
    expect(marks.place.differs.map(({ name, value }) => [name, value])).toEqual([['Channel school', 'School']]);
  });

  it('are the record’s own where no value is shared by most', () => {
    const layers = kept({ quay: { place: 'Yard' }, school: { place: 'School' }, plank: {} });
    const { values, marks } = recordValues(layers, videoOf({}, 'plank'), ticked(QUAY, SCHOOL));
    expect(values.place).toBe(PLAIN_DEFAULTS.place);
    expect(marks.place.differs).toHaveLength(2);
  });

  it('say what would hold without what is set on the video', () => {
    const layers = kept({ quay: { tags: { way: 'add', items: ['quay'] } } });
    const video = videoOf({ tags: { way: 'replace', items: ['mine'] } });
    const { values, marks } = recordValues(layers, video, ticked(QUAY));
    expect(values.tags).toEqual(['mine']);
    expect(marks.tags).toMatchObject({ set: true, beneath: ['quay'], beneathFrom: [{ name: 'Channel quay' }] });
  });

  it('go by the channels that are not sent yet, and by all once they are', () => {
    const layers = kept({ quay: { place: 'Yard' }, school: { place: 'School' } });
    const [one, other] = ticked(QUAY, SCHOOL);
    if (!one || !other) throw new Error('Two are ticked');
    const sentWith = { site: {}, channel: { place: 'Then' }, series: {}, seriesName: '', shelf: {} };
    const live = { ...one, drop: dropOf({ state: 'live', sentWith }) };
    expect(recordValues(layers, videoOf({}), [live, other]).values.place).toBe('School');
    expect(recordValues(layers, videoOf({}), [live]).values.place).toBe('Then');
  });

  it('leave out a channel of a site that has no use for a field', () => {
    expect(takesField(lanternfoldProfile, 'category')).toBe(true);
    expect(takesField(stallmarketProfile, 'category')).toBe(false);
    expect(takesField(stallmarketProfile, 'tags')).toBe(false);
    expect(takesField(stallmarketProfile, 'playlists')).toBe(false);
    expect(takesField(stallmarketProfile, 'privacy')).toBe(true);
    const layers = kept({ shop: { category: 'craft' } });
    const shop = { channel: channelOf('shop', 'stallmarket'), drop: dropOf(), profile: stallmarketProfile };
    expect(recordValues(layers, videoOf({}), [shop]).values.category).toBe('');
  });
});
