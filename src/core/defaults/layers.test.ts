import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fieldsThatDiffer, inForce, LAYERS, type LayerAt, sourceWords, valuesOf, withValues } from './layers';
import { DEFAULT_FIELDS, FIELD_NAMES, isDefaultField, type LayerValues, PLAIN_DEFAULTS } from './values';

/** Layers by their values, from the furthest to the nearest. */
const layers = (...all: LayerValues[]): LayerAt[] =>
  all.map((values, index) => {
    const layer = LAYERS[index] ?? 'drop';
    return { layer, name: layer.toUpperCase(), values };
  });

const from = (field: keyof LayerValues, all: LayerAt[]) => inForce(all)[field].from.map(({ layer }) => layer);

describe('layers', () => {
  it.each<[says: string, all: LayerValues[], value: unknown, given: string[]]>([
    ['nobody sets it', [{}, {}, {}, {}, {}], 'private', []],
    ['only the site', [{ privacy: 'link' }], 'link', ['site']],
    ['the channel over the site', [{ privacy: 'link' }, { privacy: 'everyone' }], 'everyone', ['channel']],
    ['the series over the channel', [{}, { privacy: 'everyone' }, { privacy: 'link' }], 'link', ['series']],
    ['the video over the series', [{}, {}, { privacy: 'link' }, { privacy: 'private' }], 'private', ['video']],
    [
      'one channel of it over the video',
      [{}, {}, {}, { privacy: 'link' }, { privacy: 'everyone' }],
      'everyone',
      ['drop'],
    ],
    ['a nearer one that is silent', [{ privacy: 'link' }, {}, {}, {}, {}], 'link', ['site']],
  ])('%s', (_says, all, value, given) => {
    expect(inForce(layers(...all)).privacy.value).toBe(value);
    expect(from('privacy', layers(...all))).toEqual(given);
  });

  it('take “no” for an answer, and the empty text too', () => {
    const all = layers({}, { forChildren: true, place: 'The slip' }, { forChildren: false, place: '' });
    expect(valuesOf(inForce(all))).toMatchObject({ forChildren: false, place: '' });
    expect(from('forChildren', all)).toEqual(['series']);
    expect(inForce(layers({})).forChildren.value).toBeUndefined();
  });

  it.each<[says: string, all: LayerValues[], value: string[], given: string[]]>([
    [
      'adds',
      [{}, { tags: tags('add', 'quay') }, { tags: tags('add', 'keel') }],
      ['quay', 'keel'],
      ['channel', 'series'],
    ],
    ['replaces', [{}, { tags: tags('add', 'quay') }, { tags: tags('replace', 'keel') }], ['keel'], ['series']],
    [
      'adds after it was replaced',
      [{ tags: tags('add', 'a') }, { tags: tags('replace', 'b') }, {}, { tags: tags('add', 'c') }],
      ['b', 'c'],
      ['channel', 'video'],
    ],
    ['replaces by nothing', [{ tags: tags('add', 'a') }, { tags: tags('replace') }], [], ['channel']],
    [
      'names nothing twice',
      [{ tags: tags('add', 'Keel') }, { tags: tags('add', 'keel', 'oak') }],
      ['Keel', 'oak'],
      ['site', 'channel'],
    ],
  ])('a list %s', (_says, all, value, given) => {
    expect(inForce(layers(...all)).tags.value).toEqual(value);
    expect(from('tags', layers(...all))).toEqual(given);
  });

  it('say where a value came from', () => {
    const source = (layer: (typeof LAYERS)[number], name = 'Tide Notes') => ({ layer, name });
    expect(sourceWords([])).toBe('nobody set it');
    expect(sourceWords([source('series'), source('video', '')])).toBe('the series Tide Notes and this video');
    expect(sourceWords([source('drop')])).toBe('this video on Tide Notes');
  });
});

const listOf = fc.record({
  way: fc.constantFrom('add' as const, 'replace' as const),
  items: fc.array(fc.constantFrom('keel', 'Keel', 'oak', 'rib', 'quay'), { maxLength: 4 }),
});
const anyValues: fc.Arbitrary<LayerValues> = fc.record(
  {
    privacy: fc.constantFrom('everyone' as const, 'link' as const, 'private' as const),
    forChildren: fc.boolean(),
    place: fc.string({ maxLength: 5 }),
    tags: listOf,
    playlists: listOf,
  },
  { requiredKeys: [] },
);
const anyLayers = fc.array(anyValues, { minLength: 5, maxLength: 5 });

