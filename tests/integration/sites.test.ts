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

/** The site that really encodes what it could copy; all do it by the same code. */
const ENCODES = 'fieldgate';
const ENCODED = { kind: 'encode', match: 'conformance' };

for (const [id, profile] of Object.entries(SITE_PROFILES)) {
  conformance(profile.name, () => ({
    adapter: site(id),
    session: () => yardSession(id),
    declared: DECLARED[id] ?? {},
    // What breaks off of one part is sent again whole.
    keepsAllBeforeCut: profile.abilities.resumes && id !== 'fieldgate',
    cutNextTransfer: (bytes) => setFaultsAt(id, { kind: 'cut', bytes, times: 1 }, ...(id === ENCODES ? [ENCODED] : [])),
    videosKept: async () => (await videosAt(id)).length,
  }));
}
