import { afterAll } from 'vitest';
import type { Declarations } from '@/core/declarations';
import { site } from '@/desk/site/session';
import { SITE_PROFILES } from '@/sites/profiles';
import { closeDatabase } from '@/store/database';
import { setFaultsAt, videosAt, yardSession } from '../setup/desk';
import { conformance } from './conformance';

afterAll(closeDatabase);

/** What is declared at each site, each value another than the site's own. */
const DECLARED: Record<string, Partial<Declarations>> = {
  lanternfold: {
    category: 'craft',
    language: 'en',
    licence: 'creative commons',
    recordedOn: '2026-11-02',
    place: 'Marrow Quay',
    forChildren: false,
    adultsOnly: false,
    paidPlacement: true,
    comments: 'hold doubtful',
    ratings: false,
    embedding: false,
    tellSubscribers: false,
    broadcast: 'without captions',
    countries: { way: 'everywhere but', codes: ['GB', 'CA'] },
    adverts: 'by context',
  },
  fieldgate: { credits: [{ role: 'Camera', name: 'Isa Brandt' }] },
  pipwire: {},
  stallmarket: { products: ['2000000000015', '2000000000053'] },
};

for (const [id, profile] of Object.entries(SITE_PROFILES)) {
  conformance(profile.name, () => ({
    adapter: site(id),
    session: () => yardSession(id),
    declared: DECLARED[id] ?? {},
    // What breaks off of one part is sent again whole.
    keptOfCut: id === 'fieldgate' ? 0 : undefined,
    // Here the site really encodes what it could copy.
    cutNextTransfer: (bytes) =>
      setFaultsAt(id, { kind: 'cut', bytes, times: 1 }, { kind: 'encode', match: 'conformance' }),
    videosKept: async () => (await videosAt(id)).length,
  }));
}
