import { isDeepStrictEqual } from 'node:util';
import type { Knex } from 'knex';
import { askWords, needsPerson, OPEN_STATES, type RightsMatch } from '@/core/rights';
import type { Fraction } from '@/core/time';
import { now } from '@/store/clock';
import { type Database, fromJson, toJson } from '@/store/database';
import { newId } from '@/store/ids';

/** A rights match of a drop, as its site told of it last. */
export interface KeptMatch extends RightsMatch {
  dropId: string;
  /** The video at the site in which it was found; another is sent where the file is mended. */
  siteVideoId: string;
  foundAt: Date;
  changedAt: Date;
}

interface Row {
  id: string;
  dropId: string;
  siteVideoId: string;
  siteMatchId: string;
  owner: string;
  work: string;
  spanFrom: string;
  spanTo: string;
  asks: RightsMatch['asks'] | null;
  countries: string;
  state: RightsMatch['state'];
  disputeText: string | null;
  answerBy: Date | null;
  answer: string | null;
  foundAt: Date;
  changedAt: Date;
}

const fromRow = ({ siteMatchId, spanFrom, spanTo, asks, countries, disputeText, answerBy, answer, ...row }: Row) => {
  const { id: _, ...rest } = row;
  return {
    ...rest,
    id: siteMatchId,
    from: fromJson<Fraction>(spanFrom),
    to: fromJson<Fraction>(spanTo),
    asks: asks ?? undefined,
    countries: fromJson<string[]>(countries) ?? [],
    ...(disputeText !== null && {
      dispute: { text: disputeText, answerBy: answerBy ?? undefined, answer: answer ?? undefined },
    }),
  } as KeptMatch;
};

/** Ids of the live drops in whose video, as it is there now, a rights match waits for a person. */
export const liveMatched = (db: Database): Knex.QueryBuilder =>
  db('rightsMatches as m')
    .join('drops as md', (on) => on.on('md.id', 'm.dropId').andOn('md.siteVideoId', 'm.siteVideoId'))
    .whereIn('m.state', [...OPEN_STATES])
    .where('md.state', 'live')
    .select('m.dropId');

/** Which of these drops are live and have a rights match that waits for a person. */
export async function matchedAmong(db: Database, dropIds: readonly string[]): Promise<Set<string>> {
  const rows: { dropId: string }[] = await liveMatched(db).whereIn('m.dropId', [...dropIds]);
  return new Set(rows.map(({ dropId }) => dropId));
}

/** The rights matches of drops, the oldest first. */
export async function matchesOf(db: Database, dropIds: readonly string[]): Promise<KeptMatch[]> {
  const rows: Row[] = await db('rightsMatches')
    .whereIn('dropId', [...dropIds])
    .orderBy('id');
  return rows.map(fromRow);
}

const told = ({ owner, work, from, to, asks, countries, state, dispute }: RightsMatch) => ({
  ...{ owner: owner.slice(0, 200), work: work.slice(0, 200), spanFrom: toJson(from), spanTo: toJson(to) },
  ...{ asks: asks ?? null, countries: toJson(countries), state, disputeText: dispute?.text.slice(0, 2000) ?? null },
  ...{ answerBy: dispute?.answerBy ?? null, answer: dispute?.answer?.slice(0, 1000) ?? null },
});

const isTold = (one: RightsMatch, other: RightsMatch) => isDeepStrictEqual(told(one), told(other));

/**
 * Keeps what the site says of matches now; of one that it tells of no more, nothing is asked any more.
 * @param siteVideoId the video in which they were found
 * @returns those that are new; those that stand otherwise than before; and those whose owner asks for something else
 */
export async function keepMatches(
  db: Database,
  drop: { id: string; siteVideoId: string },
  matches: readonly RightsMatch[],
): Promise<{ found: RightsMatch[]; moved: RightsMatch[]; asked: RightsMatch[] }> {
  const { id: dropId, siteVideoId } = drop;
  const kept = new Map(
    (await matchesOf(db, [dropId])).filter((each) => each.siteVideoId === siteVideoId).map((each) => [each.id, each]),
  );
  const there = new Set(matches.map(({ id }) => id));
  const ended = [...kept.values()].filter((each) => !there.has(each.id) && needsPerson(each));
  const standing = [...matches, ...ended.map((each): RightsMatch => ({ ...each, state: 'withdrawn' }))];
  const changes = standing.flatMap((match) => {
    const before = kept.get(match.id);
    return before && isTold(before, match) ? [] : [{ match, before }];
  });
  for (const { match } of changes) {
    const fields = { ...told(match), changedAt: now(db) };
    await db('rightsMatches')
      .insert({ id: newId(), dropId, siteVideoId, siteMatchId: match.id, foundAt: now(db), ...fields })
      .onConflict(['dropId', 'siteVideoId', 'siteMatchId'])
      .merge(fields);
  }
  const of = (which: (match: RightsMatch, before: RightsMatch | undefined) => boolean) =>
    changes.flatMap(({ match, before }) => (which(match, before) ? match : []));
  return {
    found: of((_match, before) => !before),
    moved: of((match, before) => before !== undefined && before.state !== match.state),
    asked: of((match, before) => before?.state === match.state && askWords(before) !== askWords(match)),
  };
}
