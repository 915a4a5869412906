import { afterAll, describe, expect, it } from 'vitest';
import { MoveRefused } from '@/core/drop';
import { hearChanges } from '@/desk/views/hear';
import { closeDatabase, database } from '@/store/database';
import { claimDrops } from '@/store/drop/claims';
import { dropsOf, makeDrop, moveDrop, setClaimedDrop } from '@/store/drop/drops';
import { eventsOf } from '@/store/drop/events';
import { announce, type FeedEntry } from '@/store/feed';
import { newId } from '@/store/ids';
import { ClaimLost } from '@/store/queue/claims';
import { applyMarkerChange, markersOf } from '@/store/record/markers';
import { makeVideo, videoById } from '@/store/record/videos';
import { keepAccount, keepConnectRequest, takeConnectRequest } from '@/store/site/accounts';
import { allChannels, keepChannels, keepPlaylists, playlistsOf } from '@/store/site/channels';
import { newVideo } from '../setup/new-video';

const made: string[] = [];

afterAll(async () => {
  // Other tests share the database and take every account for one that a person has connected.
  await database()('channels').whereIn('accountId', made).delete();
  await database()('accounts').whereIn('id', made).delete();
  await closeDatabase();
});

const tokens = { access: 'a', refresh: 'r', expiresAt: 0 };

async function channel(name: string): Promise<string> {
  const db = database();
  const account = { site: 'lanternfold', siteAccountId: newId(), name, scope: '' };
  const accountId = await keepAccount(db, account, tokens);
  made.push(accountId);
  await keepChannels(db, accountId, [{ siteChannelId: 'c1', name, address: 'http://x', mayEarn: false }]);
  return (await allChannels(db)).find((each) => each.accountId === accountId)?.id ?? '';
}

describe('the store', () => {
  it('gives ids that sort by the time at which they were made', async () => {
    const ids: string[] = [];
    for (let n = 0; n < 50; n += 1) ids.push(newId());
    expect([...ids].sort()).toEqual(ids);
    expect(ids[0]).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-7/);
  });

  it('keeps every sign of Unicode', async () => {
    const db = database();
    const title = '🛶 ⚓ Zażółć 𝔎 "quote" \\ \u200b';
    const id = await makeVideo(db, newVideo(title));
    expect((await videoById(db, id))?.title).toBe(title);
  });

  it('lets a connect request serve once', async () => {
    const db = database();
    const state = newId();
    await keepConnectRequest(db, { state, site: 'lanternfold', verifier: 'verifier', accountId: undefined });
    const row = await db('connectRequests').where({ state }).first();
    expect(row.sealedVerifier).not.toContain('verifier');
    expect(await takeConnectRequest(db, state)).toEqual({ site: 'lanternfold', verifier: 'verifier' });
    expect(await takeConnectRequest(db, state)).toBeUndefined();
  });

  it('keeps playlists as the site lists them, and forgets those that are gone there', async () => {
    const db = database();
    const id = await channel('Lists');
    const list = (sitePlaylistId: string, title: string) => ({ sitePlaylistId, title, videos: 1 });
    await keepPlaylists(db, id, [list('a', 'A'), list('b', 'B')]);
    await keepPlaylists(db, id, [list('b', 'B renamed'), list('c', 'C')]);
    expect((await playlistsOf(db, [id])).map((each) => each.title)).toEqual(['B renamed', 'C']);
  });

  it('puts, changes and takes away markers by the thousand', async () => {
    const db = database();
    const video = await makeVideo(db, newVideo('many'));
    const put = Array.from({ length: 1200 }, (_, n) => ({
      id: newId(),
      time: { num: n, den: 25 },
      length: { num: 0, den: 1 },
      name: `m${n}`,
      note: '',
      colour: 'red',
      on: 'timeline' as const,
      kind: 'by choice' as const,
    }));
    await applyMarkerChange(db, video, { put, remove: [] });
    await applyMarkerChange(db, video, {
      put: put.slice(0, 2).map((marker) => ({ ...marker, name: 'new' })),
      remove: put.slice(2, 700).map(({ id }) => id),
    });
    const left = await markersOf(db, video);
    expect(left).toHaveLength(502);
    expect(left.slice(0, 3).map((marker) => marker.name)).toEqual(['new', 'new', 'm700']);
  });
});

