import { array, boolean, type InferType, number, object, string } from 'yup';
import { toDecimal } from '@/core/time';
import { authorisationFor } from '../authorisation';
import { type Session, type SiteAdapter, SiteError } from '../contract';
import { type ApiRequest, askSite, type Explain } from '../json-api';
import { ownAddress } from '../own-address';
import { evenIfGone, stageShape, stateOfStage } from '../stages';
import { carryByRange } from './carry-by-range';
import { pipwireProfile } from './profile';

const postShape = object({
  post: object({
    id: string().required(),
    words: string().defined(),
    moment: number().nullable().defined(),
    out: boolean().required(),
    stage: stageShape(),
    progress: number().required(),
    trouble: string().nullable(),
    sum: string().nullable(),
    have: number().required(),
    at: string().required(),
    clip: string().required(),
  }).required(),
});

type Post = InferType<typeof postShape>['post'];

const meShape = object({
  me: object({ id: string().required(), name: string().required(), may: string().defined() }).required(),
  wires: array(object({ id: string().required(), handle: string().required(), at: string().required() })).required(),
});

/** What Pipwire's own errors say. */
export const pipwireExplains: Explain = (body) => (body as { why?: string } | undefined)?.why;

/** Speaks to Pipwire: JSON over HTTP, bytes by ranges. @param address the site's own, without a slash at the end */
export function pipwire(address: string): SiteAdapter {
  const api = `${address}/1`;
  const ask = (session: Session, path: string, request?: ApiRequest) =>
    askSite(session, `${api}${path}`, request, pipwireExplains);
  const postAt = (id: string, rest = '') => `/posts/${encodeURIComponent(id)}${rest}`;
  const postOf = async (session: Session, id: string): Promise<Post> => {
    return (await postShape.validate(await ask(session, postAt(id)))).post;
  };
  const me = async (session: Session) => meShape.validate(await ask(session, '/me'));

  return {
    profile: pipwireProfile,
    authorisation: authorisationFor(address, pipwireProfile.scopes),

    async account(session) {
      const { id, name, may } = (await me(session)).me;
      return { siteAccountId: id, name, scope: may };
    },

    async channels(session) {
      const { wires } = await me(session);
      return wires.map(({ id, handle, at }) => ({ siteChannelId: id, name: handle, address: at, mayEarn: false }));
    },

    async begin(session, siteChannelId, key, { fileName, size }) {
      const json = { ref: key, clip: { name: fileName, bytes: size } };
      const made = await ask(session, `/wires/${encodeURIComponent(siteChannelId)}/posts`, { method: 'POST', json });
      const { post } = await postShape.validate(made);
      return { siteVideoId: post.id, link: post.at, carry: { clip: post.clip } };
    },

    async carry(session, begun, file, onProgress, signal) {
      const confirmed = async () => (await postOf(session, begun.siteVideoId)).have;
      const clip = ownAddress(address, begun.carry.clip ?? '');
      return carryByRange(session, clip, file, confirmed, onProgress, signal, pipwireExplains);
    },

    gives: [
      {
        // A post has its words and its moment together, so that what is not given is said as it is there.
        parts: ['text', 'moment'],
        async give(session, siteVideoId, { text, moment }) {
          const there = await postOf(session, siteVideoId);
          const at = moment === undefined ? there.moment : moment === '' ? null : Number(toDecimal(moment, 3));
          const json = { words: text ?? there.words, ...(at === null ? {} : { moment: at }) };
          await ask(session, postAt(siteVideoId, '/words'), { method: 'PUT', json });
        },
      },
    ],

    async look(session, siteVideoId) {
      const post = await postOf(session, siteVideoId);
      const privacy = post.out ? 'everyone' : 'private';
      return {
        status: {
          state: stateOfStage({ ...post, reason: post.trouble }, 'Pipwire', 'the clip is being prepared'),
          checks: { verdict: 'passed' },
          privacy,
        },
        shown: { text: post.words, privacy, file: post.sum ?? undefined },
      };
    },

    async showTo(session, siteVideoId, privacy) {
      if (privacy === 'link' || privacy === 'password') {
        throw new SiteError('refused', 'Pipwire has no posts by link or password only');
      }
      await ask(session, postAt(siteVideoId, '/out'), { method: privacy === 'everyone' ? 'POST' : 'DELETE' });
    },

    async remove(session, siteVideoId) {
      await evenIfGone(ask(session, postAt(siteVideoId), { method: 'DELETE' }));
    },
  };
}
