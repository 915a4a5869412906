import { afterAll, describe, expect, it } from 'vitest';
import { disconnect, removeAccount } from '@/desk/account/connect';
import { lookAtChannels } from '@/desk/views/look';
import { lookAtBoard } from '@/desk/views/look-at-board';
import { lookAtLayer } from '@/desk/views/look-at-layers';
import { closeDatabase } from '@/store/database';
import { connectAs } from '../../demo/sign-in';

afterAll(closeDatabase);

const accounts = async () => (await lookAtChannels()).sites.find(({ id }) => id === 'fieldgate')?.accounts ?? [];
const named = async (name: string) => (await accounts()).find((account) => account.name === name);

describe('an account', () => {
  it('that somebody else signs in instead of is said; both are as they are', async () => {
    expect(await connectAs('fieldgate', 'ono-lind')).toEqual({ name: 'Ono Lind', insteadOf: undefined });
    const ono = await named('Ono Lind');
    expect(await connectAs('fieldgate', 'ono-lind', ono?.id)).toEqual({ name: 'Ono Lind', insteadOf: undefined });
    await disconnect(ono?.id ?? '');
    expect(await connectAs('fieldgate', 'isa-brandt', ono?.id)).toEqual({ name: 'Isa Brandt', insteadOf: 'Ono Lind' });
    expect((await named('Ono Lind'))?.state).toBe('disconnected');
    // Defaults are offered for the channels that something can go to.
    const { channels } = await lookAtLayer({ layer: 'site', owner: 'fieldgate' });
    expect(channels.map(({ name }) => name)).toEqual(['Marrow Quay Films']);
  });

  it('that is disconnected can be removed, one that is connected cannot; connected again, it is back', async () => {
    const isa = await named('Isa Brandt');
    await expect(removeAccount(isa?.id ?? '')).rejects.toThrow('Disconnect Isa Brandt first');
    const ono = await named('Ono Lind');
    await removeAccount(ono?.id ?? '');
    expect(await named('Ono Lind')).toBeUndefined();
    const columns = async () => (await lookAtBoard()).channels.map(({ name }) => name);
    expect(await columns()).not.toContain('Lind Light');
    await expect(removeAccount(ono?.id ?? '')).rejects.toMatchObject({ kind: 'not now' });
    await connectAs('fieldgate', 'ono-lind');
    expect((await named('Ono Lind'))?.id).toBe(ono?.id);
    expect(await columns()).toContain('Lind Light');
    await disconnect(ono?.id ?? '');
    await removeAccount(ono?.id ?? '');
  });
});
