import type { Knex } from 'knex';
import { id, moment, refer } from './columns';

/** What a site was given, as one text kept it. */
interface OldGiven {
  words?: {
    title: string;
    text: string;
    tags: string[];
    chapters: { stamp: string; title: string }[];
    chapterTimes: { num: number; den: number }[];
    duration?: { num: number; den: number };
    declared: Record<string, unknown>;
  };
  privacy: string;
  passwordMark?: string;
  playlists: string[];
  pictureDigest?: string;
  moment?: { num: number; den: number };
  captions: { id: string; language: string }[];
  from?: unknown;
  without?: unknown;
}

interface OldShown {
  field: string;
  meant: string;
  shown: string;
  left?: true;
}

type Parts = Record<string, unknown>;

const NO_WORDS: NonNullable<OldGiven['words']> = {
  ...{ title: '', text: '', tags: [], chapters: [], chapterTimes: [], declared: {} },
};

const GROUPS: Record<string, readonly string[]> = {
  about: ['category', 'language', 'recordedOn', 'place', 'broadcast'],
  audience: ['forChildren', 'adultsOnly', 'countries'],
  permissions: ['licence', 'embedding', 'comments', 'ratings'],
  money: ['adverts', 'paidPlacement'],
  telling: ['tellSubscribers'],
  credits: ['credits'],
  products: ['products'],
};

/** Parts by what a reading called their fields. */
const PART_OF: Record<string, string> = {
  description: 'text',
  playlist: 'playlists',
  thumbnail: 'picture',
  category: 'about',
  language: 'about',
  'recording date': 'about',
  place: 'about',
  'broadcast before': 'about',
  'aimed at children': 'audience',
  'age limit': 'audience',
  countries: 'audience',
  licence: 'permissions',
  embedding: 'permissions',
  comments: 'permissions',
  ratings: 'permissions',
  adverts: 'money',
  'paid placement': 'money',
  'telling the subscribers': 'telling',
};
const partOf = (field: string) => PART_OF[field] ?? field;
const labelOf = (field: string) => ({ description: 'text', playlist: 'playlists' })[field] ?? field;
const fieldOf = (part: string) => ({ text: 'description', playlists: 'playlist', picture: 'thumbnail' })[part] ?? part;

/** @param chaptersInText whether the site has chapters as lines of the text, and no use for their times */
function partsFrom(old: OldGiven, chaptersInText: boolean): Parts {
  const { words = NO_WORDS, from, without } = old;
  const moved = from || without ? { moved: JSON.stringify({ from, without }) } : {};
  const lines = words.chapters ?? [];
  const chapters = chaptersInText
    ? { lines, times: [] }
    : { lines, times: words.chapterTimes ?? [], ...(words.duration && { duration: words.duration }) };
  const parts: Parts = {
    chapters,
    title: words.title ?? '',
    text: words.text ?? '',
    tags: words.tags ?? [],
    picture: old.pictureDigest ?? '',
    moment: old.moment ?? '',
    captions: (old.captions ?? []).map((track) => ({ ...track, ...moved })),
    playlists: old.playlists ?? [],
    privacy: { to: old.privacy, ...(old.passwordMark && { passwordMark: old.passwordMark }) },
  };
  for (const [group, fields] of Object.entries(GROUPS)) {
    const declared = Object.entries(words.declared ?? {}).filter(([field]) => fields.includes(field));
    if (declared.length > 0) parts[group] = Object.fromEntries(declared);
  }
  return parts;
}

function givenFrom(parts: Parts): OldGiven {
  const {
    lines = [],
    times = [],
    duration,
  } = (parts.chapters ?? {}) as {
    lines?: NonNullable<OldGiven['words']>['chapters'];
    times?: NonNullable<OldGiven['words']>['chapterTimes'];
    duration?: NonNullable<OldGiven['words']>['duration'];
  };
  const { to = 'private', passwordMark } = (parts.privacy ?? {}) as { to?: string; passwordMark?: string };
  const tracks = (parts.captions ?? []) as { id: string; language: string; moved?: string }[];
  const declared = Object.assign({}, ...Object.keys(GROUPS).map((group) => parts[group] ?? {}));
  return {
    words: {
      title: (parts.title as string) ?? '',
      text: (parts.text as string) ?? '',
      tags: (parts.tags as string[]) ?? [],
      chapters: lines,
      chapterTimes: times,
      duration,
      declared,
    },
    privacy: to,
    ...(passwordMark && { passwordMark }),
    playlists: (parts.playlists as string[]) ?? [],
    ...(parts.picture ? { pictureDigest: parts.picture as string } : {}),
    ...(parts.moment ? { moment: parts.moment as OldGiven['moment'] } : {}),
    captions: tracks.map(({ id, language }) => ({ id, language })),
    ...(tracks[0]?.moved ? JSON.parse(tracks[0].moved) : {}),
  };
}

