import type { Person } from '../shared/oauth/permissions';

/** Who has an account at Lanternfold. */
export const people: Person[] = [
  {
    id: 'wil-tarrant',
    name: 'Wil Tarrant',
    email: 'wil@marrowquay.example',
    channels: [
      { id: 'lf-marrow-quay', name: 'Marrow Quay', about: 'A wooden-boat yard at work', mayEarn: true },
      { id: 'lf-tide-notes', name: 'Tide Notes', about: 'The week on the water, every Friday', mayEarn: true },
      { id: 'lf-quay-school', name: 'Quay School', about: 'Knots, boats and birds for children', mayEarn: false },
    ],
  },
  {
    id: 'nell-oxley',
    name: 'Nell Oxley',
    email: 'nell@slipway-post.example',
    channels: [{ id: 'lf-slipway-post', name: 'Slipway Post', about: 'Letters from small harbours', mayEarn: false }],
  },
];
