import { randomBytes } from 'node:crypto';
import path from 'node:path';
import type { FastifyRequest } from 'fastify';
import { array, object, string } from 'yup';
import type { Hosted } from './hosted';
import { Records } from './records';
import { newVideoId, type Site, valid } from './site';

/** A group of videos, whatever the site calls it. */
export interface Group {
  id: string;
  channelId: string;
  key: string;
  title: string;
  videoIds: string[];
}

const newGroupShape = object({ title: string().trim().min(1).max(100).required() }).noUnknown();
const idsShape = object({ ids: array(string().required()).required() }).noUnknown();

/** The groups of a stand-in. */
export interface GroupShelf {
  /** The groups that a video is in, in the order in which they were made. */
  of(videoId: string): { id: string; title: string }[];
  forget(videoId: string): void;
}

/**
 * Lets groups be listed and made at a channel, and a video be put in them.
 * @param at where they stand: at a channel, and at a video
 */
export function registerGroups<T extends Hosted>(
  site: Site<T>,
  folder: string,
  at: { channel: string; video: string; name: string },
  answer: (group: { id: string; title: string; videos: number }) => object,
): GroupShelf {
  const { server } = site;
  const groups = new Records<Group>(path.join(folder, at.name));
  const shown = ({ id, title, videoIds }: Group) => answer({ id, title, videos: videoIds.length });
  const channelOf = (request: FastifyRequest) => site.channelFor(request, (request.params as { id: string }).id);

  server.get(`${at.channel}/:id/${at.name}`, async (request) => {
    const channel = channelOf(request);
    return groups
      .all()
      .filter((group) => group.channelId === channel.id)
      .map(shown);
  });
  server.post(`${at.channel}/:id/${at.name}`, async (request, reply) => {
    const channel = channelOf(request);
    const { title } = await valid(newGroupShape.validate(request.body));
    const key = String(request.headers['idempotency-key'] ?? randomBytes(8).toString('hex'));
    const made = groups.find((group) => group.channelId === channel.id && group.key === key);
    const group = made ?? groups.put({ id: newVideoId(), channelId: channel.id, key, title, videoIds: [] });
    return reply.status(made ? 200 : 201).send(shown(group));
  });
  server.put(`${at.video}/:id/${at.name}`, async (request, reply) => {
    const video = site.videoFor(request);
    const { ids } = await valid(idsShape.validate(request.body));
    for (const group of groups.all().filter((each) => each.channelId === video.channelId)) {
      const [wanted, isIn] = [ids.includes(group.id), group.videoIds.includes(video.id)];
      if (wanted && !isIn) groups.put({ ...group, videoIds: [...group.videoIds, video.id] });
      if (!wanted && isIn) groups.put({ ...group, videoIds: group.videoIds.filter((id) => id !== video.id) });
    }
    return reply.status(204).send();
  });
  return {
    of: (videoId) =>
      groups
        .all()
        .filter((group) => group.videoIds.includes(videoId))
        .map(({ id, title }) => ({ id, title })),
    forget(videoId) {
      for (const group of groups.all()) {
        if (!group.videoIds.includes(videoId)) continue;
        groups.put({ ...group, videoIds: group.videoIds.filter((id) => id !== videoId) });
      }
    },
  };
}
