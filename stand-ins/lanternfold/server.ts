import type { FastifyInstance } from 'fastify';
import { registerCaptions } from '../shared/captions';
import { registerGroups } from '../shared/groups';
import { Problem } from '../shared/problem';
import { newVideoId, openSite, valid } from '../shared/site';
import { closedByMatch, Matches } from './matches';
import { people } from './people';
import { CATEGORIES, chaptersIn, checkThumbnail, newVideoShape, wordsShape } from './rules';
import { isBeingShown, isToBeShown, registerTalk, showingPage, waitingPage } from './showing';
import { Uploads } from './uploads';
import type { Video } from './video';
import { channelPage, closedPage, STYLE, watchPage } from './watch-page';

const SCOPES = {
  'channels.read': 'see your channels and their playlists',
  'videos.send': 'send videos to your channels',
  'videos.change': 'change, open and remove the videos that it has sent',
  'playlists.change': 'make playlists and put videos in them',
};

/** Fields that a fault alters, as a site would that has lost or mangled something. */
function altered(_video: Video, field: string, value: string): Partial<Video> {
  if (field === 'title') return { title: value };
  if (field === 'description') return { description: value };
  return field === 'tags' ? { tags: [value] } : {};
}

const OPENS_WITHIN_MILLISECONDS = 50;

/**
 * Lanternfold: an open video site. Everything it keeps lies in `folder`.
 * @param hour real milliseconds of an hour there
 */
