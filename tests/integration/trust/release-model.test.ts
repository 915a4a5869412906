import { setTimeout as pause } from 'node:timers/promises';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { momentAt } from '@/core/release';
import { actOnDrop } from '@/desk/actions/act-on-drop';
import { DeskError } from '@/desk/desk-error';
import { sendVideo } from '@/desk/drop/send';
import { editVideo, tickChannel } from '@/desk/video/edit-video';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { database } from '@/store/database';
import { dropById } from '@/store/drop/drops';
import { settings } from '@/store/settings';
import { makeClip } from '../../setup/clips';
import {
  bringFile,
  channelsOfTheYard,
  onlyDrop,
  setFaultsAt,
  untilSheet,
  untilState,
  videosAt,
} from '../../setup/desk';
import { aWorker } from '../../setup/worker';

/** Either may be away, or both. */
const workers = [aWorker(), aWorker()];
const clip = makeClip({ name: 'release-model.mp4', seconds: 2 });
/** One site that keeps times by itself, and one for which Kettle Drop does. */
const PLACES = [
  { site: 'lanternfold', channel: 'Marrow Quay' },
  { site: 'fieldgate', channel: 'Marrow Quay Films' },
] as const;
let ids: Map<string, string>;

const startAll = () => {
  for (const worker of workers) if (!worker.isRunning()) worker.start();
};
const noFaults = async () => {
  for (const { site } of PLACES) await setFaultsAt(site);
};
/** A word to open can be taken back for so long. */
const HOLD_SECONDS = 1;
const { holdSeconds } = settings();
beforeAll(async () => {
  ids = await channelsOfTheYard();
  settings().holdSeconds = HOLD_SECONDS;
});
afterAll(async () => {
  settings().holdSeconds = holdSeconds;
  await noFaults();
});

/** What really came about over all runs: a model that nothing happens to holds nothing. */
const done = { opened: 0, closed: 0, 'taken back': 0, 'called off': 0, killed: 0, 'due while no worker was there': 0 };

/** What is known of one video: its set time, since when a word holds, whether it was seen to be open, and whether it was closed. */
interface Known {
  set: number;
  word: number;
  opened: boolean;
  closed: boolean;
}
/** A time may be said in another zone each time. */
const ZONES = ['Asia/Kolkata', 'America/New_York', 'Pacific/Auckland'];
const NEVER = Number.POSITIVE_INFINITY;
/** From when on it may be open. */
const mayOpenFrom = ({ set, word }: Known): number => Math.min(set, word);
type Model = Known[];

/** One video with what its site really shows. */
class Real {
  constructor(
    readonly videoId: string,
    readonly site: string,
    readonly fileName: string,
  ) {}

  async there(): Promise<{ open: boolean; since: number }> {
    const video = (await videosAt(this.site)).find(({ fileName }) => fileName === this.fileName) ?? {};
    const open = video.visibility === 'open' || video.audience === 'public';
    return { open, since: Date.parse(String(video.publishedAt)) };
  }

  /** Looks whether it is open, and holds that against from when on it may be. */
  async look(known: Known): Promise<void> {
    // Whether it had opened just before it was closed is all the same.
    if (known.closed) return;
    const { open, since } = await this.there();
    if (known.opened) expect(open, `${this.fileName} was closed again`).toBe(true);
    else if (open) {
      expect(since, `${this.fileName} is open, and was not to be before`).toBeGreaterThanOrEqual(mayOpenFrom(known));
      known.opened = true;
      done.opened += 1;
    }
  }
}

type Command = fc.AsyncCommand<Model, Real[]>;

