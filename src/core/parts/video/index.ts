import { plainPart } from '../plain-part';

/** The video is sent, not given: here it is only looked for. */
export const video = plainPart<'video'>({
  label: 'video',
  place: 'cut',
  mustBeRight: true,
  wanted: () => undefined,
  inWords: (value) => value,
});
