import { createHash } from 'node:crypto';
import { createReadStream, readFileSync, statSync } from 'node:fs';
import path from 'node:path';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Declarations } from '@/core/declarations';
import { PRIVACIES } from '@/core/delivery';
import { byGroup, type PartName, partNames } from '@/core/parts';
import { fraction } from '@/core/time';
import {
  type Begun,
  type CarriedParts,
  type Session,
  type SiteAdapter,
  type SiteChannel,
  SiteError,
} from '@/sites/contract';
import { makeClip } from '../setup/clips';

interface Subject {
  adapter: SiteAdapter;
  /** A session of an account with at least one channel. */
  session(): Promise<Session>;
  /** Whether the site keeps every byte that came before a cut, where it resumes; whole parts alone, where not. */
  keepsAllBeforeCut: boolean;
  /** Cuts the next transfer after so many bytes. */
  cutNextTransfer(bytes: number): Promise<void>;
  /** What is declared, as the site takes it. */
  declared: Partial<Declarations>;
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
    const clip = makeClip({ name: 'conformance-2.mp4', seconds: 45, rate: '2', bitRate: '1000k' });
    const digest = createHash('sha256').update(readFileSync(clip)).digest('hex');
    const { size } = statSync(clip);
    const file = {
      fileName: path.basename(clip),
      size,
      open: (start: number, end?: number) => createReadStream(clip, { start, end }),
    };
    const key = `conformance-${Date.now()}`;
    const chapters = [
      { stamp: '0:00', title: 'One' },
      { stamp: '0:15', title: 'Two & a half' },
      { stamp: '0:30', title: 'Three' },
    ];
    let words: Partial<CarriedParts>;
    /** Gives parts as the worker does: those of one request together, in the order of the site. */
    const give = async (parts: Partial<CarriedParts>) => {
      for (const gift of adapter.gives) {
        const values = gift.parts
          .filter((part) => part in parts)
          .map((part) => [part, parts[part as keyof CarriedParts]]);
        if (values.length > 0) await gift.give(session, begun.siteVideoId, Object.fromEntries(values));
      }
    };
    const given = () => adapter.gives.flatMap(({ parts }) => parts);
    const has = (part: PartName) => given().includes(part);
    const PRIVATE = { privacy: { to: 'private' as const, password: '' } };

    beforeAll(async () => {
      subject = make();
      adapter = subject.adapter;
      const { profile } = adapter;
      const stamps = profile.chapters?.way === 'description' ? '\n\n0:00 One\n0:15 Two & a half\n0:30 Three' : '';
      const all: Partial<CarriedParts> = {
        ...PRIVATE,
        title: 'A title with a 🛶',
        text: `Two lines\nof text${stamps}`,
        tags: ['keel', 'scarf joint'],
        chapters: { lines: chapters, times: [0, 15.4, 30].map((seconds) => fraction(seconds * 10, 10)) },
        ...byGroup(subject.declared),
      };
      words = Object.fromEntries(Object.entries(all).filter(([part]) => has(part as PartName)));
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
      const cut = Math.floor(size / 3);
      await subject.cutNextTransfer(cut);
      await expect(adapter.carry(session, begun, file, () => {}, never)).rejects.toMatchObject({ kind: 'unreachable' });
      const seen: number[] = [];
      await adapter.carry(session, begun, file, (bytes) => seen.push(bytes), never);
      expect(seen.at(-1)).toBe(size);
      if (adapter.profile.abilities.resumes) expect(seen.some((bytes) => bytes > 0 && bytes < size)).toBe(true);
      if (subject.keepsAllBeforeCut) expect(seen[0]).toBe(cut);
    });

    it('carries nothing more where all is over already', async () => {
      const opened: number[] = [];
      const open = (start: number, end?: number) => {
        opened.push(start);
        return file.open(start, end);
      };
      const watched = { ...file, open };
      await adapter.carry(session, begun, watched, () => {}, never);
      expect(opened).toEqual([]);
    });

    it('takes every part that its profile has by one request, and no other', () => {
      const { profile } = adapter;
      const { title, text, tags, chapters, picture, captions, abilities, declares } = profile;
      const fields = declares?.groups.flatMap((group) => group.fields) ?? [];
      const declared = Object.entries(byGroup(Object.fromEntries(fields.map((field) => [field, '']))));
      const parts = [
        ...(chapters ? ['chapters'] : []),
        ...(title ? ['title'] : []),
        ...(text ? ['text'] : []),
        ...(typeof tags === 'object' ? ['tags'] : []),
        ...(typeof picture === 'object' ? ['picture'] : picture ? ['moment'] : []),
        ...(captions ? ['captions'] : []),
        ...declared.flatMap(([part, values]) => (Object.keys(values ?? {}).length > 0 ? [part] : [])),
        ...(abilities.groups ? ['playlists'] : []),
      ];
      const order = (list: readonly string[]) => partNames().filter((part) => list.includes(part));
      expect(order(given()).filter((part) => part !== 'privacy')).toEqual(order(parts));
      expect(new Set(given()).size).toBe(given().length);
    });

