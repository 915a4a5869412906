import { countryName } from '../declarations';
import type { CutSpan } from '../delivery';
import type { RightsAsk } from '../drop';

/**
 * How a match stands: nobody has said anything; agreed to; disputed, and the owner is to answer; let go by the owner; or
 * the owner stays with it.
 */
export const MATCH_STATES = ['open', 'agreed', 'disputed', 'withdrawn', 'upheld'] as const;
export type MatchState = (typeof MATCH_STATES)[number];

/** Something in a video that somebody else has rights in, as the site has found it. */
export interface RightsMatch extends CutSpan {
  /** The site's own id of it. */
  id: string;
  owner: string;
  /** What was found: a piece of music, a film. */
  work: string;
  /** Undefined where the site says what we do not know. */
  asks: RightsAsk | undefined;
  /** ISO 3166-1 alpha-2, of a match that closes the video in some countries. */
  countries: string[];
  state: MatchState;
  /** What was written against it, and what came of it. */
  dispute?: { text: string; answerBy: Date | undefined; answer: string | undefined };
}

/** States of a match about which a person has to do something before the video goes on. */
export const OPEN_STATES: readonly MatchState[] = ['open', 'upheld'];

/** Whether a person has to do something about it before the video goes on. */
export const needsPerson = ({ state }: Pick<RightsMatch, 'state'>): boolean => OPEN_STATES.includes(state);

/** Whether it may be agreed to: it leaves a choice, and is not settled. */
export const mayAgree = ({ asks, state }: Pick<RightsMatch, 'asks' | 'state'>): boolean =>
  asks !== undefined && asks !== 'closing' && state !== 'agreed' && state !== 'withdrawn';

/** Whether it may be disputed: once, and before it is agreed to. */
export const mayDispute = ({ state }: Pick<RightsMatch, 'state'>): boolean => state === 'open';

const countries = (codes: readonly string[]) => new Intl.ListFormat('en').format(codes.map(countryName));

/** What the owner asks, after the owner's name: “wants …”. */
export function askWords({
  asks,
  countries: codes,
  state = 'open',
}: Pick<RightsMatch, 'asks' | 'countries'> & { state?: MatchState }): string {
  if (state === 'withdrawn') return 'asks for nothing any more';
  switch (asks) {
    case 'income':
      return 'wants a share of what the video earns';
    case 'silence':
      return 'wants the sound off there';
    case 'closing in countries':
      return `wants it closed in ${countries(codes)}`;
    case 'closing':
      return 'does not permit it';
    case undefined:
      return 'asks for something that Kettle Drop does not know';
  }
}

/** What a match means as it stands, a sentence each: for viewers, for adverts, for the channel. */
export function matchMeans({
  asks,
  countries: codes,
  owner,
  state,
}: Pick<RightsMatch, 'asks' | 'countries' | 'owner' | 'state'>): string[] {
  const channel = 'It is no penalty against the channel.';
  if (state === 'withdrawn') return ['Nothing changes for viewers or adverts.', channel];
  const agreed = state === 'agreed' ? 'You agreed: ' : 'If you agree, ';
  switch (asks) {
    case 'income':
      return [
        'Everyone can watch the video, in every country.',
        `${agreed}adverts may run on it and ${owner} gets a share, also where you have set adverts to off.`,
        channel,
      ];
    case 'silence':
      return [
        `${agreed}the site takes all sound off that part, also speech.`,
        'Adverts are not touched, and it can be watched in every country.',
        channel,
      ];
    case 'closing in countries':
      return [
        `${agreed}nobody in ${countries(codes)} can watch it. Everywhere else it is open.`,
        'Adverts are not touched.',
        channel,
      ];
    case 'closing':
      return ['Nobody can watch the video in any country while this part is in it.', 'So it earns nothing.', channel];
    case undefined:
      return ['Look at the site for what it means.', channel];
  }
}
