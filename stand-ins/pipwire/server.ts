import { createWriteStream } from 'node:fs';
import { stat, truncate, writeFile } from 'node:fs/promises';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { FastifyInstance } from 'fastify';
import { Problem } from '../shared/problem';
import { newVideoId, openSite, valid } from '../shared/site';
import { cutPage, postPage, STYLE, wirePage } from './pages';
import { people } from './people';
import type { Post } from './post';
import { contentRange, inspectClip, newPostShape, pipErrors, wordsShape } from './rules';

const SCOPES = {
  'wire.read': 'see your wire',
  'posts.write': 'draft posts, put them out, and take back those that it has put out',
};

/**
 * Pipwire: short posts with a clip. Everything it keeps lies in `folder`.
 * @param hour real milliseconds of an hour there
 */
export async function pipwire(folder: string, port: number, hour: number): Promise<FastifyInstance> {
  const site = await openSite<Post>({
    name: 'Pipwire',
    folder,
    port,
    people,
    scopes: SCOPES,
    style: STYLE,
    allowance: [{ name: 'hour', requests: 300, seconds: hour / 1000, told: true }],
    pages: '/p',
    closedPage: cutPage,
    errors: pipErrors,
    hooks: {
      inspect: inspectClip,
      stillAt: (post) => post.moment,
      altered: (_post, field, value) => (field === 'description' ? { words: value } : {}),
    },
    mayWatch: (post, isOwner) => post.out || isOwner,
  });
  const { server, address, videos: posts, channels, processing } = site;
  const have = async (post: Post) =>
    post.stage === 'receiving'
      ? ((await stat(processing.originalOf(post.id)).catch(() => undefined))?.size ?? 0)
      : post.size;
  const shown = async (post: Post) => ({
    post: {
      id: post.id,
      words: post.words,
      moment: post.moment ?? null,
      out: post.out,
      stage: post.stage,
      progress: post.progress,
      trouble: post.failure ?? null,
      sum: post.file?.sha256 ?? null,
      have: await have(post),
      of: post.size,
      at: `${address}/p/${post.id}`,
      clip: `${address}/1/clips/${post.id}`,
    },
  });

  server.get('/1/me', async (request) => {
    const { id, name } = site.personOf(request);
    const grant = site.grantOf(request);
    const wires = channels.filter((channel) => grant.channelIds.includes(channel.id));
    return {
      me: { id, name, may: grant.scope },
      wires: wires.map((wire) => ({ id: wire.id, handle: wire.name, at: `${address}/wire/${wire.id}` })),
    };
  });

  server.post<{ Params: { id: string } }>('/1/wires/:id/posts', async (request, reply) => {
    const wire = site.channelFor(request, request.params.id);
    const { ref, clip } = await valid(newPostShape.validate(request.body));
    const made = posts.find((post) => post.channelId === wire.id && post.key === ref);
    if (made) return reply.send(await shown(made));
    const post = posts.put({
      id: newVideoId(),
      channelId: wire.id,
      key: ref,
      fileName: clip.name,
      size: clip.bytes,
      words: '',
      out: false,
      stage: 'receiving',
      progress: 0,
      createdAt: new Date().toISOString(),
    });
    await writeFile(processing.originalOf(post.id), '');
    return reply.status(201).send(await shown(post));
  });

  server.get('/1/posts/:id', async (request) => shown(site.videoFor(request)));

  // RFC 9110, section 14.5: a PUT with Content-Range changes that part alone, where the server says that it takes it.
  server.put<{ Params: { id: string } }>('/1/clips/:id', async (request, reply) => {
    const post = site.videoFor(request);
    if (post.stage !== 'receiving') return shown(post);
    const range = contentRange(request.headers['content-range']);
    if (!range || range.size !== post.size) {
      throw new Problem(400, 'Range missing', 'A clip is put with Content-Range, the whole size behind the slash');
    }
    const file = processing.originalOf(post.id);
    const received = await have(post);
    if (range.first > received) {
      throw new Problem(416, 'Gap', `Bytes ${received} to ${range.first - 1} are not here yet`, { have: received });
    }
    await truncate(file, range.first);
    const target = createWriteStream(file, { flags: 'r+', start: range.first, highWaterMark: 1024 * 1024 });
    const line = site.faults.line(post.fileName, () => request.raw.socket.destroy(), target);
    let room = range.last - range.first + 1;
    const bound = new Transform({
      transform(chunk: Buffer, _encoding, done) {
        room -= chunk.length;
        done(room < 0 ? new Problem(400, 'Too much', 'More came than the range says') : null, chunk);
      },
    });
    await pipeline(request.raw, line, bound, target);
    if ((await have(post)) === post.size) processing.landed(post.id);
    return reply.send(await shown(posts.get(post.id) ?? post));
  });

  server.put('/1/posts/:id/words', async (request) => {
    const post = site.videoFor(request);
    const { words, moment } = await valid(wordsShape.validate(request.body, { stripUnknown: false }));
    const changed = posts.change(post.id, { words, moment });
    if (moment !== post.moment && (post.stage === 'ready' || post.stage === 'full'))
      await processing.makeStill(post.id);
    return shown(changed);
  });

  server.post('/1/posts/:id/out', async (request) => {
    const post = site.videoFor(request);
    if (post.stage !== 'ready') throw new Problem(409, 'Not yet', 'The clip is not ready');
    if (post.words === '') throw new Problem(409, 'Not yet', 'A post needs words');
    const publishedAt = post.publishedAt ?? new Date().toISOString();
    return shown(posts.change(post.id, { out: true, publishedAt }));
  });

  server.delete('/1/posts/:id/out', async (request) => {
    return shown(posts.change(site.videoFor(request).id, { out: false }));
  });

  server.delete('/1/posts/:id', async (request, reply) => {
    const post = site.videoFor(request);
    posts.delete(post.id);
    await processing.forget(post.id);
    return reply.status(204).send();
  });

  site.showPages({ watch: postPage, channelPath: '/wire', channel: wirePage, isListed: (post) => post.out });

  return site.listen();
}