/** Does something to one video; what the desk refuses changes nothing. */
class ToVideo implements Command {
  constructor(
    readonly index: number,
    readonly what: 'in seconds' | 'choose' | 'call off' | 'word' | 'take back' | 'close',
    readonly seconds: number,
  ) {}
  check = () => true;
  toString = () => `${this.what}(${this.index}${this.what === 'in seconds' ? `, ${this.seconds} s` : ''})`;
  async run(model: Model, real: Real[]): Promise<void> {
    const [known, video] = [model[this.index], real[this.index]];
    if (!known || !video || known.closed) return;
    await video.look(known);
    // What is said while it opens may come too late, or just in time: both are right, and from then on both may be seen.
    const before = mayOpenFrom(known);
    const at = Date.now();
    try {
      if (this.what === 'in seconds') {
        const instant = Math.ceil(at / 1000) * 1000 + this.seconds * 1000;
        const zone = ZONES[this.seconds % ZONES.length] ?? 'UTC';
        await editVideo(video.videoId, { release: 'at a time', opensAt: momentAt(new Date(instant), zone) });
        Object.assign(known, { set: instant, word: NEVER });
      } else if (this.what === 'call off' || this.what === 'choose') {
        // A way to open that is only chosen opens nothing, whatever time was said for another before.
        const chosen = { release: 'at a time', opensAt: null };
        await editVideo(video.videoId, this.what === 'choose' ? chosen : { release: 'on my word' });
        if (mayOpenFrom(known) > at && mayOpenFrom(known) < NEVER) done['called off'] += 1;
        Object.assign(known, { set: NEVER, word: NEVER });
      } else if (this.what === 'close') {
        await actOnDrop(onlyDrop(await lookAtSheet(video.videoId)).id, { action: 'close' });
        known.closed = true;
        done.closed += 1;
        return;
      } else {
        const { id } = onlyDrop(await lookAtSheet(video.videoId));
        await actOnDrop(id, { action: this.what === 'word' ? 'open' : 'not yet' });
        if (this.what === 'take back') done['taken back'] += 1;
        known.word = this.what === 'word' ? at + HOLD_SECONDS * 1000 : NEVER;
      }
    } catch (error) {
      if (!(error instanceof DeskError)) throw error;
    }
    // It may have opened by what held before, just before this.
    const { open, since } = await video.there();
    if (open && !known.opened && since < mayOpenFrom(known)) {
      expect(since).toBeGreaterThanOrEqual(Math.min(before, at));
      expect(since).toBeLessThanOrEqual(Date.now());
      known.opened = true;
      done.opened += 1;
    }
  }
}

/** Does something to the machine or to the sites. */
class ToMachine implements Command {
  constructor(
    readonly what: 'kill' | 'start' | 'busy' | 'wait',
    readonly milliseconds: number,
    readonly which = 0,
  ) {}
  check = () => true;
  toString = () => (this.what === 'wait' ? `wait(${this.milliseconds} ms)` : `${this.what} ${this.which}`);
  async run(model: Model, real: Real[]): Promise<void> {
    const worker = workers[this.which];
    if (this.what === 'kill' && worker?.isRunning()) {
      await worker.end('SIGKILL');
      done.killed += 1;
    }
    if (this.what === 'start' && !worker?.isRunning()) worker?.start();
    if (this.what === 'busy') {
      for (const { site } of PLACES) await setFaultsAt(site, { kind: 'answer', status: 503, retryAfter: 1, times: 2 });
    }
    if (this.what === 'wait') await pause(this.milliseconds);
    const isDue = (known: Known) => !known.opened && mayOpenFrom(known) < Date.now();
    if (!workers.some((each) => each.isRunning()) && model.some(isDue)) done['due while no worker was there'] += 1;
    for (const [index, video] of real.entries()) if (model[index]) await video.look(model[index]);
  }
}

const index = fc.nat({ max: PLACES.length - 1 });
const commands = fc.commands(
  [
    fc.tuple(index, fc.integer({ min: 1, max: 5 })).map(([at, seconds]) => new ToVideo(at, 'in seconds', seconds)),
    fc
      .tuple(index, fc.constantFrom(...(['choose', 'call off', 'word', 'take back', 'close'] as const)))
      .map(([at, what]) => new ToVideo(at, what, 0)),
    fc
      .tuple(fc.constantFrom('kill' as const, 'start' as const, 'busy' as const), fc.nat({ max: 1 }))
      .map(([what, which]) => new ToMachine(what, 0, which)),
    fc.integer({ min: 100, max: 2500 }).map((milliseconds) => new ToMachine('wait', milliseconds)),
  ],
  { maxCommands: 14, size: 'max' },
);

const [KEPT_THERE, KEPT_HERE] = [0, 1];
const wait = (milliseconds: number) => new ToMachine('wait', milliseconds);
/** The turns that matter, whatever is drawn beside them. */
const WRITTEN: Record<string, Command[]> = {
  'a word that is taken back, and given once more later': [
    ...[KEPT_THERE, KEPT_HERE].flatMap((at) => [new ToVideo(at, 'word', 0), new ToVideo(at, 'take back', 0)]),
    wait(1600),
    new ToVideo(KEPT_HERE, 'word', 0),
  ],
  'a moment that passes while no worker is there, and one that is called off before it': [
    new ToVideo(KEPT_HERE, 'in seconds', 2),
    new ToVideo(KEPT_THERE, 'in seconds', 4),
    new ToMachine('kill', 0, 0),
    new ToMachine('kill', 0, 1),
    wait(2600),
    new ToVideo(KEPT_THERE, 'call off', 0),
    wait(1500),
  ],
  'a moment that is a second away, at once': [
    new ToVideo(KEPT_HERE, 'in seconds', 1),
    new ToVideo(KEPT_THERE, 'in seconds', 1),
    wait(300),
    wait(2000),
  ],
  'a moment at which it is closed, and a way to open that is only chosen': [
    new ToVideo(KEPT_HERE, 'in seconds', 1),
    new ToVideo(KEPT_THERE, 'in seconds', 2),
    new ToVideo(KEPT_THERE, 'choose', 0),
    new ToMachine('wait', 1000),
    new ToVideo(KEPT_HERE, 'close', 0),
    wait(400),
    new ToVideo(KEPT_HERE, 'close', 0),
    wait(1500),
    new ToVideo(KEPT_HERE, 'close', 0),
  ],
  'a moment that is moved on while the site is busy and a worker dies': [
    new ToVideo(KEPT_HERE, 'in seconds', 2),
    new ToMachine('busy', 0),
    new ToVideo(KEPT_HERE, 'in seconds', 4),
    new ToMachine('kill', 0, 1),
    wait(2500),
    new ToMachine('start', 0, 1),
    new ToVideo(KEPT_THERE, 'word', 0),
  ],
};

