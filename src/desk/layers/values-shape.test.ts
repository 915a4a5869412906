import { describe, expect, it } from 'vitest';
import { DEFAULT_FIELDS, PLAIN_DEFAULTS } from '@/core/defaults';
import { checkedValues, givenFields } from './values-shape';

const half = { num: 1, den: 2 };

describe('values that a layer may set', () => {
  it.each<[field: string, value: unknown]>([
    ['titlePattern', '{{title}} | {{series}}'],
    ['template', ''],
    ['tags', { way: 'add', items: ['keel', 'scarf joint'] }],
    ['links', { way: 'replace', items: [{ shelf: 'steam-box' }, { label: '', url: 'mailto:yard@quay.example' }] }],
    ['playlists', { way: 'add', items: ['Plank by Plank'] }],
    ['privacy', 'link'],
    ['privacy', 'password'],
    ['password', 'oakum-and-tar'],
    ['release', 'on my word'],
    ['release', 'together'],
    ['opensAt', { wall: '2099-11-28T18:30:00', zone: 'Europe/Berlin' }],
    ['lateAtMost', 0],
    ['fullFirst', false],
    ['hoursApart', 24],
    ['rhythm', { rule: 'FREQ=WEEKLY;BYDAY=FR', from: '2026-11-27', time: '18:00', zone: 'Europe/Berlin' }],
    ['sendCaptions', false],
    ['picture', { way: 'none' }],
    ['picture', { way: 'moment', at: half }],
    ['picture', { way: 'layout', at: half, band: 'beside' }],
    ['file', { way: 'keep' }],
    ['file', { way: 'set', set: 'talk' }],
    ['channels', []],
    ['language', 'pt-BR'],
    ['language', ''],
    ['recordedOn', '2028-02-29'],
    ['forChildren', true],
    ['comments', 'hold all'],
    ['adverts', 'by interest'],
    ['broadcast', 'with captions'],
    ['countries', { way: 'everywhere but', codes: ['CA', 'GB'] }],
    ['credits', [{ role: 'Camera', name: 'Isa' }]],
    ['products', ['2000000000015']],
  ])('%s as %j is taken as it is', async (field, value) => {
    expect(await checkedValues({ [field]: value })).toEqual({ [field]: value });
  });

  it.each<[field: string, value: unknown, why: RegExp]>([
    ['countries', { way: 'only in', codes: ['XQ'] }, /two letters/],
    ['countries', { way: 'nowhere', codes: [] }, /way/],
    ['tags', 'keel', /given as/],
    ['tags', { way: 'add', items: 'keel' }, /tags/],
    ['tags', { way: 'add' }, /items/],
    ['tags', { way: 'add', items: [], more: 1 }, /unspecified/],
    ['links', { way: 'add', items: [{ label: 'x', url: 'ftp://a.example' }] }, /https/],
    ['links', { way: 'add', items: [{ label: 'x', url: 'https://a b.example' }] }, /no spaces/],
    ['links', { way: 'add', items: [{ shelf: '../x' }] }, /small letters/],
    ['links', { way: 'add', items: [{ shelf: 'x', label: 'y', url: 'https://a.example' }] }, /unspecified/],
    ['playlists', { way: 'add', items: [' '] }, /playlists/],
    ['privacy', 'secret', /privacy/],
    ['release', 'soon', /release/],
    ['opensAt', 'fri 9:00', /opensAt/],
    ['opensAt', { wall: '28.11. 18:30', zone: 'Europe/Berlin' }, /looks like/],
    ['opensAt', { wall: '2099-02-30T18:30:00', zone: 'Europe/Berlin' }, /no such day/],
    ['opensAt', { wall: '2099-11-28T18:30:00', zone: 'Atlantis/Port' }, /by place/],
    ['opensAt', { wall: '2099-11-28T18:30:00', zone: '+01:00' }, /by place/],
    ['opensAt', { wall: '2020-11-28T18:30:00', zone: 'Europe/Berlin' }, /is over/],
    ['opensAt', { wall: '2027-03-28T02:30:00', zone: 'Europe/Berlin' }, /does not exist/],
    ['opensAt', { wall: '2027-10-31T02:30:00', zone: 'Europe/Berlin' }, /comes twice/],
    ['rhythm', { rule: 'FREQ=HOURLY', from: '2026-11-27', time: '18:00', zone: 'Europe/Berlin' }, /by days/],
    ['rhythm', { rule: 'every friday', from: '2026-11-27', time: '18:00', zone: 'Europe/Berlin' }, /not understood/],
    ['rhythm', { rule: 'FREQ=DAILY', time: '18:00', zone: 'Europe/Berlin' }, /from/],
    ['hoursApart', 10_000, /at the most/],
    ['lateAtMost', -1, /at the least/],
    ['lateAtMost', 'long', /by how many hours/],
    ['sendCaptions', 'perhaps', /sendCaptions/],
    ['picture', { way: 'drawn' }, /picture/],
    ['picture', { way: 'moment' }, /picture/],
    ['picture', { way: 'layout', at: half, band: 'above' }, /band/],
    ['picture', { way: 'moment', at: { num: 1, den: 0 } }, /den/],
    ['file', { way: 'keep', set: 'talk' }, /set/],
    ['file', { way: 'set', set: '../talk' }, /by its id/],
    ['file', { tallest: 1080 }, /unspecified/],
    ['channels', ['not-an-id'], /channels/],
    ['language', 'english please', /by its tag/],
    ['recordedOn', '2027-02-29', /looks like/],
    ['forChildren', 'maybe', /forChildren/],
    ['products', Array(101).fill('2000000000015'), /100 products/],
  ])('%s as %j is not', async (field, value, why) => {
    await expect(checkedValues({ [field]: value })).rejects.toThrow(why);
  });

  it('are all fields that there are; null leaves each to the layers beneath', async () => {
    const none = Object.fromEntries(DEFAULT_FIELDS.map((field) => [field, null]));
    expect(Object.keys(await checkedValues(none)).sort()).toEqual(Object.keys(PLAIN_DEFAULTS).sort());
    expect(Object.values(await checkedValues(none)).every((value) => value === undefined)).toBe(true);
  });

  it('have tags each once, whatever the case', async () => {
    const { tags } = await checkedValues({ tags: { way: 'add', items: [' Keel', 'keel', '', 'oak '] } });
    expect(tags).toEqual({ way: 'add', items: ['Keel', 'oak'] });
  });

  it.each([null, 'privacy', 5, ['privacy'], undefined])('%j is no set of fields', async (given) => {
    await expect(givenFields(given)).rejects.toThrow();
  });
});
