import type { Person } from '../shared/oauth/permissions';

/** Who has an account at Pipwire; an account is a wire of its own. */
export const people: Person[] = [
  {
    id: 'tam-okoye',
    name: 'Tam Okoye',
    email: 'tam@marrowquay.example',
    channels: [{ id: 'pw-marrowquay', name: '@marrowquay', about: 'Short news from the yard', mayEarn: false }],
  },
];
