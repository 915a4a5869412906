import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import { open } from 'node:fs/promises';
import path from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { FastifyInstance, FastifyRequest } from 'fastify';
import type { Faults } from '../shared/faults';
import { Problem } from '../shared/problem';
import { Records } from '../shared/records';
import { valid } from '../shared/site';
import { completeShape, sha256InField } from './rules';
import type { Work } from './work';

/** Bytes of every part but the last. */
export const PART_BYTES = 8 * 1024 * 1024;

/** A part that has arrived whole. */
interface Part {
  id: string;
  workId: string;
  number: number;
  bytes: number;
  digest: string;
}

/** Uploads in numbered parts, each with its digest, written to their place in the file; complete when all are there. */
export class Parts {
  private readonly parts: Records<Part>;

  constructor(
    folder: string,
    private readonly fileOf: (id: string) => string,
    private readonly faults: Faults,
    private readonly onWhole: (id: string) => void,
  ) {
    this.parts = new Records(path.join(folder, 'parts'));
  }

  /** The parts that are here, by number. */
  here(id: string): Pick<Part, 'number' | 'bytes' | 'digest'>[] {
    return this.parts
      .all()
      .filter((part) => part.workId === id)
      .map(({ number, bytes, digest }) => ({ number, bytes, digest }))
      .sort((a, b) => a.number - b.number);
  }

  remove(id: string): void {
    for (const { number } of this.here(id)) this.parts.delete(`${id}-${number}`);
  }

  private async take(work: Work, number: number, request: FastifyRequest): Promise<void> {
    const wanted = sha256InField(request.headers['content-digest'] as string | undefined);
    if (!wanted) {
      // RFC 9530, section 2: the digest of the content that is sent.
      throw new Problem(400, 'Digest missing', 'A part needs Content-Digest with sha-256');
    }
    const id = `${work.id}-${number}`;
    this.parts.delete(id);
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
    const place = { flags: 'r+', start: (number - 1) * PART_BYTES, highWaterMark: 1024 * 1024 };
    await (await open(this.fileOf(work.id), 'a')).close();
    await pipeline(request.raw, line, meter, createWriteStream(this.fileOf(work.id), place));
    const digest = hash.digest('base64');
    if (digest !== wanted) {
      throw new Problem(422, 'Digest differs', `Part ${number} arrived with another digest than was said`, {
        part: number,
      });
    }
    this.parts.put({ id, workId: work.id, number, bytes, digest });
  }

  private async complete(work: Work, body: unknown): Promise<void> {
    if (work.stage !== 'receiving') return;
    const { parts } = await valid(completeShape.validate(body));
    const here = this.here(work.id);
    parts.forEach(({ number, digest }, index) => {
      if (number !== index + 1) throw new Problem(422, 'Parts missing', `Part ${index + 1} is not in the list`);
      if (!here.some((part) => part.number === number && part.digest === digest)) {
        throw new Problem(409, 'Parts missing', `Part ${number} is not here`, { part: number });
      }
    });
    const bytes = here.slice(0, parts.length).reduce((sum, part) => sum + part.bytes, 0);
    if (bytes !== work.size) {
      throw new Problem(422, 'Size differs', `The parts have ${bytes} bytes; ${work.size} were announced`);
    }
    this.remove(work.id);
    this.onWhole(work.id);
  }

  /** Lets parts be listed, put and completed. */
  register(server: FastifyInstance, workFor: (request: FastifyRequest) => Work): void {
    server.get('/v2/works/:id/parts', async (request) => {
      const work = workFor(request);
      return { whole: work.stage !== 'receiving', partBytes: PART_BYTES, parts: this.here(work.id) };
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
