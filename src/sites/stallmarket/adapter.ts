import { array, boolean, type InferType, number, object, string } from 'yup';
import { authorisationFor } from '../authorisation';
import { type Session, type SiteAdapter, type SiteChecks, SiteError } from '../contract';
import { type ApiRequest, askSite, type Explain } from '../json-api';
import { ownAddress } from '../own-address';
import { evenIfGone, stageShape, stateOfStage } from '../stages';
import { carryAsForm } from './carry-as-form';
import { stallmarketProfile } from './profile';

const clipShape = object({
  clip: object({
    id: string().required(),
    title: string().defined(),
    text: string().defined(),
    products: array(string().required()).required(),
    stage: stageShape(),
    progress: number().required(),
    failure: string(),
    digest: string(),
    picture: string(),
    review: string()
      .oneOf(['none', 'waiting', 'approved', 'declined'] as const)
      .required(),
    declined: object({ reason: string().required(), remedy: string().required() }).default(undefined),
    hoursLeft: number().required(),
    listing: string().required(),
    visible: boolean().required(),
  }).required(),
});

type Clip = InferType<typeof clipShape>['clip'];

const sellerShape = object({
  seller: object({ id: string().required(), name: string().required(), may: string().defined() }).required(),
  stalls: array(object({ id: string().required(), sign: string().required(), front: string().required() })).required(),
});

/** What Stallmarket's own errors say. */
export const stallmarketExplains: Explain = (body) => {
  const { errors } = (body ?? {}) as { errors?: { message?: string }[] };
  const says = errors?.map(({ message }) => message).filter(Boolean);
  return says && says.length > 0 ? says.join('; ') : undefined;
};

/** Speaks to Stallmarket: JSON over HTTP, the file as one form. @param address the site's own, without a slash at the end */
export function stallmarket(address: string): SiteAdapter {
  const api = `${address}/shop-api`;
  const clipAt = (id: string, rest = '') => `/clips/${encodeURIComponent(id)}${rest}`;
  const ask = (session: Session, path: string, request?: ApiRequest) =>
    askSite(session, `${api}${path}`, request, stallmarketExplains);
  const clipOf = async (session: Session, id: string): Promise<Clip> => {
    return (await clipShape.validate(await ask(session, clipAt(id)))).clip;
  };
  const seller = async (session: Session) => sellerShape.validate(await ask(session, '/seller'));

  return {
    profile: stallmarketProfile,
    authorisation: authorisationFor(address, stallmarketProfile.scopes),

    async account(session) {
      const { id, name, may } = (await seller(session)).seller;
      return { siteAccountId: id, name, scope: may };
    },

    async channels(session) {
      const { stalls } = await seller(session);
      return stalls.map(({ id, sign, front }) => ({ siteChannelId: id, name: sign, address: front, mayEarn: false }));
    },

    async begin(session, siteChannelId, key, { fileName, size }) {
      const json = { ref: key, file: fileName, bytes: size };
      const made = await ask(session, `/stalls/${encodeURIComponent(siteChannelId)}/clips`, { method: 'POST', json });
      const { clip } = await clipShape.validate(made);
      return { siteVideoId: clip.id, link: clip.listing, carry: { file: `${api}${clipAt(clip.id, '/file')}` } };
    },

    async carry(session, begun, file, onProgress, signal) {
      const { stage } = await clipOf(session, begun.siteVideoId);
      if (stage !== 'receiving') return onProgress(file.size);
      const to = ownAddress(address, begun.carry.file ?? '');
      await carryAsForm(session, to, 'clip', file, onProgress, signal, stallmarketExplains);
    },

    gives: [
      {
        parts: ['title', 'text', 'products'],
        whole: true,
        async give(session, siteVideoId, { title, text, products }) {
          // By this the clip is handed in for review.
          const json = { title, text, products: products && (products.products ?? []) };
          await ask(session, clipAt(siteVideoId), { method: 'PATCH', json });
        },
      },
      {
        parts: ['picture'],
        async give(session, siteVideoId, { picture }) {
          const request = picture ? { method: 'PUT' as const, ...picture } : { method: 'DELETE' as const };
          await ask(session, clipAt(siteVideoId, '/picture'), request);
        },
      },
    ],

    async look(session, siteVideoId) {
      const clip = await clipOf(session, siteVideoId);
      const privacy = clip.visible ? 'everyone' : 'private';
      return {
        status: {
          state: stateOfStage({ ...clip, reason: clip.failure }, 'Stallmarket', 'the clip is being prepared'),
          checks: checksOf(clip),
          privacy,
        },
        shown: {
          title: clip.title,
          text: clip.text,
          privacy,
          picture: clip.picture,
          file: clip.digest,
          products: { products: clip.products },
        },
      };
    },

    async showTo(_session, _siteVideoId, privacy) {
      // An approved clip is shown by the site itself, and there is no way to close it again.
      if (privacy !== 'everyone') throw new SiteError('refused', 'Stallmarket cannot close a clip; remove it there');
    },

    async remove(session, siteVideoId) {
      await evenIfGone(ask(session, clipAt(siteVideoId), { method: 'DELETE' }));
    },
  };
}

function checksOf(clip: Clip): SiteChecks {
  if (clip.review === 'approved') return { verdict: 'passed' };
  if (clip.review === 'declined') {
    const { reason = 'no reason is given', remedy = 'Change it' } = clip.declined ?? {};
    return { verdict: 'found', of: 'review', what: `Turned down in review: ${reason}`, remedy };
  }
  const left = clip.hoursLeft > 0 ? `, up to ${clip.hoursLeft} h more` : '';
  return { verdict: 'waiting', says: `in review${left}` };
}
