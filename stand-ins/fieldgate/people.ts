import type { Person } from '../shared/oauth/permissions';

/** Who has an account at Fieldgate; each has one portfolio. */
export const people: Person[] = [
  {
    id: 'isa-brandt',
    name: 'Isa Brandt',
    email: 'isa@marrowquay.example',
    channels: [
      { id: 'fg-marrow-quay', name: 'Marrow Quay Films', about: 'Moving pictures from the yard', mayEarn: false },
    ],
  },
  {
    id: 'ono-lind',
    name: 'Ono Lind',
    email: 'ono@lindlight.example',
    channels: [{ id: 'fg-lind-light', name: 'Lind Light', about: 'Camera and light', mayEarn: false }],
  },
];