describe('whatever layers there are', () => {
  it('the nearest that sets a field wins, and what it sets nowhere is plain', () => {
    fc.assert(
      fc.property(anyLayers, (all) => {
        const found = inForce(layers(...all));
        for (const field of ['privacy', 'forChildren', 'place'] as const) {
          const nearest = all.findLast((values) => values[field] !== undefined);
          expect(found[field].value).toBe(nearest ? nearest[field] : PLAIN_DEFAULTS[field]);
        }
        for (const field of DEFAULT_FIELDS) {
          if (all.every((values) => values[field] === undefined)) expect(found[field].from).toEqual([]);
        }
      }),
    );
  });

  it('a list has what the layers from the last replacing one on name, each once, and nothing else', () => {
    fc.assert(
      fc.property(anyLayers, (all) => {
        const { value } = inForce(layers(...all)).tags;
        const start = all.findLastIndex(({ tags: own }) => own?.way === 'replace');
        const named = all.slice(Math.max(0, start)).flatMap(({ tags: own }) => own?.items ?? []);
        const lower = value.map((tag) => tag.toLowerCase());
        expect(new Set(lower).size).toBe(value.length);
        expect(new Set(lower)).toEqual(new Set(named.map((tag) => tag.toLowerCase())));
      }),
    );
  });

  it('setting a layer back gives what it was before it was set', () => {
    fc.assert(
      fc.property(anyLayers, anyValues, fc.integer({ min: 0, max: 4 }), (all, set, at) => {
        const without = all.map((values, index) => (index === at ? withValues(values, cleared(set)) : values));
        const given = without.map((values, index) => (index === at ? withValues(values, set) : values));
        const back = given.map((values, index) => (index === at ? withValues(values, cleared(set)) : values));
        expect(inForce(layers(...back))).toEqual(inForce(layers(...without)));
      }),
    );
  });

  it('only fields that a change names can differ', () => {
    fc.assert(
      fc.property(anyLayers, anyValues, fc.integer({ min: 0, max: 4 }), (all, set, at) => {
        const changed = all.map((values, index) => (index === at ? withValues(values, set) : values));
        const [before, after] = [layers(...all), layers(...changed)];
        const differ = fieldsThatDiffer(before, after);
        for (const field of differ) expect(Object.keys(set)).toContain(field);
        const values = [before, after].map((each) => valuesOf(inForce(each)));
        const really = DEFAULT_FIELDS.filter(
          (field) => JSON.stringify(values[0]?.[field]) !== JSON.stringify(values[1]?.[field]),
        );
        expect(new Set(differ)).toEqual(new Set(really));
      }),
    );
  });
});

function tags(way: 'add' | 'replace', ...items: string[]) {
  return { way, items };
}

const cleared = (set: LayerValues): LayerValues =>
  Object.fromEntries(Object.keys(set).map((field) => [field, undefined])) as LayerValues;

describe('the fields of a layer', () => {
  it('are all that uploads have defaults for', () => {
    const all = [
      ...['titlePattern', 'template', 'tags', 'links', 'playlists', 'category', 'language', 'licence', 'recordedOn'],
      ...[
        'place',
        'sendCaptions',
        'comments',
        'ratings',
        'embedding',
        'tellSubscribers',
        'paidPlacement',
        'adultsOnly',
        'countries',
        'broadcast',
      ],
      ...[
        'forChildren',
        'adverts',
        'privacy',
        'password',
        'release',
        'opensAt',
        'lateAtMost',
        'fullFirst',
        'rhythm',
        'hoursApart',
        'picture',
        'file',
        'sendFromInbox',
        'deleteMadeFiles',
        'deleteFile',
        'uploadEarly',
        'channels',
        'credits',
        'products',
      ],
      'chapterColours',
    ];
    expect([...DEFAULT_FIELDS].sort()).toEqual(all.sort());
    for (const field of DEFAULT_FIELDS) expect(FIELD_NAMES[field]).toMatch(/^[a-z ]+$/);
  });

  it('are told from what every object has', () => {
    expect(['privacy', 'constructor', 'toString', '__proto__', ''].filter(isDefaultField)).toEqual(['privacy']);
  });
});
