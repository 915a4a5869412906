import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, existsSync } from 'node:fs';
import { mkdir, readdir, rename, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { FastifyInstance, FastifyRequest } from 'fastify';
import type { Faults } from '../shared/faults';
import { Problem } from '../shared/problem';
import { valid } from '../shared/site';
import { completeShape, sha256InField } from './rules';
import type { Work } from './work';

/** Bytes of every part but the last. */
export const PART_BYTES = 8 * 1024 * 1024;

/** Uploads in numbered parts, each with its digest; when all are there they are put together. */
export class Parts {
  constructor(
    private readonly folder: string,
    private readonly faults: Faults,
    private readonly onWhole: (id: string) => void,
  ) {}

  private folderOf(id: string): string {
    return path.join(this.folder, `${id}-parts`);
  }

  private fileOf(id: string, number: number, digest: string): string {
    return path.join(
      this.folderOf(id),
      `${String(number).padStart(6, '0')}.${Buffer.from(digest, 'base64').toString('hex')}`,
    );
  }

  /** The parts that are here, by number. */
  async here(id: string): Promise<{ number: number; bytes: number; digest: string }[]> {
    const names = await readdir(this.folderOf(id)).catch((): string[] => []);
    const parts = names.flatMap((name) => /^(\d{6})\.([0-9a-f]{64})$/.exec(name) ?? []);
    const found: { number: number; bytes: number; digest: string }[] = [];
    for (let at = 0; at + 2 < parts.length + 1; at += 3) {
      const [name = '', number = '', digest = ''] = parts.slice(at, at + 3);
      const { size } = await stat(path.join(this.folderOf(id), name));
      found.push({ number: Number(number), bytes: size, digest: Buffer.from(digest, 'hex').toString('base64') });
    }
    return found.sort((a, b) => a.number - b.number);
  }

  async remove(id: string): Promise<void> {
    await rm(this.folderOf(id), { recursive: true, force: true });
  }

  private async take(work: Work, number: number, request: FastifyRequest): Promise<void> {
    const wanted = sha256InField(request.headers['content-digest'] as string | undefined);
    if (!wanted) {
      // RFC 9530, section 2: the digest of the content that is sent.
      throw new Problem(400, 'Digest missing', 'A part needs Content-Digest with sha-256');
    }
    await mkdir(this.folderOf(work.id), { recursive: true });
    const hash = createHash('sha256');
    let bytes = 0;
    const meter = new Transform({
      transform(chunk: Buffer, _encoding, done) {
        hash.update(chunk);
        bytes += chunk.length;
        done(bytes > PART_BYTES ? new Problem(413, 'Part too large', `A part has ${PART_BYTES} bytes`) : null, chunk);
      },
    });
    const line = this.faults.line(work.fileName, () => request.raw.socket.destroy());
    const partial = path.join(this.folderOf(work.id), `${number}.coming`);
    await pipeline(request.raw, line, meter, createWriteStream(partial));
    const found = hash.digest('base64');
    if (found !== wanted) {
      await rm(partial, { force: true });
      throw new Problem(422, 'Digest differs', `Part ${number} arrived with another digest than was said`, {
        part: number,
      });
    }
    await rename(partial, this.fileOf(work.id, number, found));
  }

  private async complete(work: Work, body: unknown): Promise<void> {
    if (work.stage !== 'receiving') return;
    const { parts } = await valid(completeShape.validate(body));
    const here = await this.here(work.id);
    parts.forEach(({ number, digest }, index) => {
      if (number !== index + 1) throw new Problem(422, 'Parts missing', `Part ${index + 1} is not in the list`);
      if (!here.some((part) => part.number === number && part.digest === digest)) {
        throw new Problem(409, 'Parts missing', `Part ${number} is not here`, { part: number });
      }
    });
    const target = path.join(this.folder, work.id);
    await rm(target, { force: true });
    for (const { number, digest } of parts) {
      await pipeline(createReadStream(this.fileOf(work.id, number, digest)), createWriteStream(target, { flags: 'a' }));
    }
    const { size } = await stat(target);
    if (size !== work.size) {
      throw new Problem(422, 'Size differs', `The parts have ${size} bytes; ${work.size} were announced`);
    }
    await this.remove(work.id);
    this.onWhole(work.id);
  }

  /** Lets parts be listed, put and completed. */
  register(server: FastifyInstance, workFor: (request: FastifyRequest) => Work): void {
    server.get('/v2/works/:id/parts', async (request) => {
      const work = workFor(request);
      const whole = work.stage !== 'receiving' || existsSync(path.join(this.folder, work.id));
      return { whole, partBytes: PART_BYTES, parts: await this.here(work.id) };
    });
    server.put<{ Params: { id: string; number: string } }>('/v2/works/:id/parts/:number', async (request, reply) => {
      const work = workFor(request);
      const number = Number(request.params.number);
      const most = Math.ceil(work.size / PART_BYTES);
      if (!Number.isInteger(number) || number < 1 || number > most) {
        throw new Problem(404, 'No such part', `Parts go from 1 to ${most}`);
      }
      await this.take(work, number, request);
      return reply.status(204).send();
    });
    server.post('/v2/works/:id/complete', async (request, reply) => {
      await this.complete(workFor(request), request.body);
      return reply.status(204).send();
    });
  }
}
