import type { Person } from '../shared/oauth/permissions';

/** Who sells at Stallmarket; each has one stall. */
export const people: Person[] = [
  {
    id: 'wil-tarrant',
    name: 'Wil Tarrant',
    email: 'wil@marrowquay.example',
    channels: [
      { id: 'sm-marrow-quay', name: 'Marrow Quay Tools', about: 'Hand tools for wood and rope', mayEarn: false },
    ],
  },
];

/** What the stalls sell, by GTIN. The numbers are made up; their check digits are right. */
export const CATALOGUE: Record<string, string> = {
  '2000000000015': 'Spokeshave, curved sole',
  '2000000000022': 'Drawknife, 200 mm',
  '2000000000039': 'Caulking iron, set of four',
  '2000000000046': 'Oakum, 1 kg',
  '2000000000053': 'Strop, oiled leather',
  '2000000000060': 'Marking gauge, beech',
};
