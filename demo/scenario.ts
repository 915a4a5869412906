import type { Declarations } from '@/core/declarations';
import type { Privacy } from '@/core/delivery';
import type { Palette } from './scenes/scenes';

/** A marker of the edit: seconds from the start, colour and name. */
export type DemoMarker = [seconds: number, colour: 'GREEN' | 'RED', name: string];

/** One video of the demo: how it is drawn, what the edit left beside it, and what the manager has done with it. */
export interface DemoVideo {
  fileName: string;
  title?: string;
  description: string;
  tags: string[];
  rate: '25' | '30000/1001' | '24000/1001' | '50';
  /** Each scene with the loops that it lasts. */
  scenes: [name: string, loops: number][];
  palette: Palette;
  markers: DemoMarker[];
  channel: string;
  playlist?: string;
  privacy: Privacy;
  send: boolean;
  /** Other channels that it goes to, as `site/name`, each with what is its own there. */
  also?: { channel: string; privacy?: Privacy; text?: string; playlist?: string }[];
  /** What is declared beside that it is not aimed at children. */
  declarations?: Partial<Declarations>;
}

/** Who connects at each site. */
export const PEOPLE: [site: string, person: string][] = [
  ['lanternfold', 'wil-tarrant'],
  ['fieldgate', 'isa-brandt'],
  ['pipwire', 'tam-okoye'],
  ['stallmarket', 'wil-tarrant'],
];

const day: Palette = { sky: '#8fb4c9', far: '#5b89a6', near: '#2f5d7c', wood: '#9a6b3f', light: '#f4d28a' };
const dusk: Palette = { sky: '#b9a7c9', far: '#7c6a9c', near: '#4a3a6b', wood: '#a3704a', light: '#ffe2b8' };
const moss: Palette = { sky: '#a9c2a0', far: '#6d9070', near: '#35614a', wood: '#8a5f38', light: '#f6e7b0' };
const oak: Palette = { sky: '#d9b48a', far: '#b98a5b', near: '#7c5230', wood: '#c99a63', light: '#fff3d0' };
const blue: Palette = { sky: '#9fc3d6', far: '#5f90b0', near: '#27506b', wood: '#b0523a', light: '#fffbe8' };

/** Where the account that the demo connects is, and the playlists that it has. */
export const PLAYLISTS: [channel: string, title: string][] = [
  ['Marrow Quay', 'Plank by Plank'],
  ['Marrow Quay', 'Hand Tools, Slowly'],
  ['Tide Notes', 'Tide Notes 2026'],
  ['Quay School', 'Knots for small hands'],
  ['Marrow Quay Films', 'Restorations'],
];

