import { setTimeout as pause } from 'node:timers/promises';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Release } from '@/core/defaults';
import { PRIVACIES, type Privacy } from '@/core/delivery';
import { isWorking } from '@/core/drop';
import { momentAt } from '@/core/release';
import { actOnDrop, type DropAction } from '@/desk/actions/act-on-drop';
import { undo } from '@/desk/changes/changes';
import { DeskError } from '@/desk/desk-error';
import { reviseVideo, sendVideo } from '@/desk/drop/send';
import { editVideo, tickChannel } from '@/desk/video/edit-video';
import { importMarkers } from '@/desk/video/markers';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import type { SheetChannel } from '@/desk/views/views';
import { inWindow } from '@/desk/window';
import { newId } from '@/store/ids';
import { makeClip } from '../../setup/clips';
import { bringFile, channelsOfTheYard, setFaults, untilSheet, videosAt } from '../../setup/desk';
import { aWorker } from '../../setup/worker';

const clip = makeClip({ name: 'never-public.mp4', seconds: 2 });
const worker = aWorker();
let ids: Map<string, string>;

beforeAll(async () => {
  ids = await channelsOfTheYard();
});
afterAll(() => setFaults());

/** The site of the test has no passwords. */
const ENDS = PRIVACIES.filter((each) => each !== 'password');

/** What a manager can do; a text is told from every other by its number. */
type Step =
  | { do: 'privacy'; to: Privacy }
  | { do: 'release'; to: Release }
  | { do: 'title' | 'summary'; text: number }
  | { do: 'blank' | 'no blank' | 'undo' | 'send' | 'revise' | 'kill the worker' | 'rest' }
  | { do: 'act'; action: DropAction }
  /** In one window it is sent, while another says who may see it. */
  | { do: 'two windows'; to: Privacy };

