import { array, boolean, type InferType, number, object, string } from 'yup';
import type { Privacy } from '@/core/delivery';
import { byGroup } from '@/core/parts';
import { askWords, mayAgree, needsPerson, type RightsMatch } from '@/core/rights';
import { type Fraction, floor, fraction, toNumber, viewerTime } from '@/core/time';
import { authorisationFor } from '../authorisation';
import { type SiteAdapter, type SiteChecks, SiteError, type SiteLook } from '../contract';
import { askSite } from '../json-api';
import { ownAddress } from '../own-address';
import { putCaptions } from '../put-captions';
import { evenIfGone, shownChapter, stageShape, stateOfStage, versionShape } from '../stages';
import { carryByTus } from '../tus-carry';
import { declaredShape, fromLanternfold, toLanternfold } from './declared';
import { matchShape, toMatch } from './matches';
import { lanternfoldProfile } from './profile';

const text = () => string().defined();

const videoShape = object({
  id: string().required(),
  title: text(),
  description: text(),
  tags: array(text()).required(),
  visibility: string()
    .oneOf(['open', 'by-link', 'closed'] as const)
    .required(),
  opensAt: string().datetime(),
  firstShowing: boolean(),
  thumbnail: object({ sha256: string().required() }).default(undefined),
  file: object({ sha256: string().required() }).default(undefined),
  seconds: number(),
  stage: stageShape(),
  progress: number().required(),
  failure: string(),
  versions: array(versionShape).default([]),
  checks: string()
    .oneOf(['waiting', 'passed', 'matched'] as const)
    .required(),
  matches: array(matchShape).default([]),
  chapters: array(object({ seconds: number().required(), title: text() })).required(),
  playlists: array(object({ id: string().required() })).required(),
  captions: array(object({ language: string().required() })).default([]),
  watchUrl: string().required(),
  uploadUrl: string().required(),
  ...declaredShape,
});

const playlistShape = object({ id: string().required(), title: text(), videos: number().required() });
const meShape = object({ id: string().required(), name: string().required(), scope: text() });
const channelShape = object({
  id: string().required(),
  name: string().required(),
  url: string().required(),
  mayEarn: boolean().default(false),
});

type SiteVideo = InferType<typeof videoShape>;

const VISIBILITY: Record<Exclude<Privacy, 'password'>, SiteVideo['visibility']> = {
  everyone: 'open',
  link: 'by-link',
  private: 'closed',
};

/** @throws SiteError where Lanternfold has no such privacy */
function visibilityFor(privacy: Privacy): SiteVideo['visibility'] {
  if (privacy === 'password') throw new SiteError('refused', 'Lanternfold has no passwords');
  return VISIBILITY[privacy];
}

const PRIVACY: Record<SiteVideo['visibility'], Privacy> = { open: 'everyone', 'by-link': 'link', closed: 'private' };

