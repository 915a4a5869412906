import { mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { Problem } from './problem';

/** Things kept as one JSON file each, all of them in memory, written through on every change. */
export class Records<T extends { id: string }> {
  private readonly held = new Map<string, T>();

  constructor(private readonly folder: string) {
    mkdirSync(folder, { recursive: true });
    for (const file of readdirSync(folder).sort()) {
      if (!file.endsWith('.json')) continue;
      const thing = JSON.parse(readFileSync(path.join(folder, file), 'utf8')) as T;
      this.held.set(thing.id, thing);
    }
  }

  get(id: string): T | undefined {
    return this.held.get(id);
  }

  all(): T[] {
    return [...this.held.values()];
  }

  find(test: (thing: T) => boolean): T | undefined {
    return this.all().find(test);
  }

  put(thing: T): T {
    this.held.set(thing.id, thing);
    const file = this.fileOf(thing.id);
    writeFileSync(`${file}.part`, JSON.stringify(thing));
    renameSync(`${file}.part`, file);
    return thing;
  }

  /** Sets fields of a thing as it is now: what was read before a wait may be out of date. */
  change(id: string, fields: Partial<T>): T {
    const now = this.held.get(id);
    if (!now) throw new Problem(404, 'Not found', 'It is gone meanwhile');
    return this.put({ ...now, ...fields });
  }

  delete(id: string): void {
    this.held.delete(id);
    rmSync(this.fileOf(id), { force: true });
  }

  private fileOf(id: string): string {
    if (!/^[A-Za-z0-9_-]+$/.test(id)) throw new Error(`"${id}" is no record id`);
    return path.join(this.folder, `${id}.json`);
  }
}
