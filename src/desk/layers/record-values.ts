import { fieldsTaken } from '@/core/declarations';
import {
  DEFAULT_FIELDS,
  type DefaultField,
  type Defaults,
  type Given,
  inForce,
  type LayerAt,
  type Source,
} from '@/core/defaults';
import type { SiteProfile } from '@/sites/contract';
import type { Drop } from '@/store/drop/shape';
import type { Video } from '@/store/record/videos';
import type { Channel } from '@/store/site/channels';
import { type KeptLayers, layersAt } from './layers';

/** A channel at which the record has another value than elsewhere. */
export interface DiffersAt {
  channelId: string;
  name: string;
  value: unknown;
  from: Source[];
}

/** Where a field's value came from, and what it would be without what is set on the video. */
export interface FieldMark {
  from: Source[];
  /** Whether it is set on the video itself. */
  set: boolean;
  /** What the layers beneath give. */
  beneath: unknown;
  beneathFrom: Source[];
  /** Ticked channels that get another value, of those that take the field. */
  differs: DiffersAt[];
}

/** What is in force for a record as a whole, with where each value came from. */
export interface RecordValues {
  values: Defaults;
  marks: Record<DefaultField, FieldMark>;
}

/** A channel that a record goes to. */
export interface TickedChannel {
  channel: Channel;
  drop: Drop;
  profile: SiteProfile;
}

const DECLARED: ReadonlySet<string> = new Set<DefaultField>([
  ...([
    'category',
    'language',
    'licence',
    'recordedOn',
    'place',
    'forChildren',
    'adultsOnly',
    'countries',
    'paidPlacement',
  ] as const),
  ...(['comments', 'ratings', 'embedding', 'tellSubscribers', 'broadcast', 'adverts', 'credits', 'products'] as const),
]);

/** Whether a channel of a site has any use for a field. */
export function takesField(profile: SiteProfile, field: DefaultField): boolean {
  if (DECLARED.has(field)) return fieldsTaken(profile.declares).some((each) => each === field);
  if (field === 'titlePattern') return profile.title !== undefined;
  if (field === 'tags') return profile.tags !== undefined;
  if (field === 'playlists') return profile.abilities.groups !== undefined;
  if (field === 'sendCaptions') return profile.captions;
  return true;
}

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** One value for the whole record: the one that most channels share, or else that of the record's own layers. */
function shared(all: readonly Given<unknown>[], own: Given<unknown>): Given<unknown> {
  if (all.length === 0) return own;
  const most = all.find((one) => all.filter(({ value }) => same(value, one.value)).length > all.length / 2);
  return most ?? own;
}

/**
 * The values of a record that goes to several channels: where most that take a field get the same, that is the record's;
 * where there is no such value, the record's own layers speak, and each channel that differs is named.
 * @param ticked the channels that the video goes to
 */
export function recordValues(kept: KeptLayers, video: Video, ticked: readonly TickedChannel[]): RecordValues {
  const unsent = ticked.filter(({ drop }) => drop.state === 'draft' || drop.state === 'removed');
  const looked = unsent.length > 0 ? unsent : ticked;
  const bare: Video = { ...video, own: {} };
  const at = (of: Video, each: TickedChannel): LayerAt[] =>
    layersAt(kept, of, each.channel, each.drop).filter(({ layer }) => layer !== 'drop');
  const own = { whole: inForce(layersAt(kept, video)), beneath: inForce(layersAt(kept, bare)) };
  const byChannel = looked.map((each) => ({
    ...each,
    whole: inForce(at(video, each)),
    beneath: inForce(at(bare, each)),
  }));
  const marks = DEFAULT_FIELDS.map((field): [DefaultField, FieldMark & { value: unknown }] => {
    const takers = byChannel.filter(({ profile }) => takesField(profile, field));
    const record = shared(
      takers.map(({ whole }) => whole[field]),
      own.whole[field],
    );
    const beneath = shared(
      takers.map((each) => each.beneath[field]),
      own.beneath[field],
    );
    const differs = takers
      .filter(({ whole }) => !same(whole[field].value, record.value))
      .map(({ channel, whole }) => ({ channelId: channel.id, name: channel.name, ...whole[field] }));
    const set = video.own[field] !== undefined;
    return [
      field,
      { value: record.value, from: record.from, set, beneath: beneath.value, beneathFrom: beneath.from, differs },
    ];
  });
  return {
    values: Object.fromEntries(marks.map(([field, { value }]) => [field, value])) as unknown as Defaults,
    marks: Object.fromEntries(marks.map(([field, { value: _, ...mark }]) => [field, mark])) as RecordValues['marks'],
  };
}
