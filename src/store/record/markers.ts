import type { MarkerKind } from '@/core/chapters';
import type { ReadMarker } from '@/core/markers';
import type { Database } from '@/store/database';

/** A marker on a cut's time line. */
export interface Marker extends Omit<ReadMarker, 'hidden'> {
  id: string;
  kind: MarkerKind;
}

interface Row {
  id: string;
  videoId: string;
  timeNum: number;
  timeDen: number;
  lengthNum: number;
  lengthDen: number;
  name: string;
  note: string;
  colour: string;
  sat: Marker['on'];
  kind: MarkerKind;
}

/** A video's markers in order of time. */
export async function markersOf(db: Database, videoId: string): Promise<Marker[]> {
  return (await markersByVideo(db, [videoId])).get(videoId) ?? [];
}

/** The markers of the videos named, by video, in order of time. */
export async function markersByVideo(db: Database, videoIds: readonly string[]): Promise<Map<string, Marker[]>> {
  const rows: Row[] = await db('markers')
    .whereIn('videoId', [...videoIds])
    .orderByRaw('time_num / time_den, id');
  const byVideo = new Map<string, Marker[]>(videoIds.map((id) => [id, []]));
  for (const row of rows) byVideo.get(row.videoId)?.push(fromRow(row));
  return byVideo;
}

function fromRow(row: Row): Marker {
  return {
    id: row.id,
    time: { num: row.timeNum, den: row.timeDen },
    length: { num: row.lengthNum, den: row.lengthDen },
    name: row.name,
    note: row.note,
    colour: row.colour,
    on: row.sat,
    kind: row.kind,
  };
}

/** A change of a video's markers: those that are put, new or in the place of one with the same id, and those taken away. */
export interface MarkerChange {
  put: Marker[];
  remove: string[];
}

const ROWS_AT_ONCE = 500;

/** Makes a change of a video's markers. */
export async function applyMarkerChange(db: Database, videoId: string, { put, remove }: MarkerChange): Promise<void> {
  for (let at = 0; at < remove.length; at += ROWS_AT_ONCE) {
    await db('markers')
      .where({ videoId })
      .whereIn('id', remove.slice(at, at + ROWS_AT_ONCE))
      .delete();
  }
  const rows = put.map((marker) => ({
    id: marker.id,
    videoId,
    timeNum: marker.time.num,
    timeDen: marker.time.den,
    lengthNum: marker.length.num,
    lengthDen: marker.length.den,
    name: marker.name.slice(0, 1000),
    note: marker.note,
    colour: marker.colour.slice(0, 40),
    sat: marker.on,
    kind: marker.kind,
  }));
  for (let at = 0; at < rows.length; at += ROWS_AT_ONCE) {
    await db('markers')
      .insert(rows.slice(at, at + ROWS_AT_ONCE))
      .onConflict('id')
      .merge();
  }
  await db('videos').where({ id: videoId }).increment('markersVersion');
}
