import { existsSync, renameSync } from 'node:fs';
import { copyFile, rm } from 'node:fs/promises';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import type { Faults } from './faults';
import type { Hosted } from './hosted';
import type { Records } from './records';
import { type FileShape, sha256Of, shapeOf, still, transcode } from './transcode';

const FIRST_HEIGHT = 240;
const FULL_HEIGHT = 720;

const NAMES = ['first.mp4', 'full.mp4', 'still.jpg', 'thumbnail'] as const;
type FileName = (typeof NAMES)[number];

/** What a site does of its own while it processes. */
export interface ProcessingHooks<T extends Hosted> {
  /** Looks at the file before anything is made of it. @throws Error with what is wrong with it */
  inspect?(shape: FileShape): void;
  /** What is known once the first version plays. */
  afterFirst?(video: T, faults: Faults, original: string): Partial<T> | Promise<Partial<T>>;
  /** Fields that a fault alters. */
  altered?(video: T, field: string, value: string): Partial<T>;
  /** What follows once the full version is there. */
  whenReady?(video: T): void;
  /** The moment of the still, in seconds, where it is not left to the site. */
  stillAt?(video: T): number | undefined;
}

/** Whether a file is already what its version of at most so many lines would be. */
const isPlayedAsItIs = ({ codec, sound, container, bits, height }: FileShape, lines: number): boolean =>
  codec === 'h264' && bits === 8 && height <= lines && container.includes('mp4') && ['aac', undefined].includes(sound);

/** Works through the videos that have come in, one at a time: a small first version, then the full one. */
export class Processing<T extends Hosted> {
  private running = false;
  /** Where a version stands that was made of a file already, by its digest and lines. */
  private readonly prepared = new Map<string, string>();

  constructor(
    private readonly videos: Records<T>,
    private readonly folder: string,
    private readonly faults: Faults,
    private readonly hooks: ProcessingHooks<T>,
  ) {}

  /** Where a file that belongs to a video stands. */
  fileOf(id: string, name: FileName): string {
    return path.join(this.folder, `${id}-${name}`);
  }

  /** Where the file stands as it came. */
  originalOf(id: string): string {
    return path.join(this.folder, id);
  }

  /** Notes that every byte of a video is here, and starts on it. */
  landed(id: string): void {
    if (this.videos.get(id)?.stage !== 'receiving') return;
    this.change(id, { stage: 'queued' } as Partial<T>);
    void this.wake();
  }

  /** Starts on whatever waits; also after a restart, where a video was half done. */
  async wake(): Promise<void> {
    if (this.running) return;
    this.running = true;
    try {
      for (;;) {
        const next = this.videos.find((video) => ['queued', 'first', 'full'].includes(video.stage));
        if (!next) return;
        await this.process(next.id).catch((error: Error) => {
          this.change(next.id, {
            stage: 'failed',
            failure: `The file could not be read: ${error.message}`,
          } as Partial<T>);
        });
      }
    } finally {
      this.running = false;
    }
  }

  /** Makes the still of a video anew. */
  async makeStill(id: string): Promise<void> {
    const video = this.videos.get(id);
    if (!video?.seconds) return;
    const at = this.hooks.stillAt?.(video) ?? video.seconds / 3;
    await still(this.originalOf(id), this.fileOf(id, 'still.jpg'), Math.min(at, video.seconds));
  }

  /** Notes that a version was changed since it was made, so that no other video is given it. */
  versionChanged(file: string): void {
    for (const [key, path] of this.prepared) if (path === file) this.prepared.delete(key);
  }

  /** Gives the files of one video to another, but the thumbnail. */
  takeFiles(from: string, to: string): void {
    renameSync(this.originalOf(from), this.originalOf(to));
    for (const name of NAMES.filter((each) => each !== 'thumbnail')) {
      if (existsSync(this.fileOf(from, name))) renameSync(this.fileOf(from, name), this.fileOf(to, name));
    }
  }

  /** Forgets everything that was made of a video. */
  async forget(id: string): Promise<void> {
    for (const file of [this.originalOf(id), ...NAMES.map((name) => this.fileOf(id, name))]) {
      await rm(file, { force: true });
    }
  }

  /** Notes that something of a video is ready. */
  addVersion(id: string, version: { of: 'picture' | 'thumbnail'; lines?: number }): void {
    const alike = (each: { of: string; lines?: number }) => each.of === version.of && each.lines === version.lines;
    const before = (this.videos.get(id)?.versions ?? []).filter((each) => !alike(each));
    this.change(id, { versions: [...before, { ...version, readyAt: new Date().toISOString() }] } as Partial<T>);
  }

  private change(id: string, fields: Partial<T>): void {
    if (this.videos.get(id)) this.videos.change(id, fields);
  }

  private async process(id: string): Promise<void> {
    const original = this.originalOf(id);
    const video = this.videos.get(id);
    if (!video) return;
    const altered = this.faults.strike('alter', video.fileName);
    const sha256 = altered?.field === 'file' ? '0'.repeat(64) : await sha256Of(original);
    const shape = await shapeOf(original);
    const { seconds } = shape;
    // A fault of this kind has it encoded also where it could be copied.
    const copies = !this.faults.strike('encode', video.fileName);
    this.change(id, { file: { sha256, size: video.size }, seconds, stage: 'first', progress: 0 } as Partial<T>);
    const failure = this.faults.strike('fail processing', video.fileName);
    if (failure) throw new Error(failure.reason ?? 'it ends in the middle of a picture');
    this.hooks.inspect?.(shape);
    await this.version(id, 'first.mp4', FIRST_HEIGHT, shape, copies);
    await this.makeStill(id);
    const more = await this.hooks.afterFirst?.(this.videos.get(id) ?? video, this.faults, original);
    this.change(id, { stage: 'full', progress: 0, ...more } as Partial<T>);
    const slow = this.faults.strike('slow processing', video.fileName);
    if (slow) await pause((slow.seconds ?? 0) * 1000);
    await this.version(id, 'full.mp4', FULL_HEIGHT, shape, copies);
    const processed = this.videos.get(id);
    if (!processed) return;
    if (altered) {
      this.change(id, this.hooks.altered?.(processed, altered.field ?? '', altered.value ?? 'altered') ?? {});
    }
    this.change(id, { stage: 'ready', progress: 1 } as Partial<T>);
    this.hooks.whenReady?.(this.videos.get(id) ?? processed);
  }

  private async version(
    id: string,
    name: 'first.mp4' | 'full.mp4',
    height: number,
    shape: FileShape,
    copies: boolean,
  ): Promise<void> {
    const target = this.fileOf(id, name);
    // The same file, sent once more, is prepared once.
    const digest = this.videos.get(id)?.file?.sha256 ?? '';
    const known = copies ? this.prepared.get(`${digest} ${height}`) : undefined;
    const plays = copies && isPlayedAsItIs(shape, height) ? this.originalOf(id) : undefined;
    const from = known && existsSync(known) ? known : plays;
    if (from) {
      await copyFile(from, `${target}.part`);
      this.change(id, { progress: 1 } as Partial<T>);
    } else
      await transcode(this.originalOf(id), `${target}.part`, height, shape.seconds, (progress) =>
        this.change(id, { progress } as Partial<T>),
      );
    renameSync(`${target}.part`, target);
    // One that a fault has given no digest of its own stands for itself alone.
    if (!/^0*$/.test(digest)) this.prepared.set(`${digest} ${height}`, target);
    this.addVersion(id, { of: 'picture', lines: height });
  }
}
