import { createHash } from 'node:crypto';
import { createReadStream, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { type Begun, type Session, type SiteAdapter, type SiteChannel, SiteError } from '@/sites/contract';
import { makeClip } from '../setup/clips';

interface Subject {
  adapter: SiteAdapter;
  /** A session of an account with at least one channel. */
  session(): Promise<Session>;
  /** Cuts the next transfer after so many bytes. */
  cutNextTransfer(bytes: number): Promise<void>;
  /** How many videos the site keeps. */
  videosKept(): Promise<number>;
}

const never = new AbortController().signal;

/** What any adapter has to do against its stand-in. Abilities that the profile does not declare are not asked for. */
export function conformance(name: string, make: () => Subject): void {
  describe(`${name} meets the contract of sites`, () => {
    let subject: Subject;
    let adapter: SiteAdapter;
    let session: Session;
    let channel: SiteChannel;
    let begun: Begun;
    const clip = makeClip({ name: 'conformance.mp4', seconds: 45, bitRate: '400k' });
    const digest = createHash('sha256').update(readFileSync(clip)).digest('hex');
    const { size } = statSync(clip);
    const file = { fileName: path.basename(clip), size, open: (start: number) => createReadStream(clip, { start }) };
    const key = `conformance-${Date.now()}`;
    const words = {
      title: 'A title with a 🛶',
      text: 'Two lines\nof text\n\n0:00 One\n0:15 Two\n0:30 Three',
      tags: ['keel', 'scarf joint'],
      chapters: [
        { stamp: '0:00', title: 'One' },
        { stamp: '0:15', title: 'Two' },
        { stamp: '0:30', title: 'Three' },
      ],
    };

    beforeAll(async () => {
      subject = make();
      adapter = subject.adapter;
      session = await subject.session();
      channel = (await adapter.channels(session))[0] as SiteChannel;
    });

    it('names the account and its channels', async () => {
      const account = await adapter.account(session);
      expect(account.siteAccountId).not.toBe('');
      expect(account.name).not.toBe('');
      expect(channel.address).toMatch(/^https?:/);
    });

    it('makes room once for one key, and gives the link at once', async () => {
      const before = await subject.videosKept();
      begun = await adapter.begin(session, channel.siteChannelId, key, file);
      const again = await adapter.begin(session, channel.siteChannelId, key, file);
      expect(again).toEqual(begun);
      expect(begun.link).toMatch(/^https?:/);
      expect(await subject.videosKept()).toBe(before + 1);
    });

    it('goes on with a transfer that was cut, and brings every byte over', async () => {
      await subject.cutNextTransfer(Math.floor(size / 3));
      await expect(adapter.carry(session, begun, file, () => {}, never)).rejects.toMatchObject({ kind: 'unreachable' });
      const seen: number[] = [];
      await adapter.carry(session, begun, file, (bytes) => seen.push(bytes), never);
      expect(seen.at(-1)).toBe(size);
      if (adapter.profile.abilities.resumes) expect(seen[0]).toBeGreaterThan(0);
    });

    it('carries nothing more where all is over already', async () => {
      const opened: number[] = [];
      const open = (start: number) => {
        opened.push(start);
        return file.open(start);
      };
      const watched = { ...file, open };
      await adapter.carry(session, begun, watched, () => {}, never);
      expect(opened).toEqual([]);
    });

    it('shows what it was given, the file byte by byte, after processing', async () => {
      await adapter.describe(session, begun.siteVideoId, words, 'private');
      await adapter.describe(session, begun.siteVideoId, words, 'private');
      let status = await adapter.status(session, begun.siteVideoId);
      for (let n = 0; n < 300 && status.state.stage !== 'ready'; n += 1) {
        await pause(100);
        status = await adapter.status(session, begun.siteVideoId);
      }
      expect(status.state.stage).toBe('ready');
      expect(status.checks.verdict).toBe('passed');
      const reading = await adapter.readBack(session, begun.siteVideoId);
      expect(reading.fileDigest).toBe(digest);
      expect(reading.privacy).toBe('private');
      if (adapter.profile.title) expect(reading.title).toBe(words.title);
      if (adapter.profile.text) expect(reading.text).toBe(words.text);
      if (adapter.profile.tags) expect(reading.tags).toEqual(words.tags);
      if (adapter.profile.chapters) expect(reading.chapters).toEqual(words.chapters);
    });

    it('takes a thumbnail, twice the same', async () => {
      if (!adapter.profile.picture) return;
      const picture = await sharp({ create: { width: 1280, height: 720, channels: 3, background: '#2f5d7c' } })
        .jpeg()
        .toBuffer();
      for (let n = 0; n < 2; n += 1) await adapter.picture?.(session, begun.siteVideoId, picture, 'image/jpeg');
      const { pictureDigest } = await adapter.readBack(session, begun.siteVideoId);
      expect(pictureDigest).toBe(createHash('sha256').update(picture).digest('hex'));
    });

    it('makes a group once for one key, and puts the video in those named and no other', async () => {
      const { groups } = adapter;
      if (!adapter.profile.abilities.groups) {
        expect(groups).toBeUndefined();
        return;
      }
      const one = await groups?.make(session, channel.siteChannelId, `${key}-one`, 'One');
      const again = await groups?.make(session, channel.siteChannelId, `${key}-one`, 'One');
      const two = await groups?.make(session, channel.siteChannelId, `${key}-two`, 'Two');
      expect(again?.sitePlaylistId).toBe(one?.sitePlaylistId);
      const ids = [one?.sitePlaylistId ?? '', two?.sitePlaylistId ?? ''];
      await groups?.place(session, begun.siteVideoId, ids);
      expect((await adapter.readBack(session, begun.siteVideoId)).groups?.sort()).toEqual([...ids].sort());
      await groups?.place(session, begun.siteVideoId, ids.slice(1));
      expect((await adapter.readBack(session, begun.siteVideoId)).groups).toEqual(ids.slice(1));
      const listed = await groups?.list(session, channel.siteChannelId);
      expect(listed?.find((group) => group.sitePlaylistId === ids[1])?.videos).toBe(1);
    });

    it('refuses by its own rules what breaks its profile, and says why', async () => {
      const { title } = adapter.profile;
      if (!title) return;
      const long = { ...words, title: 'x'.repeat(title.most + 1) };
      const refused = adapter.describe(session, begun.siteVideoId, long, 'private');
      await expect(refused).rejects.toMatchObject({
        kind: 'refused',
        message: expect.stringContaining(String(title.most)),
      });
    });

    it('opens to everyone, and says so', async () => {
      await adapter.open(session, begun.siteVideoId);
      await adapter.open(session, begun.siteVideoId);
      expect((await adapter.status(session, begun.siteVideoId)).privacy).toBe('everyone');
      expect((await fetch(begun.link)).status).toBe(200);
    });

    it('removes, also what is gone already', async () => {
      if (!adapter.profile.abilities.removes) return;
      const before = await subject.videosKept();
      await adapter.remove(session, begun.siteVideoId);
      await adapter.remove(session, begun.siteVideoId);
      expect(await subject.videosKept()).toBe(before - 1);
      await expect(adapter.status(session, begun.siteVideoId)).rejects.toMatchObject({ kind: 'missing' });
      expect((await fetch(begun.link)).status).toBe(404);
    });

    it('tells a bad permission from other trouble', async () => {
      const bad: Session = { accessToken: async () => 'no such token' };
      await expect(adapter.account(bad)).rejects.toBeInstanceOf(SiteError);
      await expect(adapter.account(bad)).rejects.toMatchObject({ kind: 'permission' });
    });
  });
}
