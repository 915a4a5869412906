import { afterAll } from 'vitest';
import { lookAtChannels } from '@/desk/look';
import { sessionFor, site } from '@/desk/session';
import { closeDatabase } from '@/store/database';
import { connectedChannels, setFaults, videosAtLanternfold } from '../setup/desk';
import { conformance } from './conformance';

afterAll(closeDatabase);

conformance('Lanternfold', () => ({
  adapter: site('lanternfold'),
  async session() {
    await connectedChannels();
    const { sites } = await lookAtChannels();
    return sessionFor(sites.find((each) => each.id === 'lanternfold')?.accounts[0]?.id ?? '');
  },
  cutNextTransfer: (bytes) => setFaults({ kind: 'cut', bytes, times: 1 }),
  videosKept: async () => (await videosAtLanternfold()).length,
}));