let plays = 0;
/** Two videos that are sent, checked and held go through these turns; in the end each is open or not as the model has it. */
async function play(turns: Iterable<Command>): Promise<void> {
  plays += 1;
  startAll();
  await noFaults();
  const real = await Promise.all(
    PLACES.map(async ({ site, channel }, place) => {
      const fileName = `model-${plays}-${place}-${Date.now()}.mp4`;
      const videoId = await bringFile(clip, 'none', fileName);
      await tickChannel(videoId, ids.get(channel) ?? '', true);
      await untilSheet(videoId, ({ cut }) => cut?.state === 'ready');
      await editVideo(videoId, { privacy: 'everyone', release: 'on my word' });
      await sendVideo(videoId);
      return new Real(videoId, site, fileName);
    }),
  );
  for (const { videoId } of real) await untilState(videoId, 'held');
  const model: Model = real.map(() => ({ set: NEVER, word: NEVER, opened: false, closed: false }));
  await fc.asyncModelRun(() => ({ model, real }), turns);
  await noFaults();
  startAll();
  for (const [at, video] of real.entries()) await expectAsMeant(video, model[at] as Known);
}

async function expectAsMeant(video: Real, known: Known): Promise<void> {
  if (known.closed) {
    await untilState(video.videoId, 'live');
    return expect.poll(async () => (await video.there()).open).toBe(false);
  }
  if (!Number.isFinite(mayOpenFrom(known)) && !known.opened) {
    await pause(500);
    expect((await video.there()).open, `${video.fileName} is open, and nobody said so`).toBe(false);
    return;
  }
  const drop = await untilState(video.videoId, 'live');
  await video.look(known);
  expect(known.opened, `${video.fileName} was forgotten`).toBe(true);
  const { events = [] } = (await lookAtSheet(video.videoId)).channels.find((each) => each.drop?.id === drop.id) ?? {};
  expect(events.filter(({ kind }) => kind === 'opened')).toHaveLength(1);
  const { openedAt } = (await dropById(database(), drop.id)) ?? {};
  const { since } = await video.there();
  expect(openedAt?.getTime(), 'noted before it was open').toBeGreaterThanOrEqual(since);
  // What opened late, and was told to, is told of as that.
  const told = await database()('notices').where({ dropId: drop.id }).where('says', 'like', 'Live: %');
  expect(told, 'told of once').toHaveLength(1);
}

// Never early, never twice, and none is forgotten, whatever is moved and whatever stops.
describe('releases', () => {
  it.each(Object.entries(WRITTEN))('open as they are meant to: %s', async (_, turns) => play(turns));

  it('open as they are meant to, whatever is drawn', { timeout: 400_000 }, async () => {
    await fc.assert(fc.asyncProperty(commands, play), { numRuns: 3, endOnFailure: true });
  });

  it('were really opened, taken back and called off, and workers were missing at their moment', () => {
    expect(done.opened).toBeGreaterThanOrEqual(4);
    expect(done.closed).toBeGreaterThanOrEqual(1);
    expect(done['taken back']).toBeGreaterThanOrEqual(2);
    expect(done['called off']).toBeGreaterThanOrEqual(1);
    expect(done.killed).toBeGreaterThanOrEqual(3);
    expect(done['due while no worker was there']).toBeGreaterThanOrEqual(1);
    const drawn = fc.sample(commands, { numRuns: 100 }).flatMap((all) => [...all].map(String));
    for (const turn of [
      'word(',
      'take back(',
      'call off(',
      'choose(',
      'close(',
      'in seconds(',
      'kill ',
      'start ',
      'busy ',
      'wait(',
    ]) {
      const share = drawn.filter((each) => each.startsWith(turn)).length / drawn.length;
      expect(share, turn).toBeGreaterThan(0.04);
    }
  });
});
