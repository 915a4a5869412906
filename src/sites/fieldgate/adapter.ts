import { array, type InferType, number, object, string } from 'yup';
import type { Privacy } from '@/core/delivery';
import { writeWebvtt } from '@/core/markers';
import { ZERO } from '@/core/time';
import { authorisationFor } from '../authorisation';
import type { Session, SiteAdapter, SiteLook } from '../contract';
import { askSite } from '../json-api';
import { ownAddress } from '../own-address';
import { putCaptions } from '../put-captions';
import { evenIfGone, shownChapter, stageShape, stateOfStage } from '../stages';
import { carryInParts } from './carry-in-parts';
import { fieldgateProfile } from './profile';

const text = () => string().defined();

const workShape = object({
  id: string().required(),
  headline: text(),
  about: text(),
  keywords: array(text()).required(),
  audience: string()
    .oneOf(['public', 'address', 'password', 'me'] as const)
    .required(),
  credits: array(object({ role: text(), name: text() })).required(),
  chapters: array(object({ seconds: number().required(), title: text() })).required(),
  collections: array(object({ id: string().required() })).required(),
  captions: array(object({ language: string().required() })).required(),
  thumbnail: object({ sha256: string().required() }).default(undefined),
  file: object({ sha256: string().required() }).default(undefined),
  seconds: number(),
  stage: stageShape(),
  progress: number().required(),
  failure: string(),
  page: string().required(),
});

type Work = InferType<typeof workShape>;

const worksShape = object({ works: array(workShape).required() });

const accountShape = object({ id: string().required(), name: string().required(), permitted: text() });
const portfolioShape = object({ id: string().required(), name: string().required(), page: string().required() });
const collectionShape = object({ id: string().required(), name: text(), works: number().required() });

const AUDIENCE: Record<Privacy, Work['audience']> = {
  everyone: 'public',
  link: 'address',
  password: 'password',
  private: 'me',
};
const PRIVACY: Record<Work['audience'], Privacy> = {
  public: 'everyone',
  address: 'link',
  password: 'password',
  me: 'private',
};

function lookOf(work: Work): SiteLook {
  const privacy = PRIVACY[work.audience];
  return {
    status: {
      state: stateOfStage({ ...work, reason: work.failure }, 'Fieldgate', 'being prepared'),
      checks: { verdict: 'passed' },
      privacy,
    },
    shown: {
      title: work.headline,
      text: work.about,
      tags: work.keywords,
      chapters: work.chapters.map(({ seconds, title }) => shownChapter(seconds, title, work.seconds)),
      privacy,
      playlists: work.collections.map(({ id }) => id),
      picture: work.thumbnail?.sha256,
      file: work.file?.sha256,
      captions: work.captions.map(({ language }) => language),
      credits: { credits: work.credits.map(({ role, name }) => ({ role, name })) },
    },
  };
}

