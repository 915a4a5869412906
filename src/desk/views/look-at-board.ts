import { array, number, object, string } from 'yup';
import { PRIVACIES } from '@/core/delivery';
import { BOARD_GROUPS, BOARD_LACKS, BOARD_ORDERS, type DropState, openEnd } from '@/core/drop';
import { database } from '@/store/database';
import { dropsOf } from '@/store/drop/drops';
import { partsAmissOf } from '@/store/drop/parts';
import { matchedAmong } from '@/store/drop/rights-matches';
import type { Drop } from '@/store/drop/shape';
import { cutDigestsOf } from '@/store/files/renditions';
import { type Job, jobsOf } from '@/store/queue/jobs';
import { type BoardChoice, boardCounts, boardPlaces, movingNow } from '@/store/record/board';
import { betterCut, type Cut, cutInUse, cutsOf } from '@/store/record/cuts';
import { type Video, videosById } from '@/store/record/videos';
import { allChannels, type Channel, channelsInUse } from '@/store/site/channels';
import { actionsFor, type DropAction } from '../actions/act-on-drop';
import { missingAt } from '../drop/readiness';
import { profileAt, recordsOf } from '../drop/record';
import { idShape } from '../id-shape';
import { inForceAt, type KeptLayers, keptLayers } from '../layers/layers';
import { MOST_AT_ONCE } from '../many/many-act';
import { site } from '../site/session';
import { channelView, cutView, dropsByVideo, dropView, readingJobs } from './look';
import { shownTitle } from './shown-title';
import type { BoardCounts, BoardCut, BoardDrop, BoardMissing, BoardRow, BoardView } from './views';

/** How many videos the Board shows before somebody scrolls. */
const FIRST_ROWS = 18;
const MOST_ROWS = 400;

/** Ids as a list, or as an address has them, with commas between. */
const idsShape = (most: number) =>
  array(idShape().required())
    .max(most)
    .transform((_, text: unknown) => (typeof text === 'string' ? text.split(',') : text));

const placeShape = object({
  id: idShape().required(),
  group: string().oneOf(BOARD_GROUPS).required(),
  title: string().max(1000).defined(),
  stateRank: number().integer().min(0).max(9),
})
  .noUnknown()
  .json();

const choiceFields = {
  find: string().max(300),
  group: string().oneOf(BOARD_GROUPS),
  seriesId: idShape(),
  channelId: idShape(),
  privacy: string().oneOf(PRIVACIES),
  lacks: string().oneOf(BOARD_LACKS),
  days: number().integer().min(1).max(36_500),
};

const boardShape = object({
  ...choiceFields,
  ids: idsShape(MOST_ROWS),
  order: string().oneOf(BOARD_ORDERS).default('needs'),
  by: idShape(),
  after: placeShape.default(undefined),
  most: number().integer().min(1).max(MOST_ROWS).default(FIRST_ROWS),
}).noUnknown();

/** A part of the Board: the videos of a choice in their order, as many as fit on a page. */
export async function lookAtBoard(input: unknown = {}): Promise<BoardView> {
  const { order, by, after, most, ...choice } = await boardShape.validate(input, { stripUnknown: false });
  const db = database();
  const [places, channels, used, layers] = await Promise.all([
    boardPlaces(db, choice, order, after, most + 1, by),
    allChannels(db),
    channelsInUse(db),
    keptLayers(db),
  ]);
  const shown = places.slice(0, most);
  const groups = new Map(shown.map(({ id, group }) => [id, group]));
  const rows = await boardRows([...groups.keys()], channels, layers);
  return {
    channels: channels
      .filter(({ accountState }) => accountState !== 'removed')
      .map(channelView)
      .filter(({ connected, id }) => connected || used.has(id)),
    rows: rows.flatMap((row): BoardRow[] => {
      const group = groups.get(row.videoId);
      return group ? [{ ...row, group }] : [];
    }),
    more: places.length > most,
    series: [...layers.series.values()].map(({ id, name }) => ({ id, name })),
  };
}

