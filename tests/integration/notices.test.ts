import { createServer, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { type NoticeSettings, PLAIN_NOTICES } from '@/core/notices';
import { momentAt } from '@/core/release';
import { sendVideo } from '@/desk/drop/send';
import { deliverDue } from '@/desk/notices/deliver';
import { renewWebhookSecret, setNotices, tryNotice } from '@/desk/notices/set-notices';
import { hmacSha256 } from '@/desk/notices/signature';
import { tell, tellOfHouse } from '@/desk/notices/tell';
import { editVideo } from '@/desk/video/edit-video';
import { lookAtNoticeSettings, lookAtNotices, lookAtUnseen, seeAll } from '@/desk/views/look-at-notices';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { database, transaction } from '@/store/database';
import { settings } from '@/store/settings';
import { makeClip } from '../setup/clips';
import {
  bringFile,
  channelsOfTheYard,
  connectedChannels,
  onlyDrop,
  readVideo,
  setFaults,
  setFaultsAt,
  untilSheet,
  untilState,
} from '../setup/desk';
import { aWorker } from '../setup/worker';

const worker = aWorker();
const opensAt = (seconds: number) => momentAt(new Date((Math.ceil(Date.now() / 1000) + seconds) * 1000), 'UTC');
const clip = makeClip({ name: 'notices.mp4', seconds: 3 });
const mailPort = () => settings().sitesPort + 4;

/** What a webhook heard, and how it answers. */
interface Heard {
  fields: IncomingMessage['headers'];
  body: string;
  at: number;
}
const heard: Heard[] = [];
let answer: (body: string) => { status: number; retryAfter?: number } | 'never' = () => ({ status: 204 });
let server: Server;
let address: string;

beforeAll(async () => {
  server = createServer(async (request, response) => {
    let body = '';
    for await (const chunk of request) body += chunk;
    heard.push({ fields: request.headers, body, at: Date.now() });
    const given = answer(body);
    if (given === 'never') return;
    if (given.retryAfter) response.setHeader('retry-after', given.retryAfter);
    response.writeHead(given.status).end();
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/hook`;
});
const away = (is: boolean) =>
  fetch(`http://127.0.0.1:${mailPort()}/control/away`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ away: is }),
  });
afterEach(async () => {
  heard.length = 0;
  answer = () => ({ status: 204 });
  await set({});
  await setFaults();
  await away(false);
});
afterAll(() => server.close());

const email = () => ({
  ...{ on: true, host: '127.0.0.1', port: mailPort() + 1, secure: false, user: '' },
  ...{ from: 'kettle@quay.example', to: 'yard@quay.example' },
});
const set = (fields: Partial<NoticeSettings>, password?: string) =>
  setNotices({ set: { ...PLAIN_NOTICES, ...fields }, ...(password === undefined ? {} : { password }) });
const mails = async (about: string) => {
  const all = (await (await fetch(`http://127.0.0.1:${mailPort()}/control/mails`)).json()) as {
    subject: string;
    text: string;
    to: string;
  }[];
  return all.filter(({ subject, text }) => `${subject}${text}`.includes(about));
};
const hooks = (about: string) => heard.filter(({ body }) => body.includes(about));

async function live(name: string): Promise<string> {
  const videoId = await bringFile(clip, 'Marrow Quay', `${name}.mp4`);
  await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready');
  await editVideo(videoId, { title: name, privacy: 'everyone' });
  await sendVideo(videoId);
  return videoId;
}
const told = async (about: string) => (await lookAtNotices()).notices.filter(({ video }) => video === about);

describe('a notice', () => {
  it('stands in the page once, as mail, and at the webhook with a signature over body and time', async () => {
    await set({ email: email(), webhook: { on: true, address } });
    const { secret = '' } = await lookAtNoticeSettings();
    await untilState(await live('Told everywhere'), 'live');
    await expect.poll(() => hooks('Told everywhere').length).toBe(1);
    await expect.poll(async () => (await mails('Told everywhere')).length).toBe(1);
    const [hook] = hooks('Told everywhere');
    const stamp = String(hook?.fields['kettle-timestamp']);
    expect(hook?.fields['kettle-signature']).toBe(`sha256=${hmacSha256(secret, `${stamp}.${hook?.body}`)}`);
    expect(Math.abs(Number(stamp) * 1000 - Date.now())).toBeLessThan(60_000);
    expect(JSON.parse(hook?.body ?? '{}')).toMatchObject({
      ...{ kind: 'live', video: 'Told everywhere', channel: 'Marrow Quay', site: 'Lanternfold' },
      page: expect.stringMatching(/\/drops\/[0-9a-f-]{36}$/),
    });
    const [mail] = await mails('Told everywhere');
    expect(mail).toMatchObject({ to: 'yard@quay.example', subject: '“Told everywhere” is live on Marrow Quay' });
    expect(await told('Told everywhere')).toMatchObject([{ kind: 'live', seen: false }]);
    const { notices } = await lookAtNotices();
    await seeAll({ upTo: notices[0]?.id });
    expect((await lookAtUnseen()).unseen).toBe(0);
  });

  it('says what needs a person, with what to do', async () => {
    await set({ email: email() });
    await setFaults({ kind: 'fail processing', match: 'Needs-me', reason: 'no picture', times: 1 });
    await untilState(await live('Needs-me'), 'snag');
    await expect.poll(async () => (await mails('Needs-me')).length).toBe(1);
    expect((await mails('Needs-me'))[0]?.text).toContain(
      'could not process the file: The file could not be read: no picture',
    );
    expect(await told('Needs-me')).toMatchObject([{ kind: 'needs you' }]);
  });

  it('need not be about a drop, and is told once where the same comes again within the hour', async () => {
    await set({ email: email(), webhook: { on: true, address }, silent: [...(await connectedChannels()).values()] });
    const of = { about: 'The shed', page: '/series#disk' };
    const tellOnce = () => transaction((trx) => tellOfHouse(trx, of, 'needs you', 'It is full.'));
    await tellOnce();
    await tellOnce();
    await expect.poll(() => hooks('The shed').length).toBe(1);
    const page = expect.stringMatching(/^http:\/\/127\.0\.0\.1:\d+\/series#disk$/);
    const body = { kind: 'needs you', video: 'The shed', count: 1, channel: '', site: '', says: 'It is full.', page };
    expect(JSON.parse(hooks('The shed')[0]?.body ?? '{}')).toMatchObject(body);
    await expect.poll(async () => (await mails('The shed')).length).toBe(1);
    const [mail] = await mails('The shed');
    expect(mail?.subject).toBe('The shed: needs you');
    expect(mail?.text).toMatch(/^The shed: needs you\nIt is full\.\nhttp/);
    expect(await told('The shed')).toMatchObject([{ leadsTo: '/series#disk', seen: false, count: 1 }]);
  });

  it('is not told of kinds and channels that are switched off, but stands in the page', async () => {
    const ids = await connectedChannels();
    await set({ webhook: { on: true, address }, silent: [ids.get('Marrow Quay') ?? ''] });
    await untilState(await live('Silent channel'), 'live');
    await set({ webhook: { on: true, address }, kinds: { ...PLAIN_NOTICES.kinds, webhook: ['missed'] } });
    await untilState(await live('Other kind'), 'live');
    await set({ webhook: { on: true, address } });
    await untilState(await live('Loud again'), 'live');
    await expect.poll(() => hooks('Loud again').length).toBe(1);
    expect(heard).toHaveLength(1);
    expect(await told('Silent channel')).toHaveLength(1);
    expect(await told('Other kind')).toHaveLength(1);
  });

  it('waits in quiet hours, and goes out after them', async () => {
    const now = new Date();
    const minute = now.getUTCHours() * 60 + now.getUTCMinutes();
    const quiet = { from: (minute + 1439) % 1440, to: (minute + 60) % 1440, zone: 'UTC' };
    await set({ email: email(), quiet });
    await untilState(await live('In the night'), 'live');
    const due = () => database()('deliveries').whereNotNull('nextTryAt').orderBy('id', 'desc').first('nextTryAt');
    await expect.poll(async () => (await due())?.nextTryAt?.getTime() ?? 0).toBeGreaterThan(Date.now() + 20 * 60_000);
    expect(await mails('In the night')).toEqual([]);
    // With one mail a day it waits on, whatever the hour; with a mail for each it waits for nothing.
    await set({ email: email(), digest: 'day', digestAt: { minute: (minute + 90) % 1440, zone: 'UTC' } });
    expect((await due())?.nextTryAt?.getTime()).toBeGreaterThan(Date.now() + 80 * 60_000);
    await set({ email: email() });
    await expect.poll(async () => (await mails('In the night')).length).toBe(1);
  });

  it('delays nothing where the webhook never answers, and mail still comes', async () => {
    answer = () => 'never';
    await set({ email: email(), webhook: { on: true, address } });
    const since = Date.now();
    await untilState(await live('Never answered'), 'live');
    await expect.poll(async () => (await mails('Never answered')).length).toBe(1);
    expect(Date.now() - since).toBeLessThan(15_000);
    await untilState(await live('The next one'), 'live');
    await expect.poll(async () => (await mails('The next one')).length).toBe(1);
  });

  it('comes again where it was refused, with the same id, and not before the time that Retry-After says (RFC 9110, 10.2.3)', async () => {
    const isFirst = (body: string) => body.includes('Refused once') && hooks('Refused once').length === 1;
    answer = (body) => (isFirst(body) ? { status: 503, retryAfter: 12 } : { status: 200 });
    await set({ webhook: { on: true, address } });
    await untilState(await live('Refused once'), 'live');
    await expect.poll(() => hooks('Refused once').length).toBe(2);
    const [first, second] = hooks('Refused once');
    expect((second?.at ?? 0) - (first?.at ?? 0)).toBeGreaterThan(11_000);
    expect(second?.fields['kettle-id']).toBe(first?.fields['kettle-id']);
  });

  it('is one with how many where one cause stops many, and goes out twice at the most', async () => {
    await set({ webhook: { on: true, address } });
    const drops = await database()('drops').where({ videoId: await live('One cause') });
    const [drop] = drops as { id: string; videoId: string; channelId: string }[];
    if (!drop) throw new Error('there is no drop');
    const says = 'Lanternfold no longer permits it. Connect the account again on Channels.';
    await Promise.all(
      Array.from({ length: 40 }, () => transaction((trx) => tell(trx, drop, 'needs you', says, 'permission'))),
    );
    const alike = (await told('One cause')).filter((each) => each.says === says);
    expect(alike).toMatchObject([{ kind: 'needs you', count: 40, seen: false }]);
    // Seen, it is new again with the next one.
    await seeAll({ upTo: alike[0]?.id });
    await transaction((trx) => tell(trx, drop, 'needs you', says, 'permission'));
    const again = (await told('One cause')).filter((each) => each.says === says);
    expect(again).toMatchObject([{ count: 41, seen: false }]);
    const deliveries = await database()('deliveries').where({ noticeId: alike[0]?.id });
    expect(deliveries.length).toBeLessThanOrEqual(2);
    // What stands alone stays alone.
    for (let n = 0; n < 2; n += 1) await transaction((trx) => tell(trx, drop, 'changed', 'Its title'));
    expect((await told('One cause')).filter((each) => each.says === 'Its title')).toHaveLength(2);
  });

  it('tells at once of a site that is away at the moment, all of it as one, and again how late it opened', async () => {
    const ids = await channelsOfTheYard();
    const held = ['Late one', 'Late other'].map(async (title) => {
      const wished = { privacy: 'everyone', release: 'at a time', opensAt: opensAt(7200), title };
      const id = await readVideo(clip, `${title}.mp4`, wished, 'Marrow Quay Films');
      await sendVideo(id);
      await untilState(id, 'held');
      return id;
    });
    const videos = await Promise.all(held);
    await set({ webhook: { on: true, address }, silent: [ids.get('Marrow Quay') ?? ''] });
    await setFaultsAt('fieldgate', { kind: 'answer', status: 503, path: '/v2/works' });
    const moment = opensAt(5);
    for (const id of videos) await editVideo(id, { opensAt: moment });
    const late = async (says: RegExp) =>
      (await lookAtNotices()).notices.filter((each) => each.kind === 'missed' && says.test(each.says));
    await expect.poll(async () => (await late(/does not yet/)).map(({ count }) => count)).toEqual([2]);
    await expect.poll(() => heard.filter(({ body }) => body.includes('does not yet'))).toHaveLength(1);
    await setFaultsAt('fieldgate');
    for (const id of videos) await untilState(id, 'live');
    expect((await late(/^Live: open to everyone, \d+ s late$/)).map(({ count }) => count)).toEqual([2]);
    await expect.poll(() => heard.some(({ body }) => / s late/.test(body))).toBe(true);
    for (const title of ['Late one', 'Late other'])
      expect(await told(title)).not.toContainEqual(expect.objectContaining({ kind: 'live' }));
  });

  it('tells of a site that does not answer at the moment, while it is still asked', async () => {
    const id = await readVideo(
      clip,
      'Unanswered.mp4',
      { privacy: 'everyone', release: 'at a time', opensAt: opensAt(7200), title: 'Unanswered' },
      '@marrowquay',
    );
    await sendVideo(id);
    await untilState(id, 'held');
    await setFaultsAt('pipwire', { kind: 'late', path: '/out', method: 'POST', seconds: 9, times: 1 });
    await editVideo(id, { opensAt: opensAt(5) });
    const says = async () => (await told('Unanswered')).map((each) => each.says);
    await expect.poll(says).toContainEqual(expect.stringMatching(/does not yet: Pipwire has not answered yet/));
    expect(onlyDrop(await lookAtSheet(id)).state).toBe('opening');
    await untilState(id, 'live');
    expect((await says())[0]).toMatch(/^Live: open to everyone, \d+ s late$/);
  });

  it('does not call what goes live for its owner alone live', async () => {
    const id = await readVideo(clip, 'Only mine.mp4', { privacy: 'private', title: 'Only mine' });
    await sendVideo(id);
    await untilState(id, 'live');
    expect(await told('Only mine')).toEqual([]);
  });

  it('that was tried often takes no other along where it is given up', async () => {
    await away(true);
    await set({ email: email() });
    await untilState(await live('Tried often'), 'live');
    await untilState(await live('Tried once'), 'live');
    const delivery = async (name: string) => {
      const { id } = (await told(name))[0] ?? {};
      return database()('deliveries').where({ noticeId: id, way: 'email' }).first();
    };
    await expect.poll(async () => (await delivery('Tried once'))?.tries).toBeGreaterThan(0);
    // Both in one try, with nothing else on its way.
    await worker.end();
    const often = { nextTryAt: new Date(0), tries: 1000 };
    await database()('deliveries').update({ nextTryAt: null });
    for (const [name, fields] of [
      ['Tried often', often],
      ['Tried once', { ...often, tries: 1 }],
    ] as const) {
      await database()('deliveries')
        .where({ id: (await delivery(name)).id })
        .update(fields);
    }
    await deliverDue('email');
    expect((await delivery('Tried often')).nextTryAt).toBeNull();
    expect((await delivery('Tried once')).nextTryAt).not.toBeNull();
    worker.start();
    await away(false);
  });

  it('is not lost where the mail server is away for a while', async () => {
    await away(true);
    await set({ email: email() });
    await untilState(await live('Mail is away'), 'live');
    await expect
      .poll(async () => (await lookAtNoticeSettings()).trouble)
      .toMatchObject([{ way: 'email', trouble: expect.stringContaining('come back later') }]);
    await away(false);
    await expect.poll(async () => (await mails('Mail is away')).length).toBe(1);
  });
});

describe('the settings of notices', () => {
  it('are tried at once, and say what went wrong', async () => {
    await set({ email: email(), webhook: { on: true, address } });
    await tryNotice({ way: 'email' });
    expect((await mails('A trial of your notices')).length).toBeGreaterThan(0);
    await tryNotice({ way: 'webhook' });
    expect(hooks('This is a trial')).toHaveLength(1);
    answer = () => ({ status: 500 });
    await expect(tryNotice({ way: 'webhook' })).rejects.toThrow('The trial did not arrive: The address answers 500.');
    await set({ email: { ...email(), port: 1 } });
    await expect(tryNotice({ way: 'email' })).rejects.toThrow('did not arrive');
  });

  it('refuse what is half, and keep password and secret sealed', async () => {
    await expect(set({ email: { ...email(), to: '' } })).rejects.toThrow('say the server, the sender');
    await expect(set({ email: { ...email(), to: 'nobody' } })).rejects.toThrow('is no mail address');
    await expect(set({ webhook: { on: true, address: 'file:///etc/passwd' } })).rejects.toThrow('http:// or https://');
    await set({ email: email(), webhook: { on: false, address } }, 'hunter2');
    const { secret, hasPassword } = await lookAtNoticeSettings();
    expect(hasPassword).toBe(true);
    const row = JSON.stringify(await database()('noticeSettings').first());
    expect(row).not.toContain('hunter2');
    expect(row).not.toContain(secret);
    await renewWebhookSecret();
    expect((await lookAtNoticeSettings()).secret).not.toBe(secret);
    await set({}, '');
    expect((await lookAtNoticeSettings()).hasPassword).toBe(false);
  });
});
