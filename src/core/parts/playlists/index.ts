import { plainPart } from '../plain-part';
import { isSameSet } from '../same';

export const playlists = plainPart<'playlists'>({
  label: 'playlists',
  place: 'privacy',
  mustBeRight: false,
  wanted: (from) => from.playlists,
  same: isSameSet,
  inWords: (ids, titleOf) => ids.map(titleOf).sort().join(', '),
  takeOver: (shown) => ({ playlists: shown }),
});
