import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { FastifyInstance } from 'fastify';
import { object, string } from 'yup';
import type { Fault } from '../shared/faults';
import { loudnessOver, soundsAlike } from '../shared/heard';
import { Problem } from '../shared/problem';
import { type Site, valid } from '../shared/site';
import { silencedOver } from '../shared/transcode';
import type { Match, Video } from './video';

/** How long the owner of a match has to answer a dispute, in hours of the site. */
const ANSWERS_WITHIN_HOURS = 30;

const disputeShape = object({ text: string().trim().min(20).max(2000).required() }).noUnknown();

/** A match that keeps a video from being opened: its owner lets it be shown nowhere, and has not let it go. */
const closesIt = ({ wants, countries, state }: Match) =>
  wants === 'close' && !countries?.length && state !== 'withdrawn';
export const closedByMatch = (video: Video): Match | undefined => video.matches?.find(closesIt);

const nameOf = (fileName: string) => fileName.replace(/\.\w+$/, '');

/**
 * What owners of music and pictures have found in videos, and what became of it.
 * @param folder where what was heard before is kept @param hour real milliseconds of an hour there
 */
export class Matches {
  private readonly file: string;
  private readonly heard: Record<string, number[]>;

  constructor(
    folder: string,
    private readonly hour: number,
  ) {
    this.file = path.join(folder, 'heard.json');
    this.heard = existsSync(this.file) ? (JSON.parse(readFileSync(this.file, 'utf8')) as Record<string, number[]>) : {};
  }

  /** The matches in a video that has come in. What was found in a file before is found again only while it still sounds so. */
  async lookFor(video: Video, faults: Fault[], original: string): Promise<Pick<Video, 'checks' | 'matches'>> {
    const matches: Match[] = [];
    for (const fault of faults) {
      const { reason: owner = 'Harbour Lane Music', from = 10, to = 25, wants = 'share', countries } = fault;
      const key = [video.channelId, nameOf(video.fileName), owner, from, to].join(' ');
      const now = await loudnessOver(original, from, to);
      const before = this.heard[key];
      if (before && !soundsAlike(before, now)) continue;
      this.heard[key] = now;
      writeFileSync(`${this.file}.part`, JSON.stringify(this.heard));
      renameSync(`${this.file}.part`, this.file);
      const work = fault.value ?? 'Slow Tide';
      matches.push({ id: randomBytes(6).toString('hex'), owner, work, from, to, wants, countries, state: 'open' });
    }
    return matches.length > 0 ? { checks: 'matched', matches } : { checks: 'passed' };
  }

  /** The ways on from a match. */
  register(server: FastifyInstance, site: Site<Video>, shown: (video: Video) => unknown): void {
    const at = '/api/videos/:id/matches/:match';
    const change = (video: Video, id: string, fields: Partial<Match>) =>
      site.videos.change(video.id, {
        matches: (site.videos.get(video.id)?.matches ?? []).map((match) =>
          match.id === id ? { ...match, ...fields } : match,
        ),
      });
    const matchOf = (video: Video, id: string): Match => {
      const match = video.matches?.find((each) => each.id === id);
      if (!match) throw new Problem(404, 'Not found', 'There is no such match');
      return match;
    };
    server.post<{ Params: { id: string; match: string } }>(`${at}/accept`, async (request) => {
      const video = site.videoFor(request);
      const match = matchOf(video, request.params.match);
      if (match.state === 'withdrawn' || match.state === 'agreed') return shown(video);
      if (closesIt(match)) throw new Problem(409, 'Blocked', `${match.owner} does not permit it`);
      const next = change(video, match.id, { state: 'agreed' });
      const full = site.processing.fileOf(video.id, 'full.mp4');
      if (match.wants === 'silence') site.processing.versionChanged(full);
      if (match.wants === 'silence') await silencedOver(full, match.from, match.to);
      return shown(next);
    });
    server.post<{ Params: { id: string; match: string } }>(`${at}/dispute`, async (request) => {
      const video = site.videoFor(request);
      const match = matchOf(video, request.params.match);
      const { text } = await valid(disputeShape.validate(request.body, { stripUnknown: false }));
      if (match.state === 'disputed' && match.dispute?.text === text) return shown(video);
      if (match.state !== 'open') throw new Problem(409, 'Not now', 'A match is disputed once, before it is agreed to');
      const answerBy = new Date(Date.now() + ANSWERS_WITHIN_HOURS * this.hour).toISOString();
      return shown(change(video, match.id, { state: 'disputed', dispute: { text, answerBy } }));
    });
    server.get<{ Params: { id: string } }>('/api/videos/:id/matches', async (request) => {
      return site.videoFor(request).matches ?? [];
    });
  }

  /** Answers the disputes whose time has come: the owner lets it go, or a fault says why not. */
  answerDue(site: Site<Video>): void {
    for (const video of site.videos.all()) {
      const due = video.matches?.find(
        ({ state, dispute }) => state === 'disputed' && dispute && Date.parse(dispute.answerBy) <= Date.now(),
      );
      if (!due?.dispute) continue;
      const refused = site.faults.strike('dispute refused', video.fileName);
      const answer = refused?.reason ?? `${due.owner} has let it go`;
      const state = refused ? 'upheld' : 'withdrawn';
      const dispute = { ...due.dispute, answer };
      const matches = video.matches?.map((match) => (match.id === due.id ? { ...match, state, dispute } : match));
      site.videos.change(video.id, { matches } as Partial<Video>);
    }
  }
}