/** Sites that have chapters as lines of the text. */
const IN_TEXT = ['lanternfold'];

const ROWS_AT_ONCE = 200;

/** Every drop with its site, some at a time. */
async function* dropsOf(db: Knex): AsyncGenerator<Record<string, string | number | null>[]> {
  for (let after = ''; ; ) {
    const rows = await db('drops')
      .join('channels', 'channels.id', 'drops.channelId')
      .join('accounts', 'accounts.id', 'channels.accountId')
      .select('drops.*', 'accounts.site')
      .where('drops.id', '>', after)
      .orderBy('drops.id')
      .limit(ROWS_AT_ONCE);
    if (rows.length === 0) return;
    yield rows;
    after = rows.at(-1).id;
  }
}

const parsed = <T>(text: unknown): T | undefined =>
  typeof text === 'string' ? ((JSON.parse(text) as T | null) ?? undefined) : undefined;

/**
 * What a site has of a video, part by part, in the place of one text of all: what it was asked to take, what it has confirmed,
 * and what it shows where that is something else.
 */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('dropParts', (table) => {
    id(table, 'dropId').notNullable();
    table.integer('round').unsigned().notNullable();
    table.string('part', 40).notNullable();
    table.specificType('given', 'MEDIUMTEXT');
    moment(table, 'givenAt');
    table.specificType('asked', 'MEDIUMTEXT');
    moment(table, 'askedAt');
    id(table, 'askedKey');
    table.specificType('shown', 'MEDIUMTEXT');
    moment(table, 'shownAt');
    table.string('differs', 10);
    table.text('failed');
    moment(table, 'failedAt');
    moment(table, 'retryAt');
    table.primary(['dropId', 'round', 'part']);
    table.index(['retryAt']);
    refer(table, 'dropId', 'drops', 'CASCADE');
  });
  await db.schema.createTable('givenParts', (table) => {
    table.bigIncrements('id');
    id(table, 'dropId').notNullable();
    table.string('part', 40).notNullable();
    id(table, 'askedKey').notNullable();
    moment(table, 'at').notNullable();
    table.specificType('value', 'MEDIUMTEXT').notNullable();
    table.index(['dropId', 'part', 'id']);
    refer(table, 'dropId', 'drops', 'CASCADE');
  });
  for await (const drops of dropsOf(db)) {
    for (const drop of drops) await takeOver(db, drop);
  }
  await db.schema.alterTable('drops', (table) => table.dropColumns('sentWords', 'shows'));
  await db.schema.dropTable('givenWords');
}

async function takeOver(db: Knex, drop: Record<string, string | number | null>): Promise<void> {
  const { id: dropId, updatedAt } = drop;
  const inText = IN_TEXT.includes(String(drop.site));
  const round = Number(drop.round);
  const now = parsed<OldGiven>(drop.sentWords);
  const rows = rowsOf(String(dropId), round, now && partsFrom(now, inText), updatedAt);
  // A field alone says what it showed; only texts are kept as they were, and all else is read once more.
  for (const { field, shown, left } of parsed<OldShown[]>(drop.shows) ?? []) {
    const value = field === 'title' || field === 'description' || field === 'video' ? shown : undefined;
    if (value === undefined) continue;
    const row = rows.find(({ part }) => part === partOf(field)) ?? none(String(dropId), round, partOf(field));
    if (!rows.includes(row)) rows.push(row);
    Object.assign(row, { shown: JSON.stringify(value), shownAt: updatedAt, differs: left ? 'left' : 'open' });
  }
  const former = parsed<{ sentWords?: string; round?: number }>(drop.former);
  if (former) {
    const before = Math.max(0, round - 1);
    const { sentWords, ...rest } = former;
    const given = parsed<OldGiven>(sentWords);
    if (before < round) rows.push(...rowsOf(String(dropId), before, given && partsFrom(given, inText), updatedAt));
    await db('drops')
      .where({ id: dropId })
      .update({ former: JSON.stringify({ ...rest, round: before }) });
  }
  const snag = parsed<{ fields?: string[]; differences?: { field: string }[] }>(drop.snag);
  if (snag?.fields || snag?.differences) {
    const { fields, differences, ...rest } = snag;
    const parts = fields?.map(partOf);
    const told = differences?.map((each) => ({ ...each, part: partOf(each.field), field: labelOf(each.field) }));
    await db('drops')
      .where({ id: dropId })
      .update({ snag: JSON.stringify({ ...rest, parts, differences: told }) });
  }
  if (rows.length > 0) await db('dropParts').insert(rows);
  await historyTakenOver(db, String(dropId), inText);
  for (const review of await db('reviews').where({ dropId }).whereNotNull('given').select('id', 'given')) {
    const given = parsed<OldGiven>(review.given);
    if (given?.words) {
      await db('reviews')
        .where({ id: review.id })
        .update({ given: JSON.stringify(partsFrom(given, inText)) });
    }
  }
}