/** Speaks to Fieldgate: JSON over HTTP, bytes in numbered parts. @param address the site's own, without a slash at the end */
export function fieldgate(address: string): SiteAdapter {
  const api = `${address}/v2`;
  const at = (id: string, rest = '') => `${api}/works/${encodeURIComponent(id)}${rest}`;
  const portfolioAt = (id: string, rest: string) => `${api}/portfolios/${encodeURIComponent(id)}${rest}`;
  const workOf = async (session: Session, id: string) => workShape.validate(await askSite(session, at(id)));
  const toGroup = ({ id, name, works }: InferType<typeof collectionShape>) => {
    return { sitePlaylistId: id, title: name, videos: works };
  };
  const change = (session: Session, id: string, json: object) => askSite(session, at(id), { method: 'PATCH', json });

  return {
    profile: fieldgateProfile,
    authorisation: authorisationFor(address, fieldgateProfile.scopes),

    async account(session) {
      const { id, name, permitted } = await accountShape.validate(await askSite(session, `${api}/account`));
      return { siteAccountId: id, name, scope: permitted };
    },

    async channels(session) {
      const found = await array(portfolioShape)
        .required()
        .validate(await askSite(session, `${api}/portfolios`));
      return found.map(({ id, name, page }) => ({ siteChannelId: id, name, address: page, mayEarn: false }));
    },

    async begin(session, siteChannelId, key, { fileName, size }) {
      const json = { fileName, bytes: size };
      const made = await askSite(session, portfolioAt(siteChannelId, '/works'), { method: 'POST', key, json });
      const work = await workShape.validate(made);
      return { siteVideoId: work.id, link: work.page, carry: { work: at(work.id) } };
    },

    carry: async (session, begun, file, onProgress, signal) =>
      carryInParts(session, ownAddress(address, begun.carry.work ?? ''), file, onProgress, signal),

    gives: [
      {
        parts: ['privacy', 'title', 'text', 'tags', 'credits'],
        async give(session, siteVideoId, { title, text, tags, privacy, credits }) {
          await change(session, siteVideoId, {
            headline: title,
            about: text,
            keywords: tags,
            audience: privacy && AUDIENCE[privacy.to],
            ...(privacy?.to === 'password' && { password: privacy.password }),
            credits: credits && (credits.credits ?? []),
          });
        },
      },
      {
        parts: ['chapters'],
        async give(session, siteVideoId, { chapters }) {
          const markers = (chapters?.lines ?? []).map(({ title }, index) => ({
            name: title,
            note: '',
            colour: '',
            on: 'timeline' as const,
            hidden: false,
            time: chapters?.times[index] ?? ZERO,
            length: ZERO,
          }));
          const bytes = writeWebvtt({ markers, end: chapters?.duration });
          await askSite(session, at(siteVideoId, '/chapters'), { method: 'PUT', bytes, type: 'text/vtt' });
        },
      },
      {
        parts: ['picture'],
        async give(session, siteVideoId, { picture }) {
          const request = picture ? { method: 'PUT' as const, ...picture } : { method: 'DELETE' as const };
          await askSite(session, at(siteVideoId, '/cover'), request);
        },
      },
      {
        parts: ['captions'],
        give: (session, siteVideoId, { captions = [] }) =>
          putCaptions(session, at(siteVideoId), captions, async () => {
            return (await workOf(session, siteVideoId)).captions.map(({ language }) => language);
          }),
      },
      {
        parts: ['playlists'],
        async give(session, siteVideoId, { playlists: ids }) {
          await askSite(session, at(siteVideoId, '/collections'), { method: 'PUT', json: { ids } });
        },
      },
    ],

    look: async (session, siteVideoId) => lookOf(await workOf(session, siteVideoId)),

    lookAtMany: {
      atOnce: 20,
      async look(session, siteVideoIds) {
        const named = new URLSearchParams(siteVideoIds.map((id) => ['id', id]));
        const { works } = await worksShape.validate(await askSite(session, `${api}/works?${named}`));
        return new Map(works.map((work) => [work.id, lookOf(work)]));
      },
    },

    async showTo(session, siteVideoId, privacy, password) {
      await change(session, siteVideoId, { audience: AUDIENCE[privacy], ...(privacy === 'password' && { password }) });
    },

    async takePlace(session, siteVideoId, from) {
      await askSite(session, at(siteVideoId, '/file'), { method: 'PUT', json: { from } });
    },

    async remove(session, siteVideoId) {
      await evenIfGone(askSite(session, at(siteVideoId), { method: 'DELETE' }));
    },

    groups: {
      async list(session, siteChannelId) {
        const found = await askSite(session, portfolioAt(siteChannelId, '/collections'));
        return (await array(collectionShape).required().validate(found)).map(toGroup);
      },
      async make(session, siteChannelId, key, title) {
        const request = { method: 'POST' as const, key, json: { title } };
        const made = await askSite(session, portfolioAt(siteChannelId, '/collections'), request);
        return toGroup(await collectionShape.validate(made));
      },
    },
  };
}