    it('shows what it was given, the file byte by byte, after processing', async () => {
      await give(words);
      await give(words);
      const status = async () => (await adapter.look(session, begun.siteVideoId)).status;
      await expect.poll(async () => (await status()).state.stage).toBe('ready');
      await expect.poll(async () => (await status()).checks.verdict).toBe('passed');
      const { shown: reading } = await adapter.look(session, begun.siteVideoId);
      expect(reading.file).toBe(digest);
      if (!adapter.profile.opensItself) expect(reading.privacy).toBe('private');
      const { privacy: _, chapters: lines, ...plain } = words;
      expect(reading).toMatchObject(plain);
      if (lines) expect(reading.chapters).toEqual(lines.lines);
    });

    it('tells of several at once what it tells of one, and leaves out what is not there', async () => {
      if (!adapter.lookAtMany) return;
      const { siteVideoId: id } = begun;
      const { siteVideoId: other } = await adapter.begin(session, channel.siteChannelId, `${key}-other`, file);
      const looks = await adapter.lookAtMany.look(session, [id, other, 'nowhere']);
      expect([...looks.keys()].sort()).toEqual([id, other].sort());
      expect(looks.get(id)).toEqual(await adapter.look(session, id));
      expect(looks.get(other)).toEqual(await adapter.look(session, other));
      const many = Array.from({ length: adapter.lookAtMany.atOnce }, (_, n) => `nowhere-${n}`);
      expect((await adapter.lookAtMany.look(session, many)).size).toBe(0);
      await expect(adapter.lookAtMany.look(session, [...many, id])).rejects.toMatchObject({ kind: 'refused' });
    });

    it('leaves every part as it is that is not given', async () => {
      const shown = async () => {
        const { privacy, ...parts } = (await adapter.look(session, begun.siteVideoId)).shown;
        // What opens by itself may do so meanwhile.
        return adapter.profile.opensItself ? parts : { privacy, ...parts };
      };
      const before = await shown();
      for (const [part, value] of Object.entries(words)) {
        await give({ [part]: value });
        expect(await shown(), part).toEqual(before);
      }
    });

    it('takes a thumbnail, twice the same, and takes it away again', async () => {
      if (!has('picture')) return;
      const bytes = await sharp({ create: { width: 1280, height: 720, channels: 3, background: '#2f5d7c' } })
        .jpeg()
        .toBuffer();
      const shown = async () => (await adapter.look(session, begun.siteVideoId)).shown.picture;
      const picture = { bytes, type: 'image/jpeg' };
      for (let n = 0; n < 2; n += 1) await give({ picture });
      expect(await shown()).toBe(createHash('sha256').update(bytes).digest('hex'));
      for (let n = 0; n < 2; n += 1) await give({ picture: '' });
      expect(await shown()).toBeUndefined();
      await give({ picture });
    });

    it('takes a moment of the video as its picture, and leaves its words', async () => {
      if (!has('moment')) return;
      for (const moment of [fraction(5, 2), '' as const]) {
        await give({ moment });
        expect((await adapter.look(session, begun.siteVideoId)).shown.text).toBe(words.text);
      }
    });

    it('takes chapters away again', async () => {
      if (adapter.profile.chapters?.way !== 'webvtt file') return;
      await give({ chapters: { lines: [], times: [] } });
      expect((await adapter.look(session, begun.siteVideoId)).shown.chapters).toEqual([]);
      await give({ chapters: words.chapters });
    });

    it('takes captions, these and no others', async () => {
      if (!has('captions')) return;
      const track = (language: string) => ({ language, webvtt: 'WEBVTT\n\n00:00:01.000 --> 00:00:02.000\nWords\n' });
      const languages = async () => (await adapter.look(session, begun.siteVideoId)).shown.captions;
      await give({ captions: [track('de'), track('en')] });
      expect(await languages()).toEqual(['de', 'en']);
      for (let n = 0; n < 2; n += 1) await give({ captions: [track('en')] });
      expect(await languages()).toEqual(['en']);
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
      await give({ playlists: ids });
      expect((await adapter.look(session, begun.siteVideoId)).shown.playlists?.sort()).toEqual([...ids].sort());
      await give({ playlists: ids.slice(1) });
      expect((await adapter.look(session, begun.siteVideoId)).shown.playlists).toEqual(ids.slice(1));
      const listed = await groups?.list(session, channel.siteChannelId);
      expect(listed?.find((group) => group.sitePlaylistId === ids[1])?.videos).toBe(1);
    });

