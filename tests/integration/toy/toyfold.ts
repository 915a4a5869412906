import type { PartName, PartsShown } from '@/core/parts';
import type { SiteAdapter, SiteProfile } from '@/sites/contract';
import { lanternfoldProfile } from '@/sites/lanternfold/profile';

/** A site of a few lines that only tests have: it keeps what it is given, and has mottos. */
export const toyfoldProfile: SiteProfile = {
  ...lanternfoldProfile,
  ...{ id: 'toyfold', name: 'Toyfold', tags: undefined, chapters: undefined, picture: undefined, declares: undefined },
  ...{ captions: false, fold: undefined, abilities: { ...lanternfoldProfile.abilities, groups: undefined } },
};

/** What each video there has. */
export const there = new Map<string, PartsShown & { motto?: string }>();

/** The name of a part that the code does not know. */
const MOTTO = 'motto' as PartName;
/** What it was asked to take, in order. */
export const asked: object[] = [];

const never = async (): Promise<never> => {
  throw new Error('Toyfold does not do this');
};

export const toyfold: SiteAdapter = {
  profile: toyfoldProfile,
  authorisation: { start: never, finish: never, renew: never, revoke: never },
  ...{ account: never, channels: never, begin: never, carry: never, remove: never },
  gives: [
    {
      parts: ['title', 'text'],
      async give(_, id, { title, text }) {
        asked.push({ title, text });
        there.set(id, { ...there.get(id), ...(title !== undefined && { title }), ...(text !== undefined && { text }) });
      },
    },
    {
      parts: [MOTTO],
      async give(_, id, values) {
        const { motto } = values as { motto?: string };
        asked.push({ motto });
        there.set(id, { ...there.get(id), motto });
      },
    },
  ],
  showTo: async () => undefined,
  look: async (_, id) => ({
    status: { state: { stage: 'ready' }, checks: { verdict: 'passed' }, privacy: 'private' },
    shown: { ...there.get(id), privacy: 'private' },
  }),
};