/** Videos as the Board shows them, in the order of their ids. */
async function boardRows(
  ids: readonly string[],
  channels: readonly Channel[],
  layers: KeptLayers,
): Promise<Omit<BoardRow, 'group'>[]> {
  const db = database();
  const [videos, cuts, drops] = await Promise.all([videosById(db, ids), cutsOf(db, ids), dropsOf(db, ids)]);
  const renditions = drops.flatMap(({ renditionId }) => renditionId ?? []);
  const dropIds = drops.map(({ id }) => id);
  const [digestsAtSites, jobs, matched, amiss, giving] = await Promise.all([
    cutDigestsOf(db, renditions),
    readingJobs(db, [...cuts.values()].flat()),
    matchedAmong(db, dropIds),
    partsAmissOf(db, dropIds),
    jobsOf(db, 'give', dropIds),
  ]);
  const byVideo = dropsByVideo(drops);
  const channelById = new Map(channels.map((channel) => [channel.id, channel]));
  const byId = new Map(videos.map((video) => [video.id, video]));
  return ids.flatMap((id) => {
    const video = byId.get(id);
    if (!video) return [];
    const [cut, better] = [cutInUse(cuts.get(id), video.cutId), betterCut(cuts.get(id))];
    const ofVideo = byVideo.get(id) ?? [];
    return [
      {
        videoId: id,
        title: video.title,
        shownTitle: shownTitle(video, ofVideo, channelById, layers),
        series: layers.series.get(video.seriesId ?? '')?.name,
        pictureId: video.pictureId,
        cut: cut && boardCut(cut, jobs.get(cut.id)),
        betterCut: better && boardCut(better, jobs.get(better.id)),
        drops: ofVideo.map((drop) => ({
          ...dropView(
            drop,
            cut,
            digestsAtSites.get(drop.renditionId ?? ''),
            abilitiesAt(channelById.get(drop.channelId)),
            { matched: matched.has(drop.id), amiss: amiss.get(drop.id), giving: giving.get(drop.id) },
          ),
          ...boardActions(video, drop, channelById.get(drop.channelId), layers),
        })),
      },
    ];
  });
}

const abilitiesAt = (channel: Channel | undefined) => (channel ? site(channel.site).profile.abilities : {});

function boardCut(cut: Cut, job: Job | undefined): BoardCut {
  const { facts, fingerprint: _, ...shown } = cutView(cut, job);
  const picture = facts && { duration: facts.duration, width: facts.video.width, height: facts.video.height };
  return { ...shown, shown: picture };
}

const COMMON_ACTS: readonly DropAction[] = ['open', 'not yet', 'try again', 'open again'];
const ACTED_ON: readonly DropState[] = ['held', 'snag'];

/** Of what can be done with a drop, the common acts: what is ready or was closed is opened, and what has a snag is tried again. */
function boardActions(
  video: Video,
  drop: Drop,
  channel: Channel | undefined,
  layers: KeptLayers,
): Pick<BoardDrop, 'actions' | 'end'> {
  const isActedOn = ACTED_ON.includes(drop.state) || drop.closedFrom !== undefined;
  if (!channel || !isActedOn) return { actions: [], end: 'everyone' };
  const end = inForceAt(layers, video, channel, drop).privacy.value;
  const all = actionsFor(drop, profileAt(site(channel.site).profile, channel), end);
  return { actions: all.filter((action) => COMMON_ACTS.includes(action)), end: openEnd(end) };
}

const countsShape = object(choiceFields).noUnknown();

/** How many videos of a choice stand in each group, and what moves. */
export async function lookAtBoardCounts(input: unknown = {}): Promise<BoardCounts> {
  const choice: BoardChoice = await countsShape.validate(input, { stripUnknown: false });
  const db = database();
  const isOfAll = Object.values(choice).every((each) => each === undefined || each === '');
  const [counts, moving, all] = await Promise.all([
    boardCounts(db, choice),
    movingNow(db),
    isOfAll ? undefined : boardCounts(db, {}),
  ]);
  return { counts, moving, needYou: (all ?? counts)['needs you'] };
}

/** The ids of all videos of a choice, in no order, as many as can be acted on at once. */
export async function lookAtBoardIds(input: unknown = {}): Promise<{ ids: string[] }> {
  const choice: BoardChoice = await countsShape.validate(input, { stripUnknown: false });
  const places = await boardPlaces(database(), choice, 'newest', undefined, MOST_AT_ONCE);
  return { ids: places.map(({ id }) => id) };
}

const MOST_MISSING = 60;
const missingShape = object({ ids: idsShape(MOST_MISSING).required() }).noUnknown();

/**
 * What keeps the drops of some videos from being sent that have not been: worked out for those that are looked at, since it
 * takes the whole record of each, fitted to every site.
 */
export async function lookAtMissing(input: unknown): Promise<BoardMissing> {
  const { ids } = await missingShape.validate(input, { stripUnknown: false });
  const db = database();
  const [channels, drops] = await Promise.all([allChannels(db), dropsOf(db, ids)]);
  const drafts = drops.filter((drop) => drop.state === 'draft');
  const records = await recordsOf(db, [...new Set(drafts.map((drop) => drop.videoId))]);
  const byId = new Map(channels.map((channel) => [channel.id, channel]));
  const missing: BoardMissing = {};
  for (const drop of drafts) {
    const [record, channel] = [records.get(drop.videoId), byId.get(drop.channelId)];
    if (!record || !channel) continue;
    const count = missingAt(record, channel, drop, profileAt(site(channel.site).profile, channel)).length;
    missing[drop.videoId] = { ...missing[drop.videoId], [drop.id]: count };
  }
  return missing;
}