    it('refuses by its own rules what breaks its profile, and says why', async () => {
      const { title, text } = adapter.profile;
      const refused = async (long: Partial<CarriedParts>, most: number) => {
        await expect(give(long)).rejects.toMatchObject({
          kind: 'refused',
          message: expect.stringContaining(String(most)),
        });
      };
      if (title) await refused({ ...words, title: 'x'.repeat(title.most + 1) }, title.most);
      if (text) await refused({ ...words, text: 'x'.repeat(text.most + 1) }, text.most);
    });

    it('shows a video to whom it is told, in both directions, and says so', async () => {
      const privacy = async () => (await adapter.look(session, begun.siteVideoId)).status.privacy;
      if (adapter.profile.opensItself) {
        // What it cannot close is refused, and never taken for closed.
        const closing = adapter.showTo(session, begun.siteVideoId, 'private');
        await expect(closing).rejects.toMatchObject({ kind: 'refused' });
        return;
      }
      const known = PRIVACIES.filter((each) => each in adapter.profile.privacies);
      for (const from of known) {
        for (const to of known) {
          await adapter.showTo(session, begun.siteVideoId, from, 'oakum');
          await adapter.showTo(session, begun.siteVideoId, to, 'oakum');
          await adapter.showTo(session, begun.siteVideoId, to, 'oakum');
          expect(await privacy(), `${from} to ${to}`).toBe(to);
          expect((await fetch(begun.link)).status, `${from} to ${to}`).toBe(
            { private: 404, password: 403, link: 200, everyone: 200 }[to],
          );
        }
      }
      for (const unknown of PRIVACIES.filter((each) => !(each in adapter.profile.privacies))) {
        const asked = adapter.showTo(session, begun.siteVideoId, unknown);
        await expect(asked, unknown).rejects.toMatchObject({ kind: 'refused' });
      }
    });

    it('opens by itself at a time it is told, and not where that is taken back', async () => {
      expect(adapter.openAt !== undefined).toBe(adapter.profile.keepsTime === true);
      if (!adapter.openAt) return;
      const id = begun.siteVideoId;
      const at = (seconds: number) => new Date((Math.ceil(Date.now() / 1000) + seconds) * 1000);
      const far = at(600);
      for (let times = 0; times < 2; times += 1) await adapter.openAt?.(session, id, far, 'everyone');
      expect((await adapter.look(session, id)).status).toMatchObject({ privacy: 'private', opensAt: far });
      await adapter.showTo(session, id, 'private');
      expect((await adapter.look(session, id)).status.opensAt).toBeUndefined();
      const soon = at(1);
      await adapter.openAt?.(session, id, soon, 'link');
      await expect.poll(async () => (await adapter.look(session, id)).status.privacy).toBe('link');
      expect(Date.now()).toBeGreaterThanOrEqual(soon.getTime());
      await expect(adapter.openAt?.(session, id, new Date(0), 'everyone')).rejects.toMatchObject({ kind: 'refused' });
      await adapter.showTo(session, id, 'private');
    });

    it('opens to everyone, and says so', async () => {
      await adapter.showTo(session, begun.siteVideoId, 'everyone');
      await adapter.showTo(session, begun.siteVideoId, 'everyone');
      // A site that opens by itself takes its time.
      const privacy = async () => (await adapter.look(session, begun.siteVideoId)).status.privacy;
      await expect.poll(privacy).toBe('everyone');
      expect((await fetch(begun.link)).status).toBe(200);
    });

    it('removes, also what is gone already', async () => {
      if (!adapter.profile.abilities.removes) return;
      const before = await subject.videosKept();
      await adapter.remove(session, begun.siteVideoId);
      await adapter.remove(session, begun.siteVideoId);
      expect(await subject.videosKept()).toBe(before - 1);
      await expect(adapter.look(session, begun.siteVideoId)).rejects.toMatchObject({ kind: 'missing' });
      expect((await fetch(begun.link)).status).toBe(404);
    });

    it('tells a bad permission from other trouble', async () => {
      const bad: Session = { accessToken: async () => 'no such token', heard: async () => undefined };
      await expect(adapter.account(bad)).rejects.toBeInstanceOf(SiteError);
      await expect(adapter.account(bad)).rejects.toMatchObject({ kind: 'permission' });
    });
  });
}
