import { createHash, randomBytes } from 'node:crypto';
import { existsSync } from 'node:fs';
import { rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import cookie from '@fastify/cookie';
import formbody from '@fastify/formbody';
import fastifyStatic from '@fastify/static';
import fastify, { type FastifyInstance, type FastifyRequest } from 'fastify';
import sharp from 'sharp';
import { ValidationError } from 'yup';
import { Faults } from '../shared/faults';
import { Permissions } from '../shared/oauth/permissions';
import { registerOAuth } from '../shared/oauth/server';
import { answerProblems, Problem } from '../shared/problem';
import { Records } from '../shared/records';
import { people } from './people';
import { Processing } from './processing';
import { chaptersIn, checkThumbnail, newVideoShape, placeShape, playlistShape, wordsShape } from './rules';
import { Uploads } from './uploads';
import type { Playlist, Video } from './video';
import { channelPage, closedPage, STYLE, watchPage } from './watch-page';

const SCOPES = {
  'channels.read': 'see your channels and their playlists',
  'videos.send': 'send videos to your channels',
  'videos.change': 'change, open and remove the videos that it has sent',
  'playlists.change': 'make playlists and put videos in them',
};

const channels = people.flatMap((person) => person.channels.map((channel) => ({ ...channel, personId: person.id })));
const newVideoId = () => randomBytes(8).toString('base64url').replace(/[-_]/g, 'k');

/** Lanternfold: an open video site. Everything it keeps lies in `folder`. */
export async function lanternfold(folder: string, port: number): Promise<FastifyInstance> {
  const address = `http://127.0.0.1:${port}`;
  const server = fastify({ forceCloseConnections: true, bodyLimit: 4_000_000, routerOptions: { maxParamLength: 200 } });
  const videos = new Records<Video>(path.join(folder, 'videos'));
  const playlists = new Records<Playlist>(path.join(folder, 'playlists'));
  const permissions = new Permissions(path.join(folder, 'permissions'));
  const faults = new Faults(path.join(folder, 'faults.json'));
  const fileFolder = path.join(folder, 'files');
  const processing = new Processing(videos, fileFolder, faults);
  const uploads = new Uploads(fileFolder, faults, (id) => {
    const video = videos.get(id);
    if (video?.stage !== 'receiving') return;
    videos.put({ ...video, stage: 'queued' });
    void processing.wake();
  });

  answerProblems(server);
  await server.register(formbody);
  await server.register(cookie);
  await server.register(fastifyStatic, { root: path.resolve(fileFolder), serve: false });
  server.addContentTypeParser(/^image\//, { parseAs: 'buffer' }, (_request, body, done) => done(null, body));
  faults.register(server);
  const site = { name: 'Lanternfold', address, people, clientIds: ['kettle-drop'], scopes: SCOPES, style: STYLE };
  registerOAuth(server, site, permissions);

  const grantOf = (request: FastifyRequest) => {
    const token = /^Bearer (.+)$/.exec(request.headers.authorization ?? '')?.[1];
    const grant = token && permissions.grantOf(token);
    if (!grant) throw new Problem(401, 'Not permitted', 'The access token is missing, has run out or was taken back');
    return grant;
  };
  const channelFor = (request: FastifyRequest, id: string) => {
    const grant = grantOf(request);
    const channel = channels.find((each) => each.id === id && grant.channelIds.includes(id));
    if (!channel) throw new Problem(404, 'Not found', 'There is no such channel, or the permission does not cover it');
    return channel;
  };
  const videoFor = (request: FastifyRequest) => {
    const video = videos.get((request.params as { id: string }).id);
    if (!video || !grantOf(request).channelIds.includes(video.channelId)) {
      throw new Problem(404, 'Not found', 'There is no such video');
    }
    return video;
  };
  const valid = async <T>(check: Promise<T>): Promise<T> => {
    try {
      return await check;
    } catch (error) {
      if (error instanceof ValidationError) throw new Problem(422, 'Not taken', error.message, { field: error.path });
      throw error;
    }
  };
  const shown = (video: Video) => ({
    ...video,
    chapters: chaptersIn(video),
    playlists: playlists
      .all()
      .filter((list) => list.videoIds.includes(video.id))
      .map(({ id, title }) => ({ id, title })),
    watchUrl: `${address}/watch/${video.id}`,
    uploadUrl: `${address}/files/${video.id}`,
  });

  server.get('/api/me', async (request) => {
    const grant = grantOf(request);
    const person = people.find((each) => each.id === grant.personId);
    return { id: person?.id, name: person?.name, scope: grant.scope };
  });

  server.get('/api/channels', async (request) => {
    const grant = grantOf(request);
    return channels
      .filter((channel) => grant.channelIds.includes(channel.id))
      .map(({ id, name, about, mayEarn }) => ({ id, name, about, mayEarn, url: `${address}/channel/${id}` }));
  });

  server.get<{ Params: { id: string } }>('/api/channels/:id/playlists', async (request) => {
    const channel = channelFor(request, request.params.id);
    return playlists
      .all()
      .filter((list) => list.channelId === channel.id)
      .map(({ id, title, videoIds }) => ({ id, title, videos: videoIds.length }));
  });

  server.post<{ Params: { id: string } }>('/api/channels/:id/playlists', async (request, reply) => {
    const channel = channelFor(request, request.params.id);
    const { title } = await valid(playlistShape.validate(request.body));
    const key = String(request.headers['idempotency-key'] ?? randomBytes(8).toString('hex'));
    const made = playlists.find((list) => list.channelId === channel.id && list.key === key);
    const list = made ?? playlists.put({ id: newVideoId(), channelId: channel.id, key, title, videoIds: [] });
    return reply.status(made ? 200 : 201).send({ id: list.id, title: list.title, videos: list.videoIds.length });
  });

  server.post<{ Params: { id: string } }>('/api/channels/:id/videos', async (request, reply) => {
    const channel = channelFor(request, request.params.id);
    const { fileName, size } = await valid(newVideoShape.validate(request.body));
    if (!/\.(mp4|mov|mkv|webm)$/i.test(fileName)) {
      throw new Problem(422, 'Not taken', 'Only MP4, MOV, MKV and WebM files are taken', { field: 'fileName' });
    }
    const key = String(request.headers['idempotency-key'] ?? '');
    if (key === '') throw new Problem(400, 'Key missing', 'An Idempotency-Key header is needed');
    const made = videos.find((video) => video.channelId === channel.id && video.key === key);
    if (made) {
      if ((await uploads.offset(made.id)) === undefined) await uploads.announce(made.id, made.size, made.fileName);
      return reply.send(shown(made));
    }
    const video: Video = {
      id: newVideoId(),
      channelId: channel.id,
      key,
      fileName,
      size,
      title: fileName.replace(/\.\w+$/, '').slice(0, 90),
      description: '',
      tags: [],
      visibility: 'closed',
      stage: 'receiving',
      progress: 0,
      checks: 'waiting',
      createdAt: new Date().toISOString(),
    };
    videos.put(video);
    await uploads.announce(video.id, size, fileName);
    return reply.status(201).send(shown(video));
  });

  server.get('/api/videos/:id', async (request) => shown(videoFor(request)));

  server.patch('/api/videos/:id', async (request) => {
    const video = videoFor(request);
    const change = await valid(wordsShape.validate(request.body, { stripUnknown: false }));
    if (change.visibility === 'open' && video.stage !== 'ready' && video.stage !== 'full') {
      throw new Problem(409, 'Too early', 'The video cannot be opened before a version of it plays');
    }
    if (
      change.visibility === 'open' &&
      video.checks === 'matched' &&
      !video.matchAccepted &&
      video.match?.wants === 'block'
    ) {
      throw new Problem(409, 'Blocked', `${video.match.owner} does not permit it`);
    }
    const publishedAt = video.publishedAt ?? (change.visibility === 'open' ? new Date().toISOString() : undefined);
    const given = Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined));
    return shown(videos.put({ ...video, ...given, publishedAt }));
  });

  server.put('/api/videos/:id/thumbnail', async (request) => {
    const video = videoFor(request);
    const bytes = request.body;
    if (!Buffer.isBuffer(bytes)) throw new Problem(415, 'Picture not taken', 'Send the bytes of a picture');
    const found = await sharp(bytes)
      .metadata()
      .catch(() => ({}));
    checkThumbnail(found, bytes.length);
    await writeFile(processing.fileOf(video.id, 'thumbnail'), bytes);
    const thumbnail = {
      type: String(request.headers['content-type']),
      sha256: createHash('sha256').update(bytes).digest('hex'),
    };
    return shown(videos.put({ ...video, thumbnail }));
  });

  server.put('/api/videos/:id/playlists', async (request) => {
    const video = videoFor(request);
    const { playlistIds } = await valid(placeShape.validate(request.body));
    for (const list of playlists.all().filter((each) => each.channelId === video.channelId)) {
      const [wanted, there] = [playlistIds.includes(list.id), list.videoIds.includes(video.id)];
      if (wanted && !there) playlists.put({ ...list, videoIds: [...list.videoIds, video.id] });
      if (!wanted && there) playlists.put({ ...list, videoIds: list.videoIds.filter((id) => id !== video.id) });
    }
    return shown(video);
  });

  server.post('/api/videos/:id/accept-match', async (request) => {
    const video = videoFor(request);
    return shown(videos.put({ ...video, matchAccepted: true }));
  });

  server.delete('/api/videos/:id', async (request, reply) => {
    const video = videoFor(request);
    for (const list of playlists.all()) {
      if (list.videoIds.includes(video.id)) {
        playlists.put({ ...list, videoIds: list.videoIds.filter((id) => id !== video.id) });
      }
    }
    videos.delete(video.id);
    await uploads.remove(video.id);
    for (const name of ['first.mp4', 'full.mp4', 'still.jpg', 'thumbnail'] as const) {
      await rm(processing.fileOf(video.id, name), { force: true });
    }
    return reply.status(204).send();
  });

  uploads.register(server, (request, id) => {
    const video = videos.get(id);
    return video !== undefined && grantOf(request).channelIds.includes(video.channelId);
  });

  const watched = (request: FastifyRequest) => {
    const video = videos.get((request.params as { id: string }).id);
    const owner = channels.find((channel) => channel.id === video?.channelId)?.personId;
    return video && (video.visibility !== 'closed' || request.cookies.person === owner) ? video : undefined;
  };

  server.get('/watch/:id', async (request, reply) => {
    const video = watched(request);
    reply.header('content-type', 'text/html; charset=utf-8');
    if (!video) return reply.status(404).send(closedPage());
    const channel = channels.find((each) => each.id === video.channelId)?.name ?? '';
    const lists = playlists.all().filter((list) => list.videoIds.includes(video.id));
    return watchPage({ video, chapters: chaptersIn(video), channel, playlists: lists });
  });

  server.get('/watch/:id/video.mp4', async (request, reply) => {
    const video = watched(request);
    if (!video) return reply.status(404).send(closedPage());
    const name = video.stage === 'ready' ? 'full.mp4' : 'first.mp4';
    return reply.sendFile(path.basename(processing.fileOf(video.id, name)));
  });

  server.get('/watch/:id/thumbnail', async (request, reply) => {
    const video = watched(request);
    if (!video) return reply.status(404).send(closedPage());
    const own = existsSync(processing.fileOf(video.id, 'thumbnail'));
    const file = path.basename(processing.fileOf(video.id, own ? 'thumbnail' : 'still.jpg'));
    return reply.type(own ? (video.thumbnail?.type ?? 'image/jpeg') : 'image/jpeg').sendFile(file);
  });

  server.get<{ Params: { id: string } }>('/channel/:id', async (request, reply) => {
    const channel = channels.find((each) => each.id === request.params.id);
    reply.header('content-type', 'text/html; charset=utf-8');
    if (!channel) return reply.status(404).send(closedPage());
    const open = videos.all().filter((video) => video.channelId === channel.id && video.visibility === 'open');
    return channelPage(channel.name, open);
  });

  // For tests: everything the site keeps, whoever asks on loopback.
  server.get('/control/videos', async () => videos.all().map(shown));

  await server.listen({ host: '127.0.0.1', port });
  void processing.wake();
  return server;
}
