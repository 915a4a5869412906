import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { Transform, type Writable } from 'node:stream';
import { setTimeout as pause } from 'node:timers/promises';
import type { FastifyInstance, FastifyRequest } from 'fastify';
import { array, type InferType, number, object, string } from 'yup';
import { Problem } from './problem';

const faultShape = object({
  kind: string()
    .oneOf([
      'cut',
      'answer',
      'stall',
      'line',
      'fail processing',
      'rights match',
      'alter',
      'slow processing',
      'turn down',
      'time forgotten',
      'dispute refused',
      'encode',
      'late',
    ])
    .required(),
  /** Only files whose name contains this. */
  match: string(),
  /** How often it strikes; always where not given. */
  times: number().integer().min(1),
  /** For `cut` and `stall`: after so many bytes of a request. For `line`: bytes a second. */
  bytes: number().integer().min(0),
  /** For `answer`: the status, and the seconds of Retry-After; `path`, for `late`, too, is a part of the address. */
  status: number().integer().min(400).max(599),
  retryAfter: number().integer().min(0),
  path: string(),
  /** For `answer` and `late`: only requests of this method. */
  method: string().oneOf(['GET', 'PUT', 'PATCH', 'POST', 'DELETE'] as const),
  /** For `fail processing`, for `turn down`, for `dispute refused`, and for `rights match` the owner. */
  reason: string(),
  /** For `turn down`: what would help. */
  remedy: string(),
  /** For `rights match`: the span in seconds, and what the owner wants; `countries` where it is to be closed in some only. */
  from: number(),
  to: number(),
  wants: string().oneOf(['share', 'silence', 'close'] as const),
  countries: array(string().length(2).required()),
  /** For `alter`: the field that is changed, and to what; for `rights match` the name of the music. */
  field: string().oneOf(['title', 'description', 'tags', 'file']),
  value: string(),
  /** For `slow processing` and `late`: the seconds that it takes longer. */
  seconds: number().min(0),
}).noUnknown();

export type Fault = InferType<typeof faultShape>;

/** The faults that are set on one stand-in; they are kept in a file, so that they outlast a restart. */
export class Faults {
  private set: Fault[];
  /** How many bytes of each file have come over the line, those that came twice counted twice. */
  private readonly passed = new Map<string, number>();
  /** How often faults of each kind have struck, and how many late requests have been done since. */
  private readonly struck = new Map<string, number>();

  constructor(private readonly file: string) {
    this.set = existsSync(file) ? (JSON.parse(readFileSync(file, 'utf8')) as Fault[]) : [];
  }

  private keep(faults: Fault[]): Fault[] {
    this.set = faults;
    // Whole or not: a stand-in that is killed here has to start again.
    writeFileSync(`${this.file}.part`, JSON.stringify(faults));
    renameSync(`${this.file}.part`, this.file);
    return faults;
  }

  private count(what: string, times = 1): void {
    this.struck.set(what, (this.struck.get(what) ?? 0) + times);
  }

  /** The first fault of a kind that strikes here; its count goes down. */
  strike(kind: Fault['kind'], fileName = '', path = '', method?: string): Fault | undefined {
    const fault = this.set.find(
      (each) =>
        each.kind === kind &&
        fileName.includes(each.match ?? '') &&
        (each.path === undefined || path.includes(each.path)) &&
        (each.method === undefined || each.method === method),
    );
    if (fault) this.count(kind);
    if (fault?.times !== undefined) {
      fault.times -= 1;
      this.keep(this.set.filter((each) => each.times !== 0));
    }
    return fault;
  }

  /** Every fault of a kind that strikes here, each once. */
  strikeAll(kind: Fault['kind'], fileName: string): Fault[] {
    const struck = this.set.filter((each) => each.kind === kind && fileName.includes(each.match ?? ''));
    this.count(kind, struck.length);
    for (const fault of struck) if (fault.times !== undefined) fault.times -= 1;
    this.keep(this.set.filter((each) => each.times !== 0));
    return struck;
  }

  /**
   * A stream that lets bytes through as the line of the moment does: slowed, stalled, or cut with `onCut`. With `kept`, it
   * is cut once what came before has been written there: a connection that goes first would take it along.
   */
  line(fileName: string, onCut: () => void, kept?: Writable): Transform {
    const cut = this.strike('cut', fileName);
    const stall = this.strike('stall', fileName);
    let passed = 0;
    const started = Date.now();
    const cutOff = () => {
      if (!kept) return onCut();
      kept.removeListener('finish', onCut).once('finish', onCut);
      setImmediate(() => line.push(null));
    };
    const line = new Transform({
      highWaterMark: 1024 * 1024,
      transform: (chunk: Buffer, _encoding, done) => {
        const room = cut ? (cut.bytes ?? 0) - passed : Number.POSITIVE_INFINITY;
        passed += chunk.length;
        this.passed.set(fileName, (this.passed.get(fileName) ?? 0) + chunk.length);
        if (chunk.length >= room) {
          cutOff();
          return done(null, chunk.subarray(0, Math.max(0, room)));
        }
        if (stall && passed >= (stall.bytes ?? 0)) return;
        // Asked anew for every chunk, so that a line can be slowed and freed while bytes pass.
        const slow = this.set.find((each) => each.kind === 'line' && fileName.includes(each.match ?? ''));
        if (slow?.bytes) {
          const wait = started + (passed / slow.bytes) * 1000 - Date.now();
          if (wait > 0) return void setTimeout(() => done(null, chunk), wait);
        }
        done(null, chunk);
      },
    });
    return line;
  }

  /** The control interface, and the answers that a fault gives in the place of the site. */
  register(server: FastifyInstance): void {
    server.get('/control/passed', async () => Object.fromEntries(this.passed));
    server.get('/control/struck', async () => Object.fromEntries(this.struck));
    server.get('/control/faults', async () => this.set);
    server.put('/control/faults', async (request) => {
      return this.keep(await array(faultShape).required().validate(request.body));
    });
    server.post('/control/faults', async (request) => {
      return this.keep([...this.set, await faultShape.required().validate(request.body)]);
    });
    server.delete('/control/faults', async () => this.keep([]));
    const isSpared = (url: string) =>
      url.startsWith('/control/') || (url.startsWith('/oauth/') && url !== '/oauth/token');
    const late = new WeakSet<FastifyRequest>();
    // Once the request is read: it is done, also where whoever asked has gone meanwhile.
    server.addHook('preHandler', async (request) => {
      if (isSpared(request.url)) return;
      const fault = this.strike('late', '', request.url, request.method);
      if (!fault) return;
      late.add(request);
      await pause((fault.seconds ?? 0) * 1000);
    });
    server.addHook('onSend', async (request) => {
      if (late.has(request)) this.count('late, landed');
    });
    server.addHook('onRequest', async (request) => {
      if (isSpared(request.url)) return;
      const fault = this.strike('answer', '', request.url, request.method);
      if (fault) {
        const status = fault.status ?? 503;
        throw new Problem(status, status === 429 ? 'Too many requests' : 'Not now', 'Come back later', {
          retryAfter: fault.retryAfter ?? 1,
        });
      }
    });
  }
}
