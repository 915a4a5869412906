import type { LayerValues } from '@/core/defaults';
import type { Privacy } from '@/core/delivery';
import type { Coming } from '@/core/framing';
import type { LinkItem } from '@/core/words';
import { PAST_THE_EDIT, type Palette } from './scenes/scenes';

/** A marker of the edit: seconds from the start, colour and name. */
export type DemoMarker = [seconds: number, colour: 'GREEN' | 'RED', name: string];

/** One video of the demo: how it is drawn, what the edit left beside it, and what the manager has done with it. */
export interface DemoVideo {
  fileName: string;
  /** Where it is not as the file's name tells it. */
  title?: string;
  summary: string;
  tags: string[];
  links?: LinkItem[];
  rate: '25' | '30000/1001' | '24000/1001' | '50';
  /** Each scene with the loops that it lasts. */
  scenes: [name: string, loops: number][];
  palette: Palette;
  markers: DemoMarker[];
  /** Where the file's name does not tell it; '' puts it in none. */
  series?: string;
  channel: string;
  /** Where it is not as the series has it. */
  privacy?: Privacy;
  send: boolean;
  /** Other channels that it goes to, as `site/name`, each with what is its own there. */
  also?: { channel: string; privacy?: Privacy; text?: string }[];
  /** When it opens, as people say it, in the yard's own time. */
  opens?: string;
  /** What is set on the video beside its words. */
  values?: LayerValues;
  /** Where the frame of its upright file stands: seconds, ten-thousandths from the left, and how it comes there. */
  upright?: [seconds: number, x: number, comes: Coming][];
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

/** Links that the yard's texts have again and again. */
export const SHELF: { name: string; label: string; url: string }[] = [
  { name: 'yard', label: 'The yard and its boats', url: 'https://marrowquay.example/yard' },
  { name: 'tool-list', label: 'Every tool that we use', url: 'https://marrowquay.example/tools' },
  { name: 'plans', label: 'Plans and drawings', url: 'https://marrowquay.example/plans' },
  { name: 'steam-box', label: 'How to build the steam box', url: 'https://marrowquay.example/plans/steam-box' },
  { name: 'tides', label: 'Tide tables', url: 'https://marrowquay.example/tides' },
];

const DIARY = `{{summary}}

{{#links}}
{{line}}
{{/links}}

{{chapters}}

{{#cut-second}}
{{shelf.yard}}
{{shelf.tool-list}}
{{/cut-second}}

{{#cut-first}}
Plank by Plank is the diary of one old boat, from the keel up. This is episode {{episode}}, filmed at {{channel}}, {{date}}.
{{/cut-first}}

{{hashtags}}`;

const WEEK = `{{summary}}

{{chapters}}

{{#links}}
{{line}}
{{/links}}

{{#cut-first}}
{{shelf.tides}}
A report from the quay every week, whatever the weather.
{{/cut-first}}

{{hashtags}}`;

const LESSON = `{{summary}}

{{chapters}}

{{#links}}
{{line}}
{{/links}}

{{#cut-first}}
{{shelf.tool-list}}
The tools are sold in our own shop.
{{/cut-first}}

{{hashtags}}`;

/** A series of the yard; channels by name, or as `site/name`. */
export interface DemoSeries {
  name: string;
  pattern: string;
  channels: string[];
  values: LayerValues;
}

export const SERIES: DemoSeries[] = [
  {
    name: 'Plank by Plank',
    pattern: 'plank-by-plank_{episode}_{title}',
    channels: ['Marrow Quay'],
    values: {
      titlePattern: '{{title}}{{#cut-first}} · Plank by Plank {{episode}}{{/cut-first}}',
      template: DIARY,
      tags: { way: 'add', items: ['wooden boat', 'boat restoration', 'green oak', 'plank by plank'] },
      playlists: { way: 'add', items: ['Plank by Plank'] },
      privacy: 'everyone',
      category: 'craft',
      rhythm: { rule: 'FREQ=WEEKLY;BYDAY=WE', from: '2026-01-07', time: '17:00', zone: 'Europe/Berlin' },
    },
  },
  {
    name: 'Tide Notes',
    pattern: 'tide_notes_week-{episode}-{title}',
    channels: ['Tide Notes'],
    values: {
      titlePattern: 'Week {{episode}}: {{title}}',
      template: WEEK,
      tags: { way: 'add', items: ['tide notes', 'weekly report', 'weather'] },
      playlists: { way: 'add', items: ['Tide Notes 2026'] },
      privacy: 'everyone',
      comments: 'hold doubtful',
      rhythm: { rule: 'FREQ=WEEKLY;BYDAY=FR', from: '2026-01-02', time: '18:00', zone: 'Europe/Berlin' },
    },
  },
  {
    name: 'Hand Tools, Slowly',
    pattern: 'hand-tools-slowly_{title}',
    channels: ['Marrow Quay', 'stallmarket/Marrow Quay Tools'],
    values: {
      template: LESSON,
      tags: { way: 'add', items: ['hand tools', 'wooden boat'] },
      playlists: { way: 'add', items: ['Hand Tools, Slowly'] },
      privacy: 'everyone',
      category: 'craft',
      picture: { way: 'moment', at: { num: 32, den: 5 } },
    },
  },
];

/** What channels set, by name or as `site/name`, and sites by their id. */
export const CHANNEL_DEFAULTS: [channel: string, values: LayerValues][] = [
  ['Marrow Quay', { forChildren: false, tags: { way: 'add', items: ['marrow quay', 'marrowquay'] } }],
  ['Tide Notes', { forChildren: false }],
  ['Quay School', { forChildren: true, tags: { way: 'add', items: ['for children'] } }],
  ['fieldgate/Marrow Quay Films', { playlists: { way: 'add', items: ['Restorations'] } }],
  ['pipwire/@marrowquay', { file: { way: 'set', set: 'upright' } }],
];
export const SITE_DEFAULTS: [site: string, values: LayerValues][] = [['lanternfold', { language: 'en' }]];

export const VIDEOS: DemoVideo[] = [
  {
    fileName: 'caulking-without-tears_FINAL.mp4',
    summary: 'Oakum, irons and patience: how a seam is filled so that it stays dry.',
    tags: ['caulking', 'oakum'],
    series: 'Hand Tools, Slowly',
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
    send: true,
    also: [
      { channel: 'fieldgate/Marrow Quay Films' },
      { channel: 'pipwire/@marrowquay', text: 'A seam that stays dry: oakum, irons, patience.' },
      { channel: 'stallmarket/Marrow Quay Tools' },
    ],
    values: {
      broadcast: 'never',
      credits: [{ role: 'Camera', name: 'Isa Brandt' }],
      products: ['2000000000039', '2000000000046'],
    },
  },
  {
    fileName: 'plank-by-plank_13_laying-the-keel-part-two_v4.mp4',
    title: 'Laying the keel, part two',
    summary: 'We cut the second scarf, fair the joint by eye and bolt the keel to the deadwood.',
    tags: ['keel', 'scarf joint'],
    links: [{ label: 'Drawing of the joint', url: 'https://marrowquay.example/drawings/scarf' }, { shelf: 'plans' }],
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
    values: { release: 'on my word' },
    send: true,
  },
  {
    fileName: 'plank-by-plank_12_steaming-the-ribs_v2.mp4',
    summary: 'An hour an inch in the steam box, then ninety seconds to bend it home.',
    tags: ['steam bending', 'ribs'],
    links: [{ shelf: 'steam-box' }],
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
    send: true,
  },
  {
    fileName: 'tide_notes_week-46-north-wind-new-mast-step_web.mp4',
    title: 'North wind, new mast step',
    summary: 'A week of wind from the north, and a mast step that finally fits.',
    tags: ['mast step', 'north wind'],
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
    send: true,
  },
  {
    fileName: 'tide_notes_week-48-ice-on-the-slip_web.mp4',
    title: 'Ice on the slip',
    summary: 'First frost on the slipway, and how we keep the planks from cracking.',
    tags: ['frost', 'slipway'],
    rate: '25',
    scenes: [
      ['quay', 2],
      ['lantern', 2],
    ],
    palette: blue,
    markers: [],
    channel: 'Tide Notes',
    opens: 'sat 4:00',
    send: true,
  },
  {
    fileName: 'plank-by-plank_14_launch-day_FINAL-v2.mp4',
    summary: 'She floats, a little. The tide, the slip, and everybody who came.',
    tags: ['launch'],
    rate: '50',
    scenes: [
      ['quay', 5],
      ['lantern', 3],
    ],
    palette: blue,
    markers: [],
    channel: 'Marrow Quay',
    privacy: 'link',
    send: true,
    also: [{ channel: 'fieldgate/Marrow Quay Films', privacy: 'private' }],
  },
  {
    fileName: 'sharpening-a-spokeshave_1080_v1.mp4',
    title: 'Sharpening a spokeshave',
    summary: 'Two stones, a strop and no hurry.',
    tags: ['spokeshave', 'sharpening'],
    series: 'Hand Tools, Slowly',
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
    send: true,
    also: [{ channel: 'stallmarket/Marrow Quay Tools' }],
    values: { products: ['2000000000015', '2000000000053'] },
  },
  {
    fileName: 'quay-school_three-knots-for-small-hands_draft2.mp4',
    title: 'Three knots for small hands',
    summary: '',
    tags: ['knots'],
    series: '',
    rate: '25',
    scenes: [
      ['rope', 5],
      ['quay', 4],
      ['rope', 5],
      [PAST_THE_EDIT, 1],
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
    also: [
      { channel: 'fieldgate/Marrow Quay Films' },
      { channel: 'pipwire/@marrowquay', text: 'Three knots that small hands can tie.' },
    ],
    upright: [
      [3, 5700, 'cut'],
      [9, 2600, 'held'],
      [15, 6900, 'smooth'],
      [26, 3300, 'cut'],
      [40, 5700, 'cut'],
    ],
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
      wants: 'share',
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
