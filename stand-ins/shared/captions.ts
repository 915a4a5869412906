import { createHash } from 'node:crypto';
import path from 'node:path';
import type { Hosted } from './hosted';
import { Problem } from './problem';
import { Records } from './records';
import type { Site } from './site';

/** Captions of one video in one language. */
interface Track {
  id: string;
  videoId: string;
  language: string;
  sha256: string;
  text: string;
}

/** Caption files of a stand-in: WebVTT, one a language. */
export interface CaptionShelf {
  /** Languages with the digest of each file, in alphabetical order. */
  of(videoId: string): { language: string; sha256: string }[];
  forget(videoId: string): void;
}

const MOST_BYTES = 2_000_000;

/**
 * Lets captions be put, taken away and shown. @param api where a video stands in the interface, such as `/api/videos`
 */
export function registerCaptions<T extends Hosted>(
  site: Site<T>,
  folder: string,
  api: string,
  pages: string,
): CaptionShelf {
  const { server } = site;
  const tracks = new Records<Track>(path.join(folder, 'captions'));
  const idOf = (videoId: string, language: string) => `${videoId}-${language.toLowerCase()}`;
  const of = (videoId: string) =>
    tracks
      .all()
      .filter((track) => track.videoId === videoId)
      .sort((a, b) => a.language.localeCompare(b.language));

  server.addContentTypeParser('text/vtt', { parseAs: 'string' }, (_request, body, done) => done(null, body));
  server.put<{ Params: { id: string; language: string } }>(`${api}/:id/captions/:language`, async (request, reply) => {
    const video = site.videoFor(request);
    const { language } = request.params;
    if (!/^[A-Za-z]{2,3}(-[A-Za-z0-9]{2,8})*$/.test(language)) {
      throw new Problem(422, 'Not taken', `“${language}” is no language`, { field: 'language' });
    }
    const text = typeof request.body === 'string' ? request.body : '';
    if (!/^\ufeff?WEBVTT/.test(text))
      throw new Problem(422, 'Not taken', 'Captions have to be WebVTT', { field: 'captions' });
    if (text.length > MOST_BYTES) throw new Problem(413, 'Not taken', `Captions have at most ${MOST_BYTES} characters`);
    const sha256 = createHash('sha256').update(text).digest('hex');
    tracks.put({ id: idOf(video.id, language), videoId: video.id, language, sha256, text });
    return reply.status(204).send();
  });
  server.delete<{ Params: { id: string; language: string } }>(
    `${api}/:id/captions/:language`,
    async (request, reply) => {
      tracks.delete(idOf(site.videoFor(request).id, request.params.language));
      return reply.status(204).send();
    },
  );
  server.get<{ Params: { id: string; language: string } }>(
    `${pages}/:id/captions/:language`,
    async (request, reply) => {
      const video = site.watched(request);
      const track = video && tracks.get(idOf(video.id, request.params.language));
      if (!track) return reply.status(404).send();
      return reply.type('text/vtt; charset=utf-8').send(track.text);
    },
  );
  return {
    of: (videoId) => of(videoId).map(({ language, sha256 }) => ({ language, sha256 })),
    forget: (videoId) => {
      for (const { id } of of(videoId)) tracks.delete(id);
    },
  };
}
