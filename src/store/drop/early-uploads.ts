import { now } from '@/store/clock';
import { type Database, fromJson, toJson } from '@/store/database';
import type { DropFields } from '@/store/drop/rows';
import type { Drop } from '@/store/drop/shape';
import { newId } from '@/store/ids';
import { askForJobs, askForJobsAnew } from '@/store/queue/jobs';

/** A file that goes to a channel before its drop is sent, so that it is there when the words are. */
export interface EarlyUpload
  extends Pick<Drop, 'renditionId' | 'begunWith' | 'siteVideoId' | 'link' | 'carry' | 'bytesSent' | 'bytesTotal'> {
  id: string;
  /** Undefined once it is not wanted any more: what is at the site is then removed there. */
  dropId: string | undefined;
  videoId: string;
  channelId: string;
  cutId: string;
  /** What the site is asked to make room with: the same as the drop's own, so that nothing is there twice. */
  transferKey: string;
}

type Row = { [K in keyof EarlyUpload]: unknown } & { begunWith: string | null; carry: string | null };

const columns = [
  ...['id', 'dropId', 'videoId', 'channelId', 'cutId', 'transferKey', 'renditionId', 'begunWith', 'siteVideoId'],
  ...['link', 'carry', 'bytesSent', 'bytesTotal'],
];

const fromRow = (row: Row): EarlyUpload =>
  ({
    ...Object.fromEntries(Object.entries(row).map(([key, value]) => [key, value ?? undefined])),
    begunWith: fromJson<Drop['begunWith']>(row.begunWith),
    carry: fromJson<Record<string, string>>(row.carry),
    bytesSent: Number(row.bytesSent),
    bytesTotal: Number(row.bytesTotal),
  }) as EarlyUpload;

/** What of an early upload a drop goes on from. */
export function goneBefore(upload: EarlyUpload): DropFields {
  const { renditionId, begunWith, siteVideoId, link, carry, bytesSent, bytesTotal } = upload;
  return { renditionId, begunWith, siteVideoId, link, carry, bytesSent, bytesTotal };
}

/** Asks for the file of a drop to go up early; nothing happens where it does already. */
export async function makeEarlyUpload(
  trx: Database,
  about: Pick<EarlyUpload, 'videoId' | 'channelId' | 'cutId' | 'transferKey'> & { dropId: string },
): Promise<void> {
  const id = newId();
  await trx('earlyUploads')
    .insert({ id, ...about, createdAt: now(trx) })
    .onConflict('dropId')
    .ignore();
  const row: { id: string } | undefined = await trx('earlyUploads').where({ dropId: about.dropId }).first('id');
  if (row?.id === id) await askForJobs(trx, 'early', [id]);
}

export async function earlyUploadById(db: Database, id: string): Promise<EarlyUpload | undefined> {
  const row: Row | undefined = await db('earlyUploads').where({ id }).first(columns);
  return row && fromRow(row);
}

/** The early uploads of drops, by the drops' ids. @param lock whether nobody else may change them meanwhile */
export async function earlyUploadsOf(
  db: Database,
  dropIds: readonly string[],
  lock = false,
): Promise<Map<string, EarlyUpload>> {
  if (dropIds.length === 0) return new Map();
  const query = db('earlyUploads')
    .whereIn('dropId', [...dropIds])
    .select(columns);
  const rows: Row[] = await (lock ? query.forUpdate() : query);
  return new Map(rows.map((row) => [row.dropId as string, fromRow(row)]));
}

/** Keeps how far an early upload is. @returns false where it is not wanted any more, or its drop was sent meanwhile */
export async function keepEarlyUpload(
  db: Database,
  id: string,
  fields: Partial<ReturnType<typeof goneBefore>>,
): Promise<boolean> {
  const entries = Object.entries(fields).map(([key, value]) => {
    const json = key === 'begunWith' || key === 'carry';
    return [key, json ? toJson(value) : (value ?? null)];
  });
  return (await db('earlyUploads').where({ id }).whereNotNull('dropId').update(Object.fromEntries(entries))) > 0;
}

/** Gives up early uploads of drops; a job removes what is at their sites. */
export async function giveUpEarlyUploads(trx: Database, by: { dropId: string } | { videoId: string }): Promise<void> {
  const rows: { id: string }[] = await trx('earlyUploads').where(by).whereNotNull('dropId').select('id').forUpdate();
  const ids = rows.map(({ id }) => id);
  await trx('earlyUploads').whereIn('id', ids).update({ dropId: null });
  await askForJobsAnew(trx, 'early', ids);
}

export async function deleteEarlyUpload(db: Database, id: string): Promise<void> {
  await db('earlyUploads').where({ id }).delete();
}