describe('drops in the store', () => {
  it('move by the table only, each move written down, and only by who holds the claim', async () => {
    const db = database();
    const video = await makeVideo(db, newVideo('drops'));
    await makeDrop(db, video, await channel('Drops'));
    const [draft] = await dropsOf(db, [video]);
    if (!draft) throw new Error('There is no drop');
    await expect(moveDrop(db, draft, 'opened', 'no')).rejects.toBeInstanceOf(MoveRefused);
    await moveDrop(db, draft, 'send', 'Sent');
    // Somebody who still believes that it is a draft moves nothing.
    await expect(moveDrop(db, draft, 'send', 'Sent twice')).rejects.toBeInstanceOf(ClaimLost);
    const choice = { states: ['packing'] as const, most: 1, resting: [], firstTryAlways: false };
    const [claim] = await claimDrops('w1', 30, choice);
    expect(claim?.id).toBe(draft.id);
    if (!claim) return;
    await setClaimedDrop(db, claim, { bytesTotal: 5 });
    await expect(setClaimedDrop(db, { ...claim, owner: 'w2' }, { bytesTotal: 6 })).rejects.toBeInstanceOf(ClaimLost);
    const [packing] = await dropsOf(db, [video]);
    if (packing) await moveDrop(db, packing, 'remove', 'Taken away by a person');
    await expect(setClaimedDrop(db, claim, { bytesTotal: 7 })).rejects.toBeInstanceOf(ClaimLost);
    expect((await eventsOf(db, [draft.id])).map((event) => event.says)).toEqual(['Sent', 'Taken away by a person']);
    await db('videos').where({ id: video }).delete();
    expect(await eventsOf(db, [draft.id])).toEqual([]);
  });
});

describe('the feed', () => {
  it('tells every listener of every change once, also of transactions that end out of order', async () => {
    const db = database();
    const heard: FeedEntry[] = [];
    const stop = hearChanges((entries) => heard.push(...entries));
    const [first, a, b, last] = [newId(), newId(), newId(), newId()];
    const ours = () => heard.map((entry) => entry.subject).filter((subject) => [first, a, b, last].includes(subject));
    await announce(db, 'video', first);
    await expect.poll(ours).toEqual([first]);
    const late = await db.transaction();
    await announce(late, 'video', a);
    await announce(db, 'video', b);
    await expect.poll(ours).toEqual([first, b]);
    await late.commit();
    await expect.poll(ours).toEqual([first, b, a]);
    await announce(db, 'video', last);
    await expect.poll(ours).toEqual([first, b, a, last]);
    stop();
  });

  it('tells a listener of what began before it listened, and of what a page has missed meanwhile', async () => {
    const db = database();
    const late = await db.transaction();
    const [a, b] = [newId(), newId()];
    await announce(late, 'video', a);
    await announce(db, 'video', b);
    const [heard, missed]: FeedEntry[][] = [[], []];
    const stops = [
      hearChanges((entries) => heard?.push(...entries)),
      hearChanges((entries) => missed?.push(...entries), 5000),
    ];
    const ours = (all: FeedEntry[] = []) =>
      all.map(({ subject }) => subject).filter((each) => each === a || each === b);
    await expect.poll(() => ours(missed)).toContain(b);
    await late.commit();
    // What is told twice is read twice; what is told never is not read.
    await expect.poll(() => ours(heard)).toContain(a);
    await expect.poll(() => new Set(ours(missed))).toEqual(new Set([b, a]));
    for (const stop of stops) stop();
  });
});
