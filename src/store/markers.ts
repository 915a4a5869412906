import type { ReadMarker } from '@/core/markers';
import type { Database } from './database';
import { newId } from './ids';

/** A marker on a cut's time line. */
export interface Marker extends ReadMarker {
  id: string;
}

interface Row {
  id: string;
  timeNum: number;
  timeDen: number;
  lengthNum: number;
  lengthDen: number;
  name: string;
  note: string;
  colour: string;
  sat: Marker['on'];
  hidden: number;
}

/** A video's markers in order of time. */
export async function markersOf(db: Database, videoId: string): Promise<Marker[]> {
  const rows: Row[] = await db('markers').where({ videoId }).orderByRaw('time_num / time_den, id');
  return rows.map((row) => ({
    id: row.id,
    time: { num: row.timeNum, den: row.timeDen },
    length: { num: row.lengthNum, den: row.lengthDen },
    name: row.name,
    note: row.note,
    colour: row.colour,
    on: row.sat,
    hidden: row.hidden === 1,
  }));
}

/** Puts markers in the place of all that a video had. Markers that bring an id keep it. */
export async function replaceMarkers(
  db: Database,
  videoId: string,
  markers: readonly (ReadMarker & { id?: string })[],
): Promise<void> {
  await db('markers').where({ videoId }).delete();
  const rows = markers.map((marker) => ({
    id: marker.id ?? newId(),
    videoId,
    timeNum: marker.time.num,
    timeDen: marker.time.den,
    lengthNum: marker.length.num,
    lengthDen: marker.length.den,
    name: marker.name.slice(0, 1000),
    note: marker.note,
    colour: marker.colour.slice(0, 40),
    sat: marker.on,
    hidden: marker.hidden,
  }));
  await db.batchInsert('markers', rows, 500);
}
