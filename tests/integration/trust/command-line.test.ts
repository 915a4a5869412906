import { execFileSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { editDefaults } from '@/desk/defaults/defaults';
import { newSeries } from '@/desk/defaults/series';
import { lookAtBoardCounts } from '@/desk/views/look-at-board';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { keepHome } from '@/store/installation';
import { settings } from '@/store/settings';
import { makeClip } from '../../setup/clips';
import { kettle, startedKettle } from '../../setup/command';
import { channelsOfTheYard, setFaults, untilState } from '../../setup/desk';
import { aWorker } from '../../setup/worker';

const folder = mkdtempSync(path.join(os.tmpdir(), 'kettle-cli-'));
aWorker();
let ids: Map<string, string>;

/** Each of its own length, so that none is taken for another. */
let seconds = 2;
const freshClip = (name: string) => {
  seconds += 0.2;
  return makeClip({ name: `cli-${name}.mp4`, seconds, size: '160x90' });
};

const run = (...args: string[]) => kettle(args);
/** With so many seconds in which what is to open can be stopped. */
async function whileHeld(holdSeconds: number, does: () => Promise<void>): Promise<void> {
  const before = settings().holdSeconds;
  settings().holdSeconds = holdSeconds;
  await does().finally(() => {
    settings().holdSeconds = before;
  });
}
const videos = async () => Object.values((await lookAtBoardCounts()).counts).reduce((sum, count) => sum + count, 0);
const file = (name: string, text: string) => {
  const at = path.join(folder, name);
  writeFileSync(at, text);
  return at;
};

beforeAll(async () => {
  ids = await channelsOfTheYard();
});
afterAll(() => setFaults());

describe('send', () => {
  it('goes only where it is said, whatever the series ticks', async () => {
    const series = await newSeries({ name: 'Everywhere', pattern: 'everywhere_{title}' });
    const all = ['Tide Notes', 'Marrow Quay Films'].map((name) => ids.get(name));
    await editDefaults({ layer: 'series', owner: series }, { channels: all, forChildren: false });
    const clip = makeClip({ name: 'everywhere_one.mp4', seconds: 2.1, size: '160x90' });
    const sent = await run('send', clip, '--channel', 'Marrow Quay', '--watch');
    expect(sent).toMatchObject({ status: 0, said: '' });
    expect(sent.out).toMatch(/^Sent to Marrow Quay as video/m);
    const id = /as video (\S+)/.exec(sent.out)?.[1] ?? '';
    const ticked = (await lookAtSheet(id)).channels.filter((channel) => channel.ticked).map(({ name }) => name);
    expect(ticked).toEqual(['Marrow Quay']);
  });

  it('asks where to, for a file that no series knows, and leaves nothing behind', async () => {
    const before = await videos();
    const clip = freshClip('nowhere');
    const asked = await run('send', clip);
    expect(asked.status).toBe(1);
    expect(asked.said).toContain('Say where it goes with --channel or --series');
    expect(await videos()).toBe(before);
  });

  it.each([
    ['a channel that is none', ['--channel', 'Nowhere'], /no channel called “Nowhere”/],
    ['a series that is none', ['--channel', 'Marrow Quay', '--series', 'Nothing'], /no series called “Nothing”/],
    ['a privacy that is none', ['--channel', 'Marrow Quay', '--privacy', 'secret'], /everyone, link or private/],
    ['an answer that is none', ['--channel', 'Marrow Quay', '--for-children', 'maybe'], /yes or no/],
    [
      'markers that are not there',
      ['--channel', 'Marrow Quay', '--markers', '/no/such.edl'],
      /There is no folder \/no/,
    ],
    ['an unanswered question', ['--channel', 'Marrow Quay'], /not ready/],
  ])('with %s says so and leaves no draft', async (what, args, says) => {
    const before = await videos();
    const { status, said } = await run('send', freshClip(what.replaceAll(' ', '-')), ...args);
    expect(status).toBe(1);
    expect(said).toMatch(says);
    expect(said).not.toMatch(/^\s+at /m);
    expect(await videos()).toBe(before);
  });

  it('of markers without a colour makes no chapters, and says so', async () => {
    const edl = file('m.edl', 'TITLE: x\n001 AX V C 0:0\n* LOC: 00:00:00:00 GREEN client HATES this\n');
    const args = ['--channel', 'Marrow Quay Films', '--markers', edl];
    const sent = await run('send', freshClip('markers'), ...args, '--watch');
    expect(sent.out).toContain('No marker is a chapter');
    const id = /as video (\S+)/.exec(sent.out)?.[1] ?? '';
    expect(JSON.stringify((await lookAtSheet(id)).channels.find(({ ticked }) => ticked)?.words)).not.toContain('HATES');
  });

  it('of a folder, of what is no file and of a file that is here says what it is', async () => {
    expect((await run('send', folder, '--channel', 'Marrow Quay')).said).toContain('is a folder');
    expect((await run('send', '/no/such.mp4', '--channel', 'Marrow Quay')).said).toContain(
      'There is no file /no/such.mp4',
    );
    const clip = freshClip('twice');
    const args = ['--channel', 'Marrow Quay', '--for-children', 'no'];
    expect((await run('send', clip, ...args)).status).toBe(0);
    expect((await run('send', clip, ...args)).said).toMatch(/here already, as “Cli twice”.*--again/);
    expect((await run('send', clip, ...args, '--again')).status).toBe(0);
  });
});

describe('a video from the command line', () => {
  it('is shown, set, sent again, opened, closed, removed and deleted, by its id, link or title', async () => {
    const args = ['--channel', 'Marrow Quay', '--for-children', 'no', '--title', 'Command line 🛶'];
    const sent = await run('send', freshClip('acts'), ...args, '--watch');
    const id = /as video (\S+)/.exec(sent.out)?.[1] ?? '';
    const shown = async () => JSON.parse((await run('show', id, '--json')).out);
    const [channel] = (await shown()).channels;
    expect(channel).toMatchObject({ channel: 'Marrow Quay', state: 'live', openTo: 'private', changes: [] });
    expect((await run('show', channel.link)).out).toContain('Live · private · checked');

    expect(
      (await run('set', 'Command line 🛶', 'summary=From a script', 'tags=keel,oak', 'privacy=everyone')).said,
    ).toBe('');
    expect((await run('set', id, 'release=on my word')).status).toBe(0);
    expect((await shown()).channels[0].changes.map(({ field }: { field: string }) => field)).toEqual([
      'privacy',
      'text',
      'tags',
    ]);
    expect((await run('send', id, '--watch')).out).toContain('Changes sent to the site: privacy, text, tags');
    expect((await shown()).channels[0]).toMatchObject({ state: 'held', openTo: 'private' });
    const parts = async () => JSON.parse((await run('parts', id, '--channel', 'Marrow Quay', '--json')).out)[0].parts;
    const [privacy] = await parts();
    // Who it was sent for is wanted; who sees it is what the site has said.
    expect(privacy).toMatchObject({ part: 'privacy', wanted: { to: 'everyone' }, asked: null });
    expect(privacy.given?.value.to ?? 'private').toBe('private');
    expect((await run('parts', id)).out).toMatch(/^Marrow Quay on Lanternfold\n {2}privacy +to be sent: privacy/);
    expect((await parts()).find(({ part }: { part: string }) => part === 'tags')).toMatchObject({
      ...{
        given: { value: ['keel', 'oak'], at: expect.any(String) },
        shown: null,
        left: false,
        failed: null,
        toGive: [],
      },
    });
    await whileHeld(600, async () => {
      const opens = await run('open', channel.link);
      expect(opens.out).toMatch(/^Marrow Quay: Opens in (600|599) s\. Until then, “kettle stop \S+” stops it\n$/);
      expect((await run('stop', id)).out).toBe('Marrow Quay: Not opened: taken back\n');
      expect((await run('open', id, '--at', 'in 2 h', '--now')).said).toContain('Leave --now out');
      const now = (await run('open', channel.link, '--now', '--watch')).out;
      expect(now).toMatch(/^Marrow Quay: Opens now\n/);
      expect(now).toContain('Live: open to everyone');
      expect(now).toMatch(/\nMarrow Quay: Live · checked\n$/);
    });
    expect((await fetch(channel.link)).status).toBe(200);
    const closed = (await run('close', id, '--channel', 'Marrow Quay', '--watch')).out;
    const asked = 'Closing: private; still open to everyone until Lanternfold confirms it';
    // A site may be as quick as the next line.
    expect([asked, 'Private, as Lanternfold confirms'].map((says) => `Marrow Quay: ${says}`)).toContain(
      closed.split('\n')[0],
    );
    expect(closed).toContain('Closed: private now');
    expect(closed).toMatch(/\nMarrow Quay: Live · private · checked\n$/);
    expect((await fetch(channel.link)).status).toBe(404);
    expect(await run('open', id)).toMatchObject({ status: 1, said: expect.stringContaining('no channel at which') });

    expect((await run('set', id, 'privacy=link', 'title=Its own', '--channel', 'Marrow Quay')).said).toBe('');
    expect(await shown()).toMatchObject({
      title: 'Command line 🛶',
      channels: [{ title: 'Its own', privacy: 'link' }],
    });
    expect((await run('set', id, 'colour=red')).said).toContain('There is no field “colour”');
    expect((await run('set', id, 'title')).said).toContain('no FIELD=VALUE');

    expect((await run('delete', id)).said).toContain('--from-sites');
    expect((await run('remove', id, '--watch')).out).toContain('Being removed');
    expect((await shown()).channels[0].state).toBe('removed');
    expect((await run('delete', id)).out).toBe('Deleted\n');
    expect((await run('show', id)).said).toContain('There is no video');
  });

  it('with a snag is tried again, or accepted', async () => {
    const args = ['--channel', 'Marrow Quay', '--for-children', 'no'];
    await setFaults({ kind: 'alter', match: 'altered', field: 'title', value: 'Mangled', times: 1 });
    const sent = await run('send', freshClip('altered'), ...args, '--watch');
    expect(sent.status).toBe(1);
    const id = /as video (\S+)/.exec(sent.out)?.[1] ?? '';
    expect((await run('again', id, '--watch')).out).toContain('Live: private');
    await setFaults({ kind: 'rights match', match: 'matched', wants: 'silence' });
    const matched = await run('send', freshClip('matched'), ...args, '--watch');
    const other = /as video (\S+)/.exec(matched.out)?.[1] ?? '';
    expect((await run('accept', other, '--watch')).out).toContain('silence there');
    await untilState(other, 'live');
  });

  it('is not guessed at where several have its title', async () => {
    const args = ['--channel', 'Marrow Quay', '--for-children', 'no', '--title', 'Twins'];
    for (const name of ['twin-one', 'twin-two']) await run('send', freshClip(name), ...args);
    expect((await run('show', 'Twins')).said).toMatch(
      /There are 2 videos called “Twins”. Say which by its id: \S+, \S+/,
    );
    expect((await run('show', 'twins')).said).toContain('There is no video “twins”');
  });
});

describe('every command', () => {
  it('ends quietly where its reader has seen enough', async () => {
    const out = execFileSync('bash', ['-c', `${process.execPath} bin/kettle.mjs status 2>&1 | head -1`], {
      encoding: 'utf8',
      env: { ...process.env, KETTLE_LOG_LEVEL: 'silent' },
    });
    expect(out.trim().split('\n')).toHaveLength(1);
    expect(out).not.toContain('EPIPE');
  });

  it('says what was wrong with what, and ends with 1', async () => {
    const edl = file('two.edl', 'TITLE: x\n001 AX V C 0:0\n* LOC: 01:00:00:00 GREEN a\n');
    const cases: [string[], RegExp][] = [
      [['fit'], /required option '--json <file>'/],
      [['sent'], /unknown command 'sent'/],
      [['markers', folder], /is a folder/],
      [['markers', '/no/such/m.edl'], /There is no folder \/no\/such/],
      [['markers', path.join(folder, 'none.edl')], /There is no file/],
      [['markers', edl, '--start', '99:99'], /"99:99" is not a timecode/],
      [['convert', edl, '--to', 'vtt', '--colour', 'red'], /No marker lies there/],
      [['convert', edl, '--to', 'vtt', '--output', '/no/such/out.vtt'], /There is no folder \/no\/such/],
      [['markers', file('none.otio', '{"OTIO_SCHEMA":"Stack.1","children":[]}')], /No marker was found/],
      [['fit', '--json', file('f.json', '{"titel":"x"}'), '--site', 'lanternfold'], /unknown keys: titel/],
      [
        ['fit', '--json', file('g.json', '{"links":[{"href":"x","url":"y"}]}'), '--site', 'pipwire'],
        /unknown keys: href/,
      ],
      [['fit', '--json', file('h.json', '[1]'), '--site', 'pipwire'], /no JSON object/],
    ];
    // It never ends the process that it is part of.
    const exit = vi.spyOn(process, 'exit');
    for (const [args, says] of cases) {
      const { status, said } = await run(...args);
      expect([args.join(' '), status]).toEqual([args.join(' '), 1]);
      expect(said, args.join(' ')).toMatch(says);
    }
    const table = file('when.csv', 'When,Title,Colour\n0:05,Start,green\n');
    expect(JSON.parse((await run('markers', table)).out).markers).toMatchObject([{ name: 'Start', colour: 'green' }]);
    expect(
      (await run('convert', edl, '--to', 'ffmetadata', '--in', '01:00:00:00', '--out', '01:00:20:00')).out,
    ).toContain('END=500');
    expect((await run('fit', '--help')).out).toContain('durationSeconds  number');
    expect(exit).not.toHaveBeenCalled();
    exit.mockRestore();
  });

  it('finds the folder of the Kettle Drop that runs, or says that it is not here', async () => {
    await keepHome(settings().home);
    const elsewhere = mkdtempSync(path.join(os.tmpdir(), 'kettle-elsewhere-'));
    const args = ['--channel', 'Marrow Quay', '--for-children', 'no', '--watch'];
    const sent = await startedKettle(['send', freshClip('home'), ...args], { KETTLE_HOME: elsewhere });
    expect(sent.said).toContain(settings().home);
    expect(sent).toMatchObject({ status: 0, out: expect.stringContaining('Live: private') });
    await keepHome('/no/such/home');
    const lost = await startedKettle(['status'], { KETTLE_HOME: elsewhere });
    expect(lost).toMatchObject({ status: 1, said: expect.stringContaining('is not on this machine') });
    await keepHome(settings().home);
  });
});
