import { describe, expect, it } from 'vitest';
import { NO_CHOICE } from '@/core/chapters';
import type { LayerValues } from '@/core/defaults';
import { PRIVACIES } from '@/core/delivery';
import { ZERO } from '@/core/time';
import { fieldgateProfile } from '@/sites/fieldgate/profile';
import { lanternfoldProfile } from '@/sites/lanternfold/profile';
import { pipwireProfile } from '@/sites/pipwire/profile';
import { stallmarketProfile } from '@/sites/stallmarket/profile';
import type { Drop } from '@/store/drop/shape';
import type { Channel } from '@/store/site/channels';
import { goesToEnd, type MeantWords, meantShowing, meantWords } from './meant';
import type { VideoRecord } from './record';

const QUAY = { id: 'quay', site: 'lanternfold', name: 'Marrow Quay' } as Channel;
const at = { num: 3, den: 1 };

/** A record with these values set on the video, and with a picture and captions. */
const recordOf = (own: LayerValues, text: Partial<VideoRecord['video']> = {}): VideoRecord =>
  ({
    video: { title: 'Keel', summary: 'Two lines.', episode: '', own, meantBlanks: [], createdAt: new Date(0), ...text },
    cuts: [],
    markers: [],
    chapters: [],
    leftOut: [],
    picture: { digest: 'abc', moment: at, width: 1920, height: 1080, size: 9, type: 'image/jpeg' },
    forms: [],
    choice: NO_CHOICE,
    range: { from: ZERO, to: undefined },
    captions: [{ id: 'c1', language: 'en', fileName: '', findings: [] }],
    layers: {
      defaults: new Map(),
      series: new Map(),
      shelf: {},
      playlists: [{ id: '1', channelId: 'quay', sitePlaylistId: 'p1', title: 'Diary', videos: 0 }],
    },
  }) as unknown as VideoRecord;

const drop = (fields: Partial<Drop> = {}) => ({ state: 'draft', own: {}, ...fields }) as Drop;
const meant = (own: LayerValues, given: Partial<Drop> = {}, profile = lanternfoldProfile): MeantWords =>
  meantWords(recordOf(own), QUAY, drop(given), profile);

describe('what a site is meant to get', () => {
  it('is closed first where everyone is to see it, and opens by itself only where that is wished', () => {
    expect(meant({ privacy: 'everyone' })).toMatchObject({ privacy: 'private', end: 'everyone', opensAlone: true });
    expect(meant({ privacy: 'everyone', release: 'on my word' }).opensAlone).toBe(false);
    expect(meant({ privacy: 'link' })).toMatchObject({ privacy: 'private', end: 'link', opensAlone: true });
    expect(meant({}).end).toBe('private');
    expect(meant({ privacy: 'everyone' }, { state: 'live', confirmedTo: 'everyone' }).privacy).toBe('everyone');
  });

  it('is open to nobody by what was asked for alone', () => {
    const asked = meant({ privacy: 'everyone' }, { state: 'proofing', openedTo: 'everyone' });
    expect(asked.privacy).toBe('private');
    expect(goesToEnd({ ...asked, opensAlone: false }, drop({ openedTo: 'everyone' }))).toBe(false);
  });

  it('is shown to fewer people at once where the record says so, whatever it was opened to', () => {
    for (const end of PRIVACIES) {
      const { privacy } = meant({ privacy: end }, { state: 'live', confirmedTo: 'everyone', liveAt: new Date() });
      expect(privacy).toBe(end);
    }
    expect(meant({ privacy: 'everyone' }, { state: 'live', confirmedTo: 'private' }).privacy).toBe('private');
  });

  it('is the same before and after it was opened, so that opening is no change', () => {
    const before = meant({ privacy: 'everyone' }, { state: 'held' }).parts;
    expect(meant({ privacy: 'everyone' }, { state: 'live', confirmedTo: 'everyone' }).parts).toEqual(before);
    expect(meant({ privacy: 'everyone', tags: { way: 'add', items: ['oak'] } }).parts).not.toEqual(before);
  });

  it('has the playlists by their titles, where the site has any', () => {
    const playlists = { way: 'add' as const, items: ['diary', 'Gone'] };
    expect(meant({ playlists })).toMatchObject({ playlists: ['p1'], unknownPlaylists: ['Gone'] });
    expect(meant({ playlists }, { chosenPlaylists: [] })).toMatchObject({ playlists: [], unknownPlaylists: [] });
    expect(meant({ playlists }, {}, pipwireProfile)).toMatchObject({ playlists: [], unknownPlaylists: [] });
  });

  it('has captions only where they are to go along, and the picture in the way that the site takes it', () => {
    const { parts } = meant({});
    expect(parts).toMatchObject({ captions: [{ id: 'c1', language: 'en' }], picture: 'abc' });
    expect(parts).not.toHaveProperty('moment');
    expect(meant({ sendCaptions: false }).parts.captions).toEqual([]);
    const post = meant({}, {}, pipwireProfile).parts;
    expect([post.moment, post.captions, post.picture]).toEqual([at, undefined, undefined]);
  });

  it('is not ready while the shelf lacks a link that is named', () => {
    const links = { way: 'add' as const, items: [{ shelf: 'gone' }] };
    expect(meant({ links }).fitted.findings).toContainEqual({
      place: 'template',
      what: 'There is no link “gone” on the shelf',
    });
  });

  it('has words of its own where they are written for it, whole', () => {
    const own = { title: 'Own title', text: 'Own text, {{not}} a template.' };
    expect(meant({ template: '{{summary}} and more' }, { own }).parts).toMatchObject(own);
  });
});

describe('what proofing expects to read back', () => {
  it('is what the site shows at all', () => {
    const showing = meantShowing(
      meant({ privacy: 'link', tags: { way: 'add', items: ['oak'] } }, { confirmedTo: 'link' }),
      lanternfoldProfile,
      'f1',
    );
    expect(showing).toMatchObject({
      title: 'Keel',
      text: 'Two lines.',
      tags: ['oak'],
      privacy: 'link',
      file: 'f1',
    });
    expect(showing.captions).toEqual(['en']);
    const post = meantShowing(meant({}, {}, pipwireProfile), pipwireProfile, undefined);
    expect(Object.keys(post)).toEqual(['privacy', 'text']);
    expect(meantShowing(meant({}, {}, fieldgateProfile), fieldgateProfile, undefined).chapters).toEqual([]);
    // What opens by itself may have done so already.
    expect(meantShowing(meant({}, {}, stallmarketProfile), stallmarketProfile, undefined)).not.toHaveProperty(
      'privacy',
    );
  });
});
