import { renameSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import type { Faults } from '../shared/faults';
import type { Records } from '../shared/records';
import { secondsOf, sha256Of, still, transcode } from '../shared/transcode';
import type { Video } from './video';

const FIRST_HEIGHT = 240;
const FULL_HEIGHT = 720;

/** Works through the videos that have come in, one at a time: a small first version, then the full one. */
export class Processing {
  private running = false;

  constructor(
    private readonly videos: Records<Video>,
    private readonly folder: string,
    private readonly faults: Faults,
  ) {}

  /** Where a file that belongs to a video stands. */
  fileOf(id: string, name: 'first.mp4' | 'full.mp4' | 'still.jpg' | 'thumbnail'): string {
    return path.join(this.folder, `${id}-${name}`);
  }

  originalOf(id: string): string {
    return path.join(this.folder, id);
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
          this.change(next.id, { stage: 'failed', failure: `The file could not be read: ${error.message}` });
        });
      }
    } finally {
      this.running = false;
    }
  }

  private change(id: string, fields: Partial<Video>): void {
    const video = this.videos.get(id);
    if (video) this.videos.put({ ...video, ...fields });
  }

  private async process(id: string): Promise<void> {
    const original = this.originalOf(id);
    const video = this.videos.get(id);
    if (!video) return;
    const altered = this.faults.strike('alter', video.fileName);
    const sha256 = altered?.field === 'file' ? '0'.repeat(64) : await sha256Of(original);
    const seconds = await secondsOf(original);
    this.change(id, { file: { sha256, size: video.size }, seconds, stage: 'first', progress: 0 });
    const failure = this.faults.strike('fail processing', video.fileName);
    if (failure) throw new Error(failure.reason ?? 'it ends in the middle of a picture');
    await this.version(id, 'first.mp4', FIRST_HEIGHT, seconds);
    await still(original, this.fileOf(id, 'still.jpg'), seconds / 3);
    this.change(id, { stage: 'full', progress: 0, ...this.rightsCheck(video) });
    const slow = this.faults.strike('slow processing', video.fileName);
    if (slow) await pause((slow.seconds ?? 0) * 1000);
    await this.version(id, 'full.mp4', FULL_HEIGHT, seconds);
    if (altered) this.alter(id, altered.field ?? '', altered.value ?? 'altered');
    this.change(id, { stage: 'ready', progress: 1 });
  }

  private async version(id: string, name: 'first.mp4' | 'full.mp4', height: number, seconds: number): Promise<void> {
    const target = this.fileOf(id, name);
    await transcode(this.originalOf(id), `${target}.part`, height, seconds, (progress) =>
      this.change(id, { progress }),
    );
    renameSync(`${target}.part`, target);
  }

  private rightsCheck(video: Video): Pick<Video, 'checks' | 'match'> {
    const fault = this.faults.strike('rights match', video.fileName);
    if (!fault) return { checks: 'passed' };
    const { reason: owner = 'Harbour Lane Music', from = 10, to = 25, wants = 'adverts' } = fault;
    return { checks: 'matched', match: { owner, from, to, wants } };
  }

  private alter(id: string, field: string, value: string): void {
    if (field === 'title') this.change(id, { title: value });
    if (field === 'description') this.change(id, { description: value });
    if (field === 'tags') this.change(id, { tags: [value] });
  }
}