const none = (dropId: string, round: number, part: string): Record<string, unknown> => ({
  ...{ dropId, round, part, given: null, givenAt: null, shown: null, shownAt: null, differs: null },
});

const rowsOf = (dropId: string, round: number, parts: Parts | undefined, at: unknown): Record<string, unknown>[] =>
  Object.entries(parts ?? {}).map(([part, value]) => ({
    ...none(dropId, round, part),
    given: JSON.stringify(value),
    givenAt: at,
  }));

/** Of each text that was given, the parts that were others than in the one before. */
async function historyTakenOver(db: Knex, dropId: string, inText: boolean): Promise<void> {
  let before: Parts = {};
  const rows: Record<string, unknown>[] = [];
  for (const { at, words } of await db('givenWords').where({ dropId }).orderBy('id').select('at', 'words')) {
    const parts = partsFrom(parsed<OldGiven>(words) as OldGiven, inText);
    const askedKey = (await db.select(db.raw('UUID() AS ??', ['key'])).first()).key;
    for (const [part, value] of Object.entries(parts)) {
      if (JSON.stringify(before[part]) === JSON.stringify(value)) continue;
      rows.push({ dropId, part, askedKey, at, value: JSON.stringify(value) });
    }
    before = parts;
  }
  if (rows.length > 0) await db('givenParts').insert(rows);
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('drops', (table) => {
    table.json('sentWords');
    table.json('shows');
  });
  await db.schema.createTable('givenWords', (table) => {
    table.bigIncrements('id');
    id(table, 'dropId').notNullable();
    moment(table, 'at').notNullable();
    table.specificType('words', 'MEDIUMTEXT').notNullable();
    table.index(['dropId', 'id']);
    refer(table, 'dropId', 'drops', 'CASCADE');
  });
  for await (const drops of dropsOf(db)) {
    for (const drop of drops) await giveBack(db, drop);
  }
  for (const name of ['givenParts', 'dropParts']) await db.schema.dropTable(name);
}

async function giveBack(db: Knex, drop: Record<string, string | number | null>): Promise<void> {
  const { id: dropId, round } = drop;
  const rows = await db('dropParts').where({ dropId });
  const givenIn = (of: unknown) => {
    const given = rows.filter((row) => row.round === of && row.given !== null);
    if (given.length === 0) return undefined;
    return JSON.stringify(givenFrom(Object.fromEntries(given.map((row) => [row.part, JSON.parse(row.given)]))));
  };
  const shows = rows
    .filter((row) => row.round === round && row.differs && ['title', 'text', 'video'].includes(row.part))
    .map((row) => ({
      field: fieldOf(row.part),
      meant: row.part === 'video' ? 'there' : JSON.parse(row.given ?? '""'),
      shown: JSON.parse(row.shown ?? '"nothing"') ?? 'nothing',
      ...(row.differs === 'left' && { left: true }),
    }));
  const former = parsed<{ round?: number }>(drop.former);
  await db('drops')
    .where({ id: dropId })
    .update({
      sentWords: givenIn(round) ?? null,
      shows: shows.length > 0 ? JSON.stringify(shows) : null,
      ...(former && { former: JSON.stringify({ ...former, round: undefined, sentWords: givenIn(former.round) }) }),
    });
  const snag = parsed<{ parts?: string[]; differences?: { part?: string; field: string }[] }>(drop.snag);
  if (snag?.parts || snag?.differences) {
    const { parts, differences, ...rest } = snag;
    const told = differences?.map(({ part: _, ...each }) => ({ ...each, field: fieldOf(each.field) }));
    await db('drops')
      .where({ id: dropId })
      .update({ snag: JSON.stringify({ ...rest, fields: parts?.map(fieldOf), differences: told }) });
  }
  let before: Parts = {};
  const history = await db('givenParts').where({ dropId }).orderBy('id').select('at', 'askedKey', 'part', 'value');
  for (const key of new Set(history.map(({ askedKey }) => askedKey))) {
    const now = history.filter(({ askedKey }) => askedKey === key);
    before = { ...before, ...Object.fromEntries(now.map(({ part, value }) => [part, JSON.parse(value)])) };
    await db('givenWords').insert({ dropId, at: now[0].at, words: JSON.stringify(givenFrom(before)) });
  }
  for (const review of await db('reviews').where({ dropId }).whereNotNull('given').select('id', 'given')) {
    await db('reviews')
      .where({ id: review.id })
      .update({ given: JSON.stringify(givenFrom(parsed<Parts>(review.given) ?? {})) });
  }
}