/** Speaks to Lanternfold: JSON over HTTP, bytes by tus 1.0. @param address the site's own, without a slash at the end */
export function lanternfold(address: string): SiteAdapter {
  const api = `${address}/api`;
  const at = (id: string, rest = '') => `${api}/videos/${encodeURIComponent(id)}${rest}`;
  const channelAt = (id: string, rest: string) => `${api}/channels/${encodeURIComponent(id)}${rest}`;
  const toGroup = ({ id, title, videos }: InferType<typeof playlistShape>) => ({ sitePlaylistId: id, title, videos });

  return {
    profile: lanternfoldProfile,
    authorisation: authorisationFor(address, lanternfoldProfile.scopes),

    async account(session) {
      const me = await meShape.validate(await askSite(session, `${api}/me`));
      return { siteAccountId: me.id, name: me.name, scope: me.scope };
    },

    async channels(session) {
      const found = await array(channelShape)
        .required()
        .validate(await askSite(session, `${api}/channels`));
      return found.map(({ id, name, url, mayEarn }) => ({ siteChannelId: id, name, address: url, mayEarn }));
    },

    async begin(session, siteChannelId, key, { fileName, size }) {
      const made = await askSite(session, channelAt(siteChannelId, '/videos'), {
        method: 'POST',
        key,
        json: { fileName, size },
      });
      const video = await videoShape.validate(made);
      return { siteVideoId: video.id, link: video.watchUrl, carry: { uploadUrl: video.uploadUrl } };
    },

    carry: async (session, begun, file, onProgress, signal) =>
      carryByTus(session, ownAddress(address, begun.carry.uploadUrl ?? ''), file, onProgress, signal),

    gives: [
      {
        parts: [
          ...(['privacy', 'title', 'text', 'chapters', 'tags'] as const),
          ...(['about', 'audience', 'permissions', 'money', 'telling'] as const),
        ],
        async give(session, siteVideoId, { title, text, tags, privacy, ...groups }) {
          const { about, audience, permissions, money, telling } = groups;
          const declared = { ...about, ...audience, ...permissions, ...money, ...telling };
          const visibility = privacy && visibilityFor(privacy.to);
          const json = { title, description: text, tags, visibility, ...toLanternfold(declared) };
          await askSite(session, at(siteVideoId), { method: 'PATCH', json });
        },
      },
      {
        parts: ['picture'],
        async give(session, siteVideoId, { picture }) {
          const request = picture ? { method: 'PUT' as const, ...picture } : { method: 'DELETE' as const };
          await askSite(session, at(siteVideoId, '/thumbnail'), request);
        },
      },
      {
        parts: ['captions'],
        give: (session, siteVideoId, { captions = [] }) =>
          putCaptions(session, at(siteVideoId), captions, async () => {
            const video = await videoShape.validate(await askSite(session, at(siteVideoId)));
            return video.captions.map(({ language }) => language);
          }),
      },
      {
        parts: ['playlists'],
        async give(session, siteVideoId, { playlists: ids }) {
          await askSite(session, at(siteVideoId, '/playlists'), { method: 'PUT', json: { ids } });
        },
      },
    ],

    look: async (session, siteVideoId) => lookOf(await videoShape.validate(await askSite(session, at(siteVideoId)))),

    lookAtMany: {
      atOnce: 50,
      async look(session, siteVideoIds) {
        const ids = new URLSearchParams({ ids: siteVideoIds.join(',') });
        const found = await array(videoShape)
          .required()
          .validate(await askSite(session, `${api}/videos?${ids}`));
        return new Map(found.map((video) => [video.id, lookOf(video)]));
      },
    },

    async showTo(session, siteVideoId, privacy) {
      await askSite(session, at(siteVideoId), { method: 'PATCH', json: { visibility: visibilityFor(privacy) } });
    },

    async openAt(session, siteVideoId, moment, privacy, firstShowing = false) {
      const time = { opensAt: moment.toISOString(), opensTo: visibilityFor(privacy) };
      const json = { visibility: 'closed', ...time, ...(firstShowing && { firstShowing }) };
      await askSite(session, at(siteVideoId), { method: 'PATCH', json });
    },

    async remove(session, siteVideoId) {
      await evenIfGone(askSite(session, at(siteVideoId), { method: 'DELETE' }));
    },

    async acceptMatch(session, siteVideoId, matchId) {
      await askSite(session, at(siteVideoId, `/matches/${encodeURIComponent(matchId)}/accept`), { method: 'POST' });
    },

    async disputeMatch(session, siteVideoId, matchId, text) {
      const json = { text };
      await askSite(session, at(siteVideoId, `/matches/${encodeURIComponent(matchId)}/dispute`), {
        method: 'POST',
        json,
      });
    },

    groups: {
      async list(session, siteChannelId) {
        const found = await askSite(session, channelAt(siteChannelId, '/playlists'));
        return (await array(playlistShape).required().validate(found)).map(toGroup);
      },
      async make(session, siteChannelId, key, title) {
        const request = { method: 'POST' as const, key, json: { title } };
        return toGroup(
          await playlistShape.validate(await askSite(session, channelAt(siteChannelId, '/playlists'), request)),
        );
      },
    },
  };
}

const STAGE_WORDS = {
  queued: 'in the queue',
  first: 'first version',
  full: 'first version plays, full one follows',
};

function lookOf(video: SiteVideo): SiteLook {
  const privacy = PRIVACY[video.visibility];
  return {
    status: {
      state: stateOfStage({ ...video, reason: video.failure }, 'Lanternfold', STAGE_WORDS, ['full']),
      checks: checksOf(video),
      privacy,
      opensAt: video.opensAt ? new Date(video.opensAt) : undefined,
      firstShowing: video.opensAt !== undefined && video.firstShowing === true,
      matches: video.matches.map(toMatch),
      versions: video.versions,
    },
    shown: {
      title: video.title,
      text: video.description,
      tags: video.tags,
      chapters: video.chapters.map(({ seconds, title }) => shownChapter(seconds, title, video.seconds)),
      privacy,
      playlists: video.playlists.map((playlist) => playlist.id),
      picture: video.thumbnail?.sha256,
      file: video.file?.sha256,
      captions: video.captions.map(({ language }) => language),
      ...byGroup(fromLanternfold(video)),
    },
  };
}

/** What the site's checks have found, by the first match that a person has to see to. */
function checksOf(video: SiteVideo): SiteChecks {
  if (video.checks === 'waiting') return { verdict: 'waiting', says: 'looking for matches' };
  const matches = video.matches.map(toMatch);
  const open = matches.filter(needsPerson);
  const [first] = open;
  if (!first) {
    const asked = matches.find(({ state }) => state === 'disputed');
    return asked ? { verdict: 'waiting', says: `waiting for an answer from ${asked.owner}` } : { verdict: 'passed' };
  }
  return {
    verdict: 'found',
    of: 'rights',
    what: open.map((match) => matchWords(match, video.seconds)).join('. '),
    remedy: open.every(mayAgree)
      ? 'Agree to it, dispute it, or take it out of the video'
      : 'Take it out of the video, or dispute it',
    asks: first.asks,
    owner: first.owner,
  };
}

function matchWords(match: RightsMatch, length: number | undefined): string {
  const stamp = (time: Fraction) => viewerTime(fraction(floor(time)), length ?? toNumber(time));
  const stays = match.state === 'upheld' ? ` It was disputed; they answered: ${match.dispute?.answer ?? 'no'}` : '';
  return `Rights match ${stamp(match.from)}–${stamp(match.to)}: ${match.owner} ${askWords(match)}${stays}`;
}
