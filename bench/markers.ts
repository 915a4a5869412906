import { MARKER_WRITERS, marker, readMarkerFile, type WrittenFormat } from '@/core/markers';
import { rate, timeOfFrame } from '@/core/time';
import { fastest } from './fastest';

/** A short form, for the tests: few markers. */
const COUNT = process.env.BENCH_SHORT === '1' ? 200 : 10_000;

const at = rate(30000, 1001);
const markers = Array.from({ length: COUNT }, (_, index) =>
  marker({ time: timeOfFrame(index * 30, at), name: `Marker ${index}, with a name of some length`, colour: 'green' }),
);

const json = JSON.stringify(markers);
const baseline = await fastest(() => JSON.parse(json));
for (const format of Object.keys(MARKER_WRITERS) as WrittenFormat[]) {
  const bytes = new TextEncoder().encode(MARKER_WRITERS[format]({ rate: at, startFrame: 0, markers }));
  const read = await fastest(() => readMarkerFile(bytes, { rate: at }));
  const line = {
    measure: `read ${COUNT} markers`,
    format,
    milliseconds: Math.round(read),
    timesJsonParse: Number((read / baseline).toFixed(1)),
  };
  process.stdout.write(`${JSON.stringify(line)}\n`);
}
