import { createWriteStream } from 'node:fs';
import type { Socket } from 'node:net';
import path from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { FileStore } from '@tus/file-store';
import { Server, Upload } from '@tus/server';
import type { FastifyInstance, FastifyRequest } from 'fastify';
import type { Faults } from '../shared/faults';
import { Problem } from '../shared/problem';

/** A tus store whose line can be slowed, stalled and cut. */
class LineStore extends FileStore {
  /** The connection that each upload comes in by, to be broken where a fault says so. */
  readonly lines = new Map<string, Socket>();

  constructor(
    directory: string,
    private readonly faults: Faults,
  ) {
    super({ directory });
  }

  override async write(bytes: Readable, id: string, offset: number): Promise<number> {
    const upload = await this.getUpload(id);
    const target = createWriteStream(path.join(this.directory, id), {
      flags: 'r+',
      start: offset,
      highWaterMark: 1024 * 1024,
    });
    const line = this.faults.line(upload.metadata?.fileName ?? '', () => this.lines.get(id)?.destroy(), target);
    // A body that has come whole and stands still in the line ends with the connection, and gives the upload free again.
    const socket = this.lines.get(id);
    const gone = () => line.destroy(new Error('the line is gone'));
    socket?.once('close', gone);
    try {
      await pipeline(bytes, line, target);
    } finally {
      socket?.off('close', gone);
    }
    return offset + target.bytesWritten;
  }
}

/** Resumable uploads by tus 1.0. An upload is made by the site when a video is announced; the client only fills it. */
export class Uploads {
  private readonly store: LineStore;
  private readonly tus: Server;

  constructor(directory: string, faults: Faults, onWhole: (id: string) => void) {
    this.store = new LineStore(directory, faults);
    this.tus = new Server({
      path: '/files',
      datastore: this.store,
      onUploadFinish: async (_request, upload) => {
        onWhole(upload.id);
        return {};
      },
    });
  }

  async announce(id: string, size: number, fileName: string): Promise<void> {
    await this.store.create(new Upload({ id, size, offset: 0, metadata: { fileName } }));
  }

  /** How many bytes are here; undefined where nothing was announced. */
  async offset(id: string): Promise<number | undefined> {
    return this.store.getUpload(id).then(
      (upload) => upload.offset,
      () => undefined,
    );
  }

  async remove(id: string): Promise<void> {
    await this.store.remove(id).catch(() => undefined);
  }

  /** Hands `/files/…` to tus, once `mayUse` says that the caller may write there. */
  register(server: FastifyInstance, mayUse: (request: FastifyRequest, id: string) => boolean): void {
    server.addContentTypeParser('application/offset+octet-stream', (_request, _payload, done) => done(null));
    server.route<{ Params: { id: string } }>({
      method: ['HEAD', 'PATCH', 'OPTIONS'],
      url: '/files/:id',
      handler: async (request, reply) => {
        if (!mayUse(request, request.params.id)) throw new Problem(404, 'Not found', 'There is no such upload');
        reply.hijack();
        this.store.lines.set(request.params.id, request.raw.socket);
        await this.tus.handle(request.raw, reply.raw);
      },
    });
  }
}