export const VIDEOS: DemoVideo[] = [
  {
    fileName: 'caulking-without-tears_FINAL.mp4',
    description: 'Oakum, irons and patience: how a seam is filled so that it stays dry.',
    tags: ['caulking', 'oakum', 'wooden boat', 'marrow quay'],
    rate: '25',
    scenes: [
      ['bench', 4],
      ['quay', 4],
      ['ribs', 4],
    ],
    palette: oak,
    markers: [
      [0, 'GREEN', 'What a seam needs'],
      [16, 'GREEN', 'Driving the oakum'],
      [22.4, 'RED', 'colour: warmer here'],
      [32, 'GREEN', 'Paying with pitch'],
    ],
    channel: 'Marrow Quay',
    playlist: 'Hand Tools, Slowly',
    privacy: 'everyone',
    send: true,
    also: [
      { channel: 'fieldgate/Marrow Quay Films', playlist: 'Restorations' },
      { channel: 'pipwire/@marrowquay', text: 'A seam that stays dry: oakum, irons, patience.' },
      { channel: 'stallmarket/Marrow Quay Tools' },
    ],
    declarations: {
      category: 'craft',
      language: 'en',
      credits: [{ role: 'Camera', name: 'Isa Brandt' }],
      products: ['2000000000039', '2000000000046'],
    },
  },
  {
    fileName: 'plank-by-plank_13_laying-the-keel-part-two_v4.mp4',
    title: 'Laying the keel, part two',
    description: 'We cut the second scarf, fair the joint by eye and bolt the keel to the deadwood.',
    tags: ['keel', 'scarf joint', 'green oak', 'wooden boat', 'marrow quay', 'marrowquay'],
    rate: '25',
    scenes: [
      ['ribs', 4],
      ['bench', 5],
      ['quay', 5],
      ['lantern', 3],
    ],
    palette: dusk,
    markers: [
      [0, 'GREEN', 'Why a scarf joint'],
      [16, 'GREEN', 'Marking out the oak'],
      [24.2, 'RED', 'replace shot: thumb over lens'],
      [36, 'GREEN', 'First cut'],
      [47.5, 'RED', 'loud click, ask Wil'],
      [56, 'GREEN', 'Bolts in'],
    ],
    channel: 'Marrow Quay',
    playlist: 'Plank by Plank',
    privacy: 'private',
    send: true,
  },
  {
    fileName: 'plank-by-plank_12_steaming-the-ribs_v2.mp4',
    title: 'Steaming the ribs',
    description: 'An hour an inch in the steam box, then ninety seconds to bend it home.',
    tags: ['steam bending', 'ribs', 'green oak', 'wooden boat'],
    rate: '30000/1001',
    scenes: [
      ['ribs', 6],
      ['lantern', 3],
      ['ribs', 3],
    ],
    palette: day,
    markers: [
      [0, 'GREEN', 'Filling the box'],
      [24, 'GREEN', 'Ninety seconds'],
      [36, 'GREEN', 'What cracked, and why'],
    ],
    channel: 'Marrow Quay',
    playlist: 'Plank by Plank',
    privacy: 'everyone',
    send: true,
  },
  {
    fileName: 'tide_notes_week-46-north-wind-new-mast-step_web.mp4',
    title: 'Week 46: north wind, new mast step',
    description: 'A week of wind from the north, and a mast step that finally fits.',
    tags: ['tide notes', 'mast step', 'weekly report'],
    rate: '24000/1001',
    scenes: [
      ['quay', 12],
      ['bench', 8],
      ['lantern', 8],
      ['quay', 12],
    ],
    palette: moss,
    markers: [
      [0, 'GREEN', 'The week’s weather'],
      [48, 'GREEN', 'The mast step'],
      [80, 'GREEN', 'Night watch'],
      [112, 'GREEN', 'Next week'],
    ],
    channel: 'Tide Notes',
    playlist: 'Tide Notes 2026',
    privacy: 'everyone',
    send: true,
  },
  {
    fileName: 'plank-by-plank_14_launch-day_FINAL-v2.mp4',
    title: 'Launch day',
    description: 'She floats, a little. The tide, the slip, and everybody who came.',
    tags: ['launch', 'wooden boat', 'marrow quay'],
    rate: '50',
    scenes: [
      ['quay', 5],
      ['lantern', 3],
    ],
    palette: blue,
    markers: [],
    channel: 'Marrow Quay',
    playlist: 'Plank by Plank',
    privacy: 'link',
    send: true,
    also: [{ channel: 'fieldgate/Marrow Quay Films', privacy: 'private', playlist: 'Restorations' }],
  },
  {
    fileName: 'sharpening-a-spokeshave_1080_v1.mp4',
    title: 'Sharpening a spokeshave',
    description: 'Two stones, a strop and no hurry.',
    tags: ['spokeshave', 'sharpening', 'hand tools'],
    rate: '25',
    scenes: [
      ['bench', 5],
      ['rope', 3],
      ['bench', 4],
    ],
    palette: oak,
    markers: [
      [0, 'GREEN', 'The blade'],
      [20, 'GREEN', 'The back'],
      [32, 'GREEN', 'The strop'],
    ],
    channel: 'Marrow Quay',
    playlist: 'Hand Tools, Slowly',
    privacy: 'everyone',
    send: true,
    also: [{ channel: 'stallmarket/Marrow Quay Tools' }],
    declarations: { category: 'craft', products: ['2000000000015', '2000000000053'] },
  },
  {
    fileName: 'quay-school_three-knots-for-small-hands_draft2.mp4',
    title: 'Three knots for small hands',
    description: '',
    tags: ['knots', 'for children'],
    rate: '25',
    scenes: [
      ['rope', 5],
      ['quay', 4],
      ['rope', 5],
    ],
    palette: blue,
    markers: [
      [4.2, 'GREEN', 'The bowline'],
      [18, 'GREEN', 'The figure eight'],
      [24, 'GREEN', 'Blade change'],
      [29.6, 'RED', 'music too loud from here'],
      [38, 'GREEN', 'The round turn'],
    ],
    channel: 'Quay School',
    privacy: 'private',
    send: false,
    also: [{ channel: 'fieldgate/Marrow Quay Films' }],
    declarations: { forChildren: undefined },
  },
];

/** What goes wrong at each site in the demo, as its control interface takes it. */
export const FAULTS: Record<string, object[]> = {
  lanternfold: [
    {
      kind: 'rights match',
      match: 'steaming-the-ribs',
      reason: 'Harbour Lane Music',
      from: 12,
      to: 25,
      wants: 'adverts',
    },
    { kind: 'line', match: 'week-46', bytes: 30_000 },
    { kind: 'alter', match: 'sharpening-a-spokeshave', times: 1, field: 'title', value: 'Sharpening a spoke shave' },
  ],
  stallmarket: [
    {
      kind: 'turn down',
      match: 'sharpening-a-spokeshave',
      times: 1,
      reason: 'The strop is listed, but it is not named in the clip',
      remedy: 'Name it, or take it off the list',
    },
  ],
};
