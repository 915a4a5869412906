import { createHash, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync } from 'node:fs';
import { rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import cookie from '@fastify/cookie';
import formbody from '@fastify/formbody';
import fastifyStatic from '@fastify/static';
import fastify, { type FastifyInstance, type FastifyRequest } from 'fastify';
import sharp from 'sharp';
import { ValidationError } from 'yup';
import { Allowance, type AllowanceRule } from './allowance';
import { listAsked } from './asked';
import { Faults } from './faults';
import type { Hosted } from './hosted';
import { Permissions, type Person } from './oauth/permissions';
import { registerOAuth } from './oauth/server';
import { answerProblems, Problem, type ProblemShape, problemDetails } from './problem';
import { Processing, type ProcessingHooks } from './processing';
import { Records } from './records';

/** What makes one stand-in another than the next. */
export interface SiteOptions<T extends Hosted> {
  name: string;
  folder: string;
  port: number;
  people: Person[];
  scopes: Record<string, string>;
  style: string;
  /** Where its public pages stand, such as `/watch`. */
  pages: string;
  hooks: ProcessingHooks<T>;
  /** Whether somebody may watch: anybody, or its owner signed in here. */
  mayWatch(video: T, isOwner: boolean, request: FastifyRequest): boolean;
  /** What somebody sees who may not; `video` where there is one. */
  closedPage(video?: T): string;
  /** The status that goes with it, where it is another than 404. */
  closedStatus?(video: T): number | undefined;
  /** Whether the picture of a video is shown to those, too, who may not watch it yet. */
  showsPicture?(video: T): boolean;
  /** How it words its errors; problem details where it does not say otherwise. */
  errors?: ProblemShape;
  bodyLimit?: number;
  /** What each account may ask; seconds are real ones. */
  allowance: AllowanceRule[];
}

/** A stand-in with what all of them share: accounts, permissions, videos, processing, faults, public files. */
export interface Site<T extends Hosted> {
  server: FastifyInstance;
  address: string;
  videos: Records<T>;
  faults: Faults;
  /** Where the files of videos stand. */
  fileFolder: string;
  processing: Processing<T>;
  channels: (Person['channels'][number] & { personId: string })[];
  /** The permission behind a request. @throws Problem 401 */
  grantOf(request: FastifyRequest): NonNullable<ReturnType<Permissions['grantOf']>>;
  personOf(request: FastifyRequest): Person;
  /** @throws Problem 404 */
  channelFor(request: FastifyRequest, id: string): Site<T>['channels'][number];
  /** The video that `:id` names, where the permission covers it. @throws Problem 404 */
  videoFor(request: FastifyRequest): T;
  /** Those of the videos named that there are, where the permission covers them. @throws Problem 400 where they are too many */
  videosFor(request: FastifyRequest, ids: readonly string[], most: number): T[];
  /** The video that `:id` names, where whoever asks may watch it. */
  watched(request: FastifyRequest): T | undefined;
  /** The public pages: that of a video, under `pages`, for whoever may watch it, and that of a channel. */
  showPages(pages: {
    watch(video: T, channel: string): string;
    channelPath: string;
    channel(name: string, shown: T[]): string;
    /** Whether a video is listed on its channel's page. */
    isListed(video: T): boolean;
  }): void;
  /** Keeps a picture that was sent as bytes, once `check` has nothing against it. */
  keepThumbnail(
    video: T,
    request: FastifyRequest,
    check: (found: { format?: string; width?: number; height?: number }, bytes: number) => void,
  ): Promise<T>;
  /** Takes the picture that was sent away again: the site’s own stands for the video. */
  leaveThumbnail(video: T): Promise<T>;
  listen(): Promise<FastifyInstance>;
}

/** An id as addresses of pages show it. */
export const newVideoId = () => randomBytes(8).toString('base64url').replace(/[-_]/g, 'k');

/** Lets a body through where it is of a shape. @throws Problem 422 naming the field */
export async function valid<V>(check: Promise<V>): Promise<V> {
  try {
    return await check;
  } catch (error) {
    if (error instanceof ValidationError) throw new Problem(422, 'Not taken', error.message, { field: error.path });
    throw error;
  }
}

/** Makes a stand-in with what all of them share; its own routes are added before it listens. */
export async function openSite<T extends Hosted>(options: SiteOptions<T>): Promise<Site<T>> {
  const { folder, port, people } = options;
  const address = `http://127.0.0.1:${port}`;
  const bodyLimit = options.bodyLimit ?? 12_000_000;
  const server = fastify({ forceCloseConnections: true, bodyLimit, routerOptions: { maxParamLength: 200 } });
  const videos = new Records<T>(path.join(folder, 'videos'));
  const permissions = new Permissions(path.join(folder, 'permissions'));
  const faults = new Faults(path.join(folder, 'faults.json'));
  const fileFolder = path.join(folder, 'files');
  mkdirSync(fileFolder, { recursive: true });
  const processing = new Processing(videos, fileFolder, faults, options.hooks);
  const channels = people.flatMap((person) => person.channels.map((channel) => ({ ...channel, personId: person.id })));

  const grantOf = (request: FastifyRequest) => {
    const token = /^Bearer (.+)$/.exec(request.headers.authorization ?? '')?.[1];
    return token === undefined ? undefined : permissions.grantOf(token);
  };

  answerProblems(server, options.errors ?? problemDetails);
  await server.register(formbody);
  await server.register(cookie);
  await server.register(fastifyStatic, { root: path.resolve(fileFolder), serve: false });
  server.addContentTypeParser(/^image\//, { parseAs: 'buffer' }, (_request, body, done) => done(null, body));
  server.addContentTypeParser('application/octet-stream', (_request, _payload, done) => done(null));
  faults.register(server);
  listAsked(server);
  new Allowance(options.allowance, (request) => grantOf(request)?.personId).register(server);
  const { name, scopes, style } = options;
  registerOAuth(server, { name, address, people, clientIds: ['kettle-drop'], scopes, style }, permissions);

  const watched = (request: FastifyRequest) => {
    const video = videos.get((request.params as { id: string }).id);
    const owner = channels.find((channel) => channel.id === video?.channelId)?.personId;
    return video && options.mayWatch(video, request.cookies.person === owner, request) ? video : undefined;
  };
  const site: Site<T> = {
    server,
    address,
    videos,
    faults,
    fileFolder,
    processing,
    channels,
    watched,
    grantOf(request) {
      const grant = grantOf(request);
      if (!grant) throw new Problem(401, 'Not permitted', 'The access token is missing, has run out or was taken back');
      return grant;
    },
    personOf(request) {
      const { personId } = site.grantOf(request);
      const person = people.find((each) => each.id === personId);
      if (!person) throw new Problem(401, 'Not permitted', 'There is no such person');
      return person;
    },
    channelFor(request, id) {
      const grant = site.grantOf(request);
      const channel = channels.find((each) => each.id === id && grant.channelIds.includes(id));
      if (!channel)
        throw new Problem(404, 'Not found', 'There is no such channel, or the permission does not cover it');
      return channel;
    },
    videoFor(request) {
      const video = videos.get((request.params as { id: string }).id);
      if (!video || !site.grantOf(request).channelIds.includes(video.channelId)) {
        throw new Problem(404, 'Not found', 'There is no such video');
      }
      return video;
    },
    videosFor(request, ids, most) {
      const { channelIds } = site.grantOf(request);
      if (ids.length > most) throw new Problem(400, 'Too many', `At most ${most} are told at once`);
      return ids.flatMap((id) => videos.get(id) ?? []).filter(({ channelId }) => channelIds.includes(channelId));
    },
    showPages({ watch, channelPath, channel, isListed }) {
      const show = (path: string, made: (request: FastifyRequest) => string | undefined) =>
        server.get(path, async (request, reply) => {
          const html = made(request);
          reply.header('content-type', 'text/html; charset=utf-8');
          if (html !== undefined) return html;
          const video = videos.get((request.params as { id: string }).id);
          const status = (video && options.closedStatus?.(video)) ?? 404;
          return reply.status(status).send(options.closedPage(video));
        });
      show(`${options.pages}/:id`, (request) => {
        const video = watched(request);
        return video && watch(video, channels.find(({ id }) => id === video.channelId)?.name ?? '');
      });
      show(`${channelPath}/:id`, (request) => {
        const found = channels.find(({ id }) => id === (request.params as { id: string }).id);
        if (!found) return undefined;
        const listed = videos.all().filter((video) => video.channelId === found.id && isListed(video));
        return channel(found.name, listed);
      });
    },
    async keepThumbnail(video, request, check) {
      const bytes = request.body;
      if (!Buffer.isBuffer(bytes)) throw new Problem(415, 'Picture not taken', 'Send the bytes of a picture');
      const found = await sharp(bytes)
        .metadata()
        .catch(() => ({}));
      check(found, bytes.length);
      await writeFile(processing.fileOf(video.id, 'thumbnail'), bytes);
      const thumbnail = {
        type: String(request.headers['content-type']),
        sha256: createHash('sha256').update(bytes).digest('hex'),
      };
      videos.change(video.id, { thumbnail } as Partial<T>);
      processing.addVersion(video.id, { of: 'thumbnail' });
      return videos.get(video.id) ?? video;
    },
    async leaveThumbnail(video) {
      await rm(processing.fileOf(video.id, 'thumbnail'), { force: true });
      videos.change(video.id, { thumbnail: undefined } as Partial<T>);
      return videos.get(video.id) ?? video;
    },
    async listen() {
      await server.listen({ host: '127.0.0.1', port });
      void processing.wake();
      return server;
    },
  };

  server.get(`${options.pages}/:id/video.mp4`, async (request, reply) => {
    const video = watched(request);
    if (!video) return reply.status(404).type('text/html').send(options.closedPage());
    const version = video.stage === 'ready' ? 'full.mp4' : 'first.mp4';
    return reply.sendFile(path.basename(processing.fileOf(video.id, version)));
  });

  server.get(`${options.pages}/:id/thumbnail`, async (request, reply) => {
    const named = videos.get((request.params as { id: string }).id);
    const video = watched(request) ?? (named && options.showsPicture?.(named) ? named : undefined);
    if (!video) return reply.status(404).type('text/html').send(options.closedPage());
    const hasOwn = existsSync(processing.fileOf(video.id, 'thumbnail'));
    const file = path.basename(processing.fileOf(video.id, hasOwn ? 'thumbnail' : 'still.jpg'));
    return reply.type(hasOwn ? (video.thumbnail?.type ?? 'image/jpeg') : 'image/jpeg').sendFile(file);
  });

  // For tests: everything the site keeps, whoever asks on loopback.
  server.get('/control/videos', async () => videos.all());
  // For tests and the demo: somebody changes a video on the site's own pages, or takes it away.
  server.patch('/control/videos/:id', async (request) => {
    const { id } = request.params as { id: string };
    return videos.change(id, (request.body ?? {}) as Partial<T>);
  });
  return site;
}
