import type { FastifyInstance } from 'fastify';
import { registerCaptions } from '../shared/captions';
import { registerGroups } from '../shared/groups';
import { Problem } from '../shared/problem';
import { newVideoId, openSite, valid } from '../shared/site';
import { shapeOf } from '../shared/transcode';
import { askPage, portfolioPage, STYLE, shutPage, workPage } from './pages';
import { Parts } from './parts';
import { cookieOf, hashOf, hasPassword, isPassword } from './password';
import { people } from './people';
import { chaptersInFile, checkCover, newWorkShape, swapShape, workShape } from './rules';
import type { Work } from './work';

const SCOPES = {
  'portfolio.read': 'see your portfolio and its collections',
  'works.add': 'add works to your portfolio',
  'works.edit': 'edit, show and delete the works that it has added',
  'collections.edit': 'make collections and put works in them',
};

/**
 * Fieldgate: a portfolio host for professionals. Everything it keeps lies in `folder`.
 * @param hour real milliseconds of an hour there
 */
export async function fieldgate(folder: string, port: number, hour: number): Promise<FastifyInstance> {
  const site = await openSite<Work>({
    name: 'Fieldgate',
    folder,
    port,
    people,
    scopes: SCOPES,
    style: STYLE,
    allowance: [{ name: 'minute', requests: 20, seconds: hour / 60_000, told: true }],
    pages: '/work',
    closedPage: (work) => (work?.audience === 'password' ? askPage(work.id) : shutPage()),
    closedStatus: (work) => (work.audience === 'password' ? 403 : undefined),
    hooks: {
      altered: (_work, field, value) => (field === 'title' ? { headline: value } : {}),
    },
    mayWatch: (work, isOwner, request) =>
      isOwner || (work.audience === 'password' ? hasPassword(work, request) : work.audience !== 'me'),
  });
  const { server, address, videos: works, channels, processing } = site;
  const parts = new Parts(
    folder,
    (id) => processing.originalOf(id),
    site.faults,
    (id) => processing.landed(id),
  );
  const collections = registerGroups(
    site,
    folder,
    { channel: '/v2/portfolios', video: '/v2/works', name: 'collections' },
    ({ id, title, videos }) => ({ id, name: title, works: videos }),
  );
  const captions = registerCaptions(site, folder, '/v2/works', '/work');
  const shown = ({ passwordHash, ...work }: Work) => ({
    ...work,
    hasPassword: passwordHash !== undefined,
    chapters: chaptersInFile(work.chapters),
    collections: collections.of(work.id),
    captions: captions.of(work.id),
    page: `${address}/work/${work.id}`,
  });

  server.get('/v2/account', async (request) => {
    const { id, name } = site.personOf(request);
    return { id, name, permitted: site.grantOf(request).scope };
  });

  server.get('/v2/portfolios', async (request) => {
    const grant = site.grantOf(request);
    return channels
      .filter(({ id }) => grant.channelIds.includes(id))
      .map(({ id, name, about }) => ({ id, name, about, page: `${address}/portfolio/${id}` }));
  });

  server.post<{ Params: { id: string } }>('/v2/portfolios/:id/works', async (request, reply) => {
    const portfolio = site.channelFor(request, request.params.id);
    const { fileName, bytes } = await valid(newWorkShape.validate(request.body));
    if (!/\.(mp4|mov)$/i.test(fileName)) {
      throw new Problem(422, 'Not taken', 'Only MP4 and MOV files are taken', { field: 'fileName' });
    }
    const key = String(request.headers['idempotency-key'] ?? '');
    if (key === '') throw new Problem(400, 'Key missing', 'An Idempotency-Key header is needed');
    const made = works.find((work) => work.channelId === portfolio.id && work.key === key);
    if (made) return reply.send(shown(made));
    const work = works.put({
      id: newVideoId(),
      channelId: portfolio.id,
      key,
      fileName,
      size: bytes,
      about: '',
      keywords: [],
      credits: [],
      headline: fileName.replace(/\.\w+$/, '').slice(0, 110),
      audience: 'me',
      stage: 'receiving',
      progress: 0,
      createdAt: new Date().toISOString(),
    });
    return reply.status(201).send(shown(work));
  });

  parts.register(server, (request) => site.videoFor(request));

  server.get<{ Querystring: { id?: string | string[] } }>('/v2/works', async (request) => ({
    works: site.videosFor(request, [request.query.id ?? []].flat(), 20).map(shown),
  }));

  server.get('/v2/works/:id', async (request) => shown(site.videoFor(request)));

  server.patch('/v2/works/:id', async (request) => {
    const work = site.videoFor(request);
    const change = await valid(workShape.validate(request.body, { stripUnknown: false }));
    if (change.audience && change.audience !== 'me' && work.stage !== 'ready' && work.stage !== 'full') {
      if (change.audience === 'public') throw new Problem(409, 'Too early', 'The work cannot be shown before it plays');
    }
    const { password, ...fields } = change;
    if (change.audience === 'password' && password === undefined) {
      throw new Problem(422, 'Not taken', 'Say the password', { field: 'password' });
    }
    const set: Partial<Work> = Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined));
    if (password !== undefined) set.passwordHash = hashOf(password);
    const publishedAt = work.publishedAt ?? (change.audience === 'public' ? new Date().toISOString() : undefined);
    return shown(works.change(work.id, { ...set, publishedAt }));
  });

  // Whoever has the address says the password here; the browser then keeps a cookie for that work.
  server.post<{ Params: { id: string }; Body: { password?: string } }>('/work/:id/password', async (request, reply) => {
    const work = works.get(request.params.id);
    if (work?.audience !== 'password') return reply.status(404).type('text/html').send(shutPage());
    if (!isPassword(work, request.body?.password ?? '')) {
      return reply.status(403).type('text/html; charset=utf-8').send(askPage(work.id, true));
    }
    const path = `/work/${work.id}`;
    reply.setCookie(cookieOf(work.id), work.passwordHash ?? '', { path, httpOnly: true, sameSite: 'lax' });
    return reply.redirect(path, 303);
  });

  server.put('/v2/works/:id/chapters', async (request) => {
    const work = site.videoFor(request);
    const text = typeof request.body === 'string' ? request.body : '';
    if (!text.startsWith('WEBVTT'))
      throw new Problem(422, 'Not taken', 'Chapters have to be WebVTT', { field: 'chapters' });
    return shown(works.change(work.id, { chapters: text }));
  });

  // The file of another work of the same portfolio takes the place of this one's; the other work is gone then.
  server.put('/v2/works/:id/file', async (request) => {
    const work = site.videoFor(request);
    const { from } = await valid(swapShape.validate(request.body, { stripUnknown: false }));
    const other = works.get(from);
    if (work.fileFrom === from) return shown(work);
    if (!other || other.channelId !== work.channelId || other.id === work.id) {
      throw new Problem(404, 'Not found', 'There is no such work');
    }
    if (other.stage !== 'ready') throw new Problem(409, 'Too early', 'The other work is not prepared yet');
    processing.takeFiles(other.id, work.id);
    const { fileName, size, file, seconds, versions } = other;
    const next = works.change(work.id, { fileName, size, file, seconds, versions, fileFrom: from });
    collections.forget(other.id);
    captions.forget(other.id);
    works.delete(other.id);
    await processing.forget(other.id);
    return shown(next);
  });

  server.put('/v2/works/:id/cover', async (request) => {
    const work = site.videoFor(request);
    const shape = await shapeOf(processing.originalOf(work.id)).catch(() => undefined);
    return shown(await site.keepThumbnail(work, request, checkCover(shape)));
  });

  server.delete('/v2/works/:id/cover', async (request) => {
    return shown(await site.leaveThumbnail(site.videoFor(request)));
  });

  server.delete('/v2/works/:id', async (request, reply) => {
    const work = site.videoFor(request);
    collections.forget(work.id);
    captions.forget(work.id);
    works.delete(work.id);
    parts.remove(work.id);
    await processing.forget(work.id);
    return reply.status(204).send();
  });

  site.showPages({
    watch: (work, portfolio) =>
      workPage({
        work,
        portfolio,
        chapters: chaptersInFile(work.chapters),
        collections: collections.of(work.id),
        languages: captions.of(work.id).map(({ language }) => language),
      }),
    channelPath: '/portfolio',
    channel: portfolioPage,
    isListed: (work) => work.audience === 'public',
  });

  return site.listen();
}