export async function lanternfold(folder: string, port: number, hour: number): Promise<FastifyInstance> {
  const matches = new Matches(folder, hour);
  const site = await openSite<Video>({
    name: 'Lanternfold',
    folder,
    port,
    people,
    scopes: SCOPES,
    style: STYLE,
    allowance: [
      { name: 'hour', requests: 600, seconds: hour / 1000, told: true },
      { name: 'day', requests: 5000, seconds: (24 * hour) / 1000, told: true },
    ],
    pages: '/watch',
    closedPage: (video) => (video && isToBeShown(video) ? waitingPage(video) : closedPage()),
    closedStatus: (video) => (isToBeShown(video) ? 200 : undefined),
    showsPicture: isToBeShown,
    hooks: {
      altered,
      afterFirst: (video, faults, original) =>
        matches.lookFor(video, faults.strikeAll('rights match', video.fileName), original),
    },
    mayWatch: (video, isOwner) => video.visibility !== 'closed' || isOwner,
  });
  const { server, address, videos, channels, processing } = site;
  const uploads = new Uploads(site.fileFolder, site.faults, (id) => processing.landed(id));
  const playlists = registerGroups(
    site,
    folder,
    { channel: '/api/channels', video: '/api/videos', name: 'playlists' },
    (group) => group,
  );
  const captions = registerCaptions(site, folder, '/api/videos', '/watch');
  const shown = (video: Video) => ({
    ...video,
    chapters: chaptersIn(video),
    playlists: playlists.of(video.id),
    captions: captions.of(video.id),
    watchUrl: `${address}/watch/${video.id}`,
    uploadUrl: `${address}/files/${video.id}`,
  });

  server.get('/api/me', async (request) => {
    const { id, name } = site.personOf(request);
    return { id, name, scope: site.grantOf(request).scope };
  });

  server.get('/api/categories', async () => CATEGORIES);

  server.get('/api/channels', async (request) => {
    const grant = site.grantOf(request);
    return channels
      .filter((channel) => grant.channelIds.includes(channel.id))
      .map(({ id, name, about, mayEarn }) => ({ id, name, about, mayEarn, url: `${address}/channel/${id}` }));
  });

  server.post<{ Params: { id: string } }>('/api/channels/:id/videos', async (request, reply) => {
    const channel = site.channelFor(request, request.params.id);
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
    const title = fileName.replace(/\.\w+$/, '').slice(0, 96);
    const video = videos.put({
      id: newVideoId(),
      channelId: channel.id,
      key,
      fileName,
      size,
      title,
      description: '',
      tags: [],
      visibility: 'closed',
      stage: 'receiving',
      progress: 0,
      checks: 'waiting',
      createdAt: new Date().toISOString(),
    });
    await uploads.announce(video.id, size, fileName);
    return reply.status(201).send(shown(video));
  });

  server.get<{ Querystring: { ids?: string } }>('/api/videos', async (request) =>
    site.videosFor(request, String(request.query.ids ?? '').split(','), 50).map(shown),
  );

  server.get('/api/videos/:id', async (request) => shown(site.videoFor(request)));

  server.patch('/api/videos/:id', async (request) => {
    const { id } = site.videoFor(request);
    const change = await valid(wordsShape.validate(request.body, { stripUnknown: false }));
    const video = site.videoFor(request);
    const set: Partial<Video> = Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined));
    // Whoever says who may see it takes back what was said of a time.
    if (change.visibility)
      Object.assign(set, {
        opensAt: change.opensAt,
        opensTo: change.opensAt && (change.opensTo ?? 'open'),
        firstShowing: change.opensAt
          ? change.firstShowing === true
          : video.publishedAt
            ? video.firstShowing
            : undefined,
      });
    const next: Video = { ...video, ...set };
    const refuse = (status: number, title: string, detail: string, field?: string) => {
      throw new Problem(status, title, detail, { field });
    };
    if (next.madeForChildren) {
      if (next.adverts === 'interest') refuse(422, 'Not taken', 'No adverts by interest for children', 'adverts');
    }
    const earns = channels.find(({ id }) => id === video.channelId)?.mayEarn ?? false;
    if ((next.adverts ?? 'off') !== 'off' && !earns) refuse(422, 'Not taken', 'This channel may not earn', 'adverts');
    if (change.opensAt && change.visibility !== 'closed') {
      refuse(422, 'Not taken', 'A video that opens at a time is closed until then', 'opensAt');
    }
    if (change.opensAt && Date.parse(change.opensAt) < Date.now()) {
      refuse(422, 'Not taken', 'That time is over', 'opensAt');
    }
    if (change.visibility === 'open' || change.opensAt) {
      if (video.stage !== 'ready' && video.stage !== 'full') {
        refuse(409, 'Too early', 'The video cannot be opened before a version of it plays');
      }
      if (next.madeForChildren === undefined) {
        refuse(409, 'Answer missing', 'Say whether the video is made for children first', 'madeForChildren');
      }
      const closing = closedByMatch(video);
      if (closing) refuse(409, 'Blocked', `${closing.owner} does not permit it`);
      if (!change.opensAt) next.publishedAt ??= new Date().toISOString();
    }
    return shown(videos.change(id, { ...set, publishedAt: next.publishedAt }));
  });

  // Also those whose time came while nothing ran.
  const openDue = () => {
    const due = videos.all().filter(({ opensAt }) => opensAt !== undefined && Date.parse(opensAt) <= Date.now());
    for (const video of due) {
      const missed = site.faults.strike('time forgotten', video.fileName);
      const opened = missed
        ? {}
        : { visibility: video.opensTo ?? 'open', publishedAt: video.publishedAt ?? video.opensAt };
      videos.change(video.id, { ...opened, opensAt: undefined, opensTo: undefined });
    }
  };
  const clock = setInterval(() => {
    openDue();
    matches.answerDue(site);
  }, OPENS_WITHIN_MILLISECONDS);
  server.addHook('onClose', async () => clearInterval(clock));

  server.put('/api/videos/:id/thumbnail', async (request) => {
    return shown(await site.keepThumbnail(site.videoFor(request), request, checkThumbnail));
  });

  server.delete('/api/videos/:id/thumbnail', async (request) => {
    return shown(await site.leaveThumbnail(site.videoFor(request)));
  });

  matches.register(server, site, shown);

  server.delete('/api/videos/:id', async (request, reply) => {
    const video = site.videoFor(request);
    playlists.forget(video.id);
    captions.forget(video.id);
    videos.delete(video.id);
    await uploads.remove(video.id);
    await processing.forget(video.id);
    return reply.status(204).send();
  });

  uploads.register(server, (request, id) => {
    const video = videos.get(id);
    return video !== undefined && site.grantOf(request).channelIds.includes(video.channelId);
  });

  registerTalk(server, videos);

  site.showPages({
    watch: (video, channel) =>
      isBeingShown(video)
        ? showingPage(video)
        : watchPage({
            video,
            channel,
            chapters: chaptersIn(video),
            playlists: playlists.of(video.id),
            category: CATEGORIES.find(({ id }) => id === video.category)?.name,
            languages: captions.of(video.id).map(({ language }) => language),
          }),
    channelPath: '/channel',
    channel: channelPage,
    isListed: (video) => video.visibility === 'open',
  });

  return site.listen();
}
