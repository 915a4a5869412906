import { createWriteStream } from 'node:fs';
import { rename, rm, stat } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import multipart from '@fastify/multipart';
import type { FastifyInstance } from 'fastify';
import { Problem } from '../shared/problem';
import { newVideoId, openSite, valid } from '../shared/site';
import type { Clip } from './clip';
import { clipPage, offPage, STYLE, stallPage } from './pages';
import { CATALOGUE, people } from './people';
import { checkPicture, checkProducts, inspectClip, listingShape, newClipShape, stallErrors } from './rules';

const SCOPES = {
  'stall.read': 'see your stall and its catalogue',
  'clips.manage': 'put clips in your stall, hand them in for review, and take them out',
};

/** A review takes 24 to 48 hours of the site; an approved clip is shown within 24 more. */
const REVIEW_HOURS = [24, 48] as const;
const SHOWN_HOURS = 6;

/**
 * Stallmarket: a shop with video. Everything it keeps lies in `folder`.
 * @param hour real milliseconds of an hour there
 */
export async function stallmarket(folder: string, port: number, hour: number): Promise<FastifyInstance> {
  const site = await openSite<Clip>({
    name: 'Stallmarket',
    folder,
    port,
    people,
    scopes: SCOPES,
    style: STYLE,
    allowance: [{ name: 'enough', requests: 200, seconds: hour / 1000, told: false }],
    pages: '/clip',
    closedPage: offPage,
    errors: stallErrors,
    hooks: {
      inspect: inspectClip,
      altered: (_clip, field, value) => (field === 'title' ? { title: value } : {}),
      whenReady: (clip) => void handIn(clip),
    },
    mayWatch: (clip, isOwner) => isShown(clip) || isOwner,
  });
  const { server, address, videos: clips, channels, processing, faults } = site;
  await server.register(multipart, { limits: { files: 1, fileSize: 4_000_000_000 } });

  /** Hands a clip in for review, once it is ready and has a title. */
  function handIn(clip: Clip): Clip {
    const ready = clip.stage === 'ready' && clip.title !== '' && clip.products.length > 0;
    if (!ready || clip.review === 'approved' || clip.review === 'waiting') return clip;
    const [least, most] = REVIEW_HOURS;
    // By the clip's id, so that a restart changes nothing.
    const hours = least + ([...clip.id].reduce((sum, sign) => sum + sign.charCodeAt(0), 0) % (most - least + 1));
    return clips.put({ ...clip, review: 'waiting', declined: undefined, decidedAt: Date.now() + hours * hour });
  }
  /** Decides what is due. */
  function reviewed(clip: Clip): Clip {
    if (clip.review !== 'waiting' || (clip.decidedAt ?? 0) > Date.now()) return clip;
    const fault = faults.strike('turn down', clip.fileName);
    if (fault) {
      const declined = {
        reason: fault.reason ?? 'A product is listed that is not seen in the clip',
        remedy: fault.remedy ?? 'Show and name every product, or list fewer',
      };
      return clips.put({ ...clip, review: 'declined', declined });
    }
    return clips.put({ ...clip, review: 'approved', shownAt: Date.now() + SHOWN_HOURS * hour });
  }
  function isShown(clip: Clip): boolean {
    return clip.review === 'approved' && (clip.shownAt ?? 0) <= Date.now();
  }
  const shown = (before: Clip) => {
    const clip = reviewed(before);
    const { id, title, text, products, review, declined, stage, progress, failure, thumbnail, file, size } = clip;
    return {
      ok: true,
      clip: {
        id,
        title,
        text,
        products,
        stage,
        progress,
        failure,
        size,
        digest: file?.sha256,
        picture: thumbnail?.sha256,
        review,
        declined,
        hoursLeft: hoursLeft(clip),
        listing: `${address}/clip/${id}`,
        visible: isShown(clip),
      },
    };
  };
  const hoursLeft = ({ review, decidedAt = 0, shownAt = 0 }: Clip) => {
    const until = review === 'waiting' ? decidedAt : review === 'approved' ? shownAt : 0;
    return Math.max(0, Math.ceil((until - Date.now()) / hour));
  };

  server.get('/shop-api/seller', async (request) => {
    const { id, name } = site.personOf(request);
    const grant = site.grantOf(request);
    const stalls = channels.filter((channel) => grant.channelIds.includes(channel.id));
    return {
      ok: true,
      seller: { id, name, may: grant.scope },
      stalls: stalls.map((stall) => ({ id: stall.id, sign: stall.name, front: `${address}/stall/${stall.id}` })),
    };
  });

  server.post<{ Params: { id: string } }>('/shop-api/stalls/:id/clips', async (request, reply) => {
    const stall = site.channelFor(request, request.params.id);
    const { ref, file, bytes } = await valid(newClipShape.validate(request.body));
    const made = clips.find((clip) => clip.channelId === stall.id && clip.key === ref);
    if (made) return reply.send(shown(made));
    const clip = clips.put({
      id: newVideoId(),
      channelId: stall.id,
      key: ref,
      fileName: file,
      size: bytes,
      title: '',
      text: '',
      products: [],
      review: 'none',
      stage: 'receiving',
      progress: 0,
      createdAt: new Date().toISOString(),
    });
    return reply.status(201).send(shown(clip));
  });

  server.get('/shop-api/clips/:id', async (request) => shown(site.videoFor(request)));

  // RFC 7578: the file in one part of a form. What breaks off leaves nothing behind, and starts from the beginning.
  server.post('/shop-api/clips/:id/file', async (request) => {
    const clip = site.videoFor(request);
    if (clip.stage !== 'receiving') return shown(clip);
    const part = await request.file();
    if (part?.fieldname !== 'clip')
      throw new Problem(400, 'File missing', 'The form needs a file “clip”', { field: 'clip' });
    const partial = `${processing.originalOf(clip.id)}.coming`;
    try {
      const line = faults.line(clip.fileName, () => request.raw.socket.destroy());
      await pipeline(part.file, line, createWriteStream(partial));
      const { size } = await stat(partial);
      if (part.file.truncated || size !== clip.size) {
        throw new Problem(422, 'Size differs', `${size} bytes came; ${clip.size} were announced`, { field: 'clip' });
      }
      await rename(partial, processing.originalOf(clip.id));
    } finally {
      await rm(partial, { force: true });
    }
    processing.landed(clip.id);
    return shown(clips.get(clip.id) ?? clip);
  });

  server.patch('/shop-api/clips/:id', async (request) => {
    const clip = site.videoFor(request);
    const change = await valid(listingShape.validate(request.body, { stripUnknown: false }));
    checkProducts(change.products);
    const set = Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined));
    return shown(handIn(clips.change(clip.id, set)));
  });

  server.put('/shop-api/clips/:id/picture', async (request) => {
    return shown(await site.keepThumbnail(site.videoFor(request), request, checkPicture));
  });

  server.delete('/shop-api/clips/:id/picture', async (request) => {
    return shown(await site.leaveThumbnail(site.videoFor(request)));
  });

  server.delete('/shop-api/clips/:id', async (request, reply) => {
    const clip = site.videoFor(request);
    clips.delete(clip.id);
    await processing.forget(clip.id);
    return reply.status(204).send();
  });

  site.showPages({
    watch(clip, stall) {
      const products = clip.products.map((number) => CATALOGUE[number.replace(/[\s-]/g, '')] ?? number);
      return clipPage(clip, stall, products);
    },
    channelPath: '/stall',
    channel: (name, shown) => stallPage(name, shown.map(reviewed)),
    isListed: (clip) => isShown(reviewed(clip)),
  });

  return site.listen();
}
