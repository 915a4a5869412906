import { MARKER_WRITERS, marker, readMarkerFile, type WrittenFormat } from '@/core/markers';
import { rate, timeOfFrame } from '@/core/time';

const COUNT = 10_000;
const ROUNDS = 5;

const at = rate(30000, 1001);
const markers = Array.from({ length: COUNT }, (_, index) =>
  marker({ time: timeOfFrame(index * 30, at), name: `Marker ${index}, with a name of some length`, colour: 'green' }),
);

/** Milliseconds of the fastest of a few rounds. */
function fastest(work: () => unknown): number {
  const times = Array.from({ length: ROUNDS }, () => {
    const start = process.hrtime.bigint();
    work();
    return Number(process.hrtime.bigint() - start) / 1e6;
  });
  return Math.min(...times);
}

const json = JSON.stringify(markers);
const baseline = fastest(() => JSON.parse(json));
for (const format of Object.keys(MARKER_WRITERS) as WrittenFormat[]) {
  const bytes = new TextEncoder().encode(MARKER_WRITERS[format]({ rate: at, startFrame: 0, markers }));
  const read = fastest(() => readMarkerFile(bytes, { rate: at }));
  const line = {
    measure: `read ${COUNT} markers`,
    format,
    milliseconds: Math.round(read),
    timesJsonParse: Number((read / baseline).toFixed(1)),
  };
  process.stdout.write(`${JSON.stringify(line)}\n`);
}
