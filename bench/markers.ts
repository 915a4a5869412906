import { MARKER_WRITERS, marker, readMarkerFile, type WrittenFormat } from '@/core/markers';
import { rate, timeOfFrame } from '@/core/time';
import { fastest } from './fastest';
import { rounded, SHORT, say } from './say';

const COUNT = SHORT ? 200 : 10_000;

const at = rate(30000, 1001);
const markers = Array.from({ length: COUNT }, (_, index) =>
  marker({ time: timeOfFrame(index * 30, at), name: `Marker ${index}, with a name of some length`, colour: 'green' }),
);

const json = JSON.stringify(markers);
const baseline = await fastest(() => JSON.parse(json), 5);
for (const format of Object.keys(MARKER_WRITERS) as WrittenFormat[]) {
  const bytes = new TextEncoder().encode(MARKER_WRITERS[format]({ rate: at, startFrame: 0, markers }));
  const read = await fastest(() => readMarkerFile(bytes, { rate: at }), 5);
  say({
    measure: `read ${COUNT} markers`,
    format,
    milliseconds: rounded(read, 1),
    timesJsonParse: rounded(read / baseline, 1),
  });
}
