import { ADVERT_WAYS, BROADCAST_WAYS, COMMENT_WAYS, type Declarations, LICENCES } from '@/core/declarations';
import { type DefaultField, RELEASES, type Release } from '@/core/defaults';
import { PRIVACIES, type Privacy } from '@/core/delivery';

/** Who may see it, with what follows. */
export const PRIVACY_WORDS: Record<Privacy, { name: string; says: string }> = {
  everyone: { name: 'Everyone', says: 'opens once it is checked' },
  link: { name: 'People with the link', says: 'by link once it is checked; never in search' },
  password: { name: 'People with a password', says: 'whoever has the link and the password' },
  private: { name: 'Only me', says: 'checked, and nobody else sees it' },
};

const COMMENT_NAMES: Record<Declarations['comments'], string> = {
  open: 'open',
  'hold doubtful': 'hold the doubtful ones',
  'hold all': 'hold all until they are read',
  off: 'off',
};

const BROADCAST_NAMES: Record<Declarations['broadcast'], string> = {
  '': 'not said',
  never: 'no',
  'with captions': 'yes, with captions',
  'without captions': 'yes, without captions',
};

const RELEASE_NAMES: Record<Release, string> = {
  'by itself': 'when it is checked',
  'on my word': 'when I say so',
  'at a time': 'at a set time',
  together: 'on all channels together',
  'first showing': 'as a first showing, at a set time',
};

/** When it opens, with the words for each. */
export const RELEASE_CHOICES = RELEASES.map((each) => [each, RELEASE_NAMES[each]] as const);

export type HoursChoices = readonly (readonly [hours: string, says: string])[];

/** How many hours are to lie between two releases on a channel. */
export const APART_CHOICES: HoursChoices = [
  ['0', 'as it comes'],
  ['1', 'an hour'],
  ['6', '6 hours'],
  ['12', '12 hours'],
  ['24', 'a day'],
  ['48', 'two days'],
  ['168', 'a week'],
];

/** By how many hours it may open late, with what that means. */
export const LATE_CHOICES: HoursChoices = [
  ['0', 'ask me first'],
  ['1', 'open it up to 1 hour late'],
  ['24', 'open it up to a day late'],
  ['168', 'open it up to a week late'],
];

/** What becomes of it where it waits for more than its check. */
export const RELEASE_SAYS: Record<Exclude<Release, 'by itself'>, string> = {
  'on my word': 'checked, then waits for you',
  'at a time': 'checked, then waits for its time',
  together: 'checked, then waits for the others',
  'first showing': 'checked, then waits for its first showing',
};

/** Fields that are one of a few, with the words for each. */
export const CHOICES: Partial<Record<DefaultField, readonly (readonly [value: string, says: string])[]>> = {
  privacy: PRIVACIES.map((each) => [each, PRIVACY_WORDS[each].name]),
  release: RELEASE_CHOICES,
  licence: LICENCES.map((each) => [each, each]),
  comments: COMMENT_WAYS.map((way) => [way, COMMENT_NAMES[way]]),
  adverts: ADVERT_WAYS.map((way) => [way, way]),
  broadcast: BROADCAST_WAYS.map((way) => [way, BROADCAST_NAMES[way]]),
};

/** Fields that are yes or no, with what yes means. */
export const FLAGS: Partial<Record<DefaultField, string>> = {
  adultsOnly: 'Adults only',
  paidPlacement: 'Contains paid placement or sponsorship',
  ratings: 'Show ratings',
  embedding: 'May be shown on other pages',
  tellSubscribers: 'Tell the subscribers',
  sendCaptions: 'Send its captions along',
  fullFirst: 'Open only once the site has it in full quality',
  sendFromInbox: 'Send a file from the inbox by itself where nothing is found against it',
  deleteFile: 'Delete the video’s own file here, too, once it is live everywhere it goes',
  uploadEarly: 'Upload the file at once, closed, while the words are still being written',
  deleteMadeFiles: 'Delete files that were made for sites once they are live',
};

/** The answers to whether it is aimed at children. */
export const CHILDREN_ANSWERS = [
  { value: false, name: 'No', says: 'it is for anyone' },
  { value: true, name: 'Yes', says: 'it is made for children' },
];