const step: fc.Arbitrary<Step> = fc.oneof(
  { weight: 4, arbitrary: fc.record({ do: fc.constant('privacy' as const), to: fc.constantFrom(...ENDS) }) },
  {
    weight: 1,
    arbitrary: fc.record({
      do: fc.constant('release' as const),
      to: fc.constantFrom<Release>('by itself', 'on my word', 'at a time', 'together'),
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({ do: fc.constantFrom('title', 'summary'), text: fc.integer({ min: 1, max: 1e6 }) }),
  },
  { weight: 3, arbitrary: fc.record({ do: fc.constantFrom('blank', 'no blank', 'undo', 'kill the worker') }) },
  { weight: 1, arbitrary: fc.record({ do: fc.constant('two windows' as const), to: fc.constantFrom(...ENDS) }) },
  { weight: 5, arbitrary: fc.record({ do: fc.constantFrom('send', 'revise', 'rest') }) },
  {
    weight: 4,
    arbitrary: fc.record({
      do: fc.constant('act' as const),
      action: fc.constantFrom<DropAction>('open', 'not yet', 'close', 'try again', 'accept', 'remove'),
    }),
  },
) as fc.Arbitrary<Step>;

const act = (action: DropAction): Step => ({ do: 'act', action });
const to = (privacy: Privacy): Step => ({ do: 'privacy', to: privacy });
const [SEND, REVISE, REST, UNDO, KILL] = (['send', 'revise', 'rest', 'undo', 'kill the worker'] as const).map(
  (each): Step => ({ do: each }),
) as [Step, Step, Step, Step, Step];
const ON_WORD: Step = { do: 'release', to: 'on my word' };

/** Turns that matter, whatever else is drawn. */
const TURNS: Step[][] = [
  // Opened to everyone, closed by a press, and nothing opens it again by itself.
  [to('everyone'), SEND, REST, act('close'), REST, { do: 'title', text: 7 }, REVISE, REST],
  // Closed in the very moment in which it opens, and killed over it.
  [to('everyone'), ON_WORD, SEND, REST, act('open'), act('close'), KILL, REST],
  // Killed on its way and while it opens.
  [to('everyone'), SEND, KILL, REST, ON_WORD, to('private'), REVISE, REST, to('everyone'), act('open'), KILL, REST],
  // What was chosen is taken back before anything was sent, and after it.
  [to('everyone'), UNDO, SEND, REST, to('everyone'), REVISE, UNDO, REST, act('open'), REST],
  // Two windows: the one sends, the other makes it private, or opens it.
  [to('link'), SEND, REST, { do: 'two windows', to: 'private' }, REST, { do: 'two windows', to: 'everyone' }, REST],
  // A word to open, taken back; then a time far off is said.
  [to('everyone'), ON_WORD, SEND, REST, act('open'), act('not yet'), REST, { do: 'release', to: 'at a time' }, REVISE],
];

/** What was really drawn and done, over all cases. */
const done = { 'seen by everyone': 0, 'closed after a send': 0, 'closed while it opens': 0, kills: 0, undos: 0 };
const twoWindows = { narrowed: 0, widened: 0 };

const WIDTH: Record<Privacy, number> = { private: 0, password: 0.5, link: 1, everyone: 2 };
const NOTE = 'client HATES this';

/** One video on one channel, with what its public may see of it by what the record meant. */
class Told {
  end: Privacy = 'private';
  release: Release = 'by itself';
  title = 'Title 0';
  summary = 'Summary 0';
  /** Edits that were acknowledged, for undo. */
  private readonly history: { field: 'end' | 'release' | 'title' | 'summary' | 'closed'; before: string | boolean }[] =
    [];
  /** Whether it was closed for this channel, which holds whatever the video has. */
  private closed = false;
  private readonly texts = new Set<string>();
  private word = false;
  private allowed = 0;
  private wasSeen = false;

  constructor(
    readonly videoId: string,
    readonly fileName: string,
  ) {
    this.texts.add(this.title);
  }

  async channel(): Promise<SheetChannel> {
    const found = (await lookAtSheet(this.videoId)).channels.find(({ ticked }) => ticked);
    if (!found) throw new Error('No channel is ticked');
    return found;
  }

  /** What the site keeps, whoever may see it. */
  async there(): Promise<Record<string, unknown> | undefined> {
    return (await videosAt('lanternfold')).find(({ fileName }) => fileName === this.fileName);
  }

  /** The widest that the record means the public to see it, as it is now. */
  private wished(): number {
    if (this.closed) return 0;
    return this.release !== 'by itself' && !this.word ? 0 : WIDTH[this.end];
  }

  private allow(): void {
    this.allowed = Math.max(this.allowed, this.wished());
  }

  /** Looks as the public would, at any moment. */
  async look(): Promise<void> {
    const there = await this.there();
    if (!there) return;
    const shown = { open: 2, 'by-link': 1, closed: 0 }[String(there.visibility)] ?? 0;
    expect(shown, `${this.fileName} is seen by more than was meant`).toBeLessThanOrEqual(this.allowed);
    if (shown === 2 && !this.wasSeen) done['seen by everyone'] += 1;
    this.wasSeen ||= shown === 2;
    if (shown === 0) return;
    const link = (await this.channel()).drop?.link;
    // It may have been removed or closed since the look before.
    if (!link) return;
    const answer = await fetch(link);
    if (!answer.ok) return;
    const page = await answer.text();
    expect(page).not.toContain(NOTE);
    expect(page).not.toContain('{{');
    expect([...this.texts].some((title) => page.includes(title))).toBe(true);
  }

  private async edit(field: 'end' | 'release' | 'title' | 'summary', value: string): Promise<void> {
    const before = String(this[field]);
    if (before === value) return;
    const { drop } = await this.channel();
    Object.assign(this, { [field]: value });
    if (field === 'title') this.texts.add(value);
    // What is on its way follows the record; what is there waits until the changes are sent.
    if (drop && isWorking(drop.state)) this.allow();
    const name = field === 'end' ? 'privacy' : field;
    await inWindow(newId(), () => editVideo(this.videoId, { [name]: value }));
    this.history.push({ field, before });
  }

  async take(next: Step): Promise<void> {
    switch (next.do) {
      case 'privacy':
        return this.edit('end', next.to);
      case 'release':
        return this.edit('release', next.to);
      case 'title':
        return this.edit('title', `Title ${next.text}`);
      case 'summary':
        return this.edit('summary', `Summary ${next.text}`);
      case 'blank':
        return this.edit('summary', 'Gear: {{gear}}');
      case 'no blank':
        return this.edit('summary', 'No blank');
      case 'undo': {
        const last = this.history.pop();
        if (!last) return;
        done.undos += 1;
        Object.assign(this, { [last.field]: last.before });
        const { drop } = await this.channel();
        if (drop && isWorking(drop.state)) this.allow();
        await undo(this.videoId);
        return;
      }
      case 'send':
        this.allow();
        await sendVideo(this.videoId);
        return;
      case 'revise':
        this.word = false;
        this.allow();
        await reviseVideo(this.videoId);
        return;
      case 'act':
        return this.act(next.action);
      case 'kill the worker':
        await worker.end('SIGKILL');
        worker.start();
        done.kills += 1;
        return;
      case 'two windows':
        return this.inTwoWindows(next.to);
      case 'rest':
        await this.rest();
    }
  }

  /** Either may come first: until it rests, what both mean may be seen. */
  private async inTwoWindows(to: Privacy): Promise<void> {
    if (to === this.end) return;
    this.word = false;
    this.allow();
    const before = this.end;
    this.end = to;
    this.allow();
    const edit = inWindow(newId(), () => editVideo(this.videoId, { privacy: to }));
    await Promise.all([edit, inWindow(newId(), () => reviseVideo(this.videoId))]);
    this.history.push({ field: 'end', before });
    if (WIDTH[to] < WIDTH[before]) twoWindows.narrowed += 1;
    else twoWindows.widened += 1;
  }

  private async act(action: DropAction): Promise<void> {
    const { drop } = await this.channel();
    if (!drop) return;
    const isSent = drop.state !== 'draft';
    if (action === 'close' && isSent) done['closed after a send'] += 1;
    if (action === 'close' && this.word) done['closed while it opens'] += 1;
    if (action === 'open' && !this.closed) this.word = true;
    if (action === 'open' || action === 'try again' || action === 'accept') this.allow();
    await actOnDrop(drop.id, { action }).then(
      async () => {
        if (action !== 'close' || this.closed) return;
        this.history.push({ field: 'closed', before: false });
        this.closed = true;
      },
      (error: unknown) => {
        if (!(error instanceof DeskError)) throw error;
      },
    );
  }

  /** Waits until nothing moves, and holds what is there against what was meant. */
  async rest(): Promise<void> {
    await untilSheet(this.videoId, ({ channels }) =>
      channels.every(({ drop }) => !drop || !(isWorking(drop.state) || drop.giving)),
    );
    const { drop, changes, values } = await this.channel();
    if (drop?.state === 'removed') {
      expect(await this.there(), `${this.fileName} was left behind`).toBeUndefined();
      this.allowed = 0;
    }
    if (drop?.state === 'live') {
      const there = await this.there();
      const shown = { open: 2, 'by-link': 1, closed: 0 }[String(there?.visibility)] ?? 0;
      expect(shown).toBe(WIDTH[drop.openedTo ?? 'private']);
      expect(drop.link).toMatch(/^http/);
      if (!changes.some(({ field }) => field === 'privacy')) expect(shown).toBe(WIDTH[values.privacy.value]);
      if (!changes.some(({ field }) => field === 'title')) expect(there?.title).toBe(this.title);
      this.allowed = shown;
      this.word = false;
    }
  }

  /** Every text that was acknowledged is there afterwards. */
  async last(): Promise<void> {
    await this.rest();
    const sheet = await lookAtSheet(this.videoId);
    expect(sheet).toMatchObject({ title: this.title, summary: this.summary });
  }
}

describe('whatever a manager does', () => {
  it('nothing is ever seen by the public that the record did not mean, and every text that was saved is there', async () => {
    let runs = 0;
    // Something is sent from the start: before that, nothing can go wrong.
    const drawn = fc.array(step, { minLength: 12, maxLength: 22 }).map((steps) => [to('everyone'), SEND, ...steps]);
    const property = fc.asyncProperty(drawn, async (steps) => {
      runs += 1;
      const fileName = `never-public-${runs}-${Date.now()}.mp4`;
      const videoId = await bringFile(clip, 'none of them', fileName);
      // So far off that only a word opens it before the test is over.
      const opensAt = momentAt(new Date(Date.now() + 3_600_000), 'Europe/Berlin');
      await editVideo(videoId, { title: 'Title 0', summary: 'Summary 0', opensAt });
      await tickChannel(videoId, ids.get('Marrow Quay') ?? '', true);
      const edl = `TITLE: x\n001 AX V C 00:00:00:00 00:00:02:00 01:00:00:00 01:00:02:00\n* LOC: 01:00:00:00 RED ${NOTE}\n`;
      await untilSheet(videoId, (sheet) => sheet.cut?.state === 'ready');
      await importMarkers(videoId, new TextEncoder().encode(edl));
      const told = new Told(videoId, fileName);
      // The public looks all the time, and not only between two steps.
      let [over, seen] = [false, undefined as unknown];
      const looking = (async () => {
        while (!over) {
          await told.look();
          await pause(40);
        }
      })().catch((error: unknown) => {
        seen = error;
      });
      try {
        for (const each of [...steps, { do: 'send' } as const]) {
          await told.take(each);
          if (seen) throw seen;
        }
        await told.last();
      } finally {
        over = true;
        await looking;
      }
      if (seen) throw seen;
    });
    const examples = TURNS.map((turns): [Step[]] => [turns]);
    await fc.assert(property, { examples, numRuns: TURNS.length + 3, endOnFailure: true });
    // Cases that open nothing, close nothing and kill nobody would show nothing.
    expect(done['seen by everyone']).toBeGreaterThanOrEqual(2);
    expect(done.kills).toBeGreaterThanOrEqual(3);
    expect(done.undos).toBeGreaterThanOrEqual(2);
    expect(done['closed after a send']).toBeGreaterThanOrEqual(2);
    expect(done['closed while it opens']).toBeGreaterThanOrEqual(1);
    expect(twoWindows.narrowed).toBeGreaterThanOrEqual(1);
    expect(twoWindows.widened).toBeGreaterThanOrEqual(1);
  });
});
