import { type CutMeasures, SILENCE, type SoundMeasures } from '@/core/delivery';
import { compare, type Fraction, fraction, minus, plus, toNumber, ZERO } from '@/core/time';
import { spansTold } from './spans';
import { numberIn, type ToldFrame } from './told';

/** Steps that a ruler can show: finer ones would only cost memory. */
const MOST_STEPS = 4000;
/** EBU R 128 gives momentary loudness ten times a second. */
const LOUDNESS_MILLISECONDS = 100;
/** Pauses of speech are shorter: common practice, no source. */
const LEAST_SILENT = fraction(1);
const SILENT_DB = -60;
/** A sample this near full scale is clipped: the highest of 16 bits lies 0.0003 dB below it. */
const CLIPPED_DB = -0.01;

/** Filters that listen to the sound, one after the other, and tell of each tenth of a second. @param pipe where to */
export const soundFilters = (channels: number, pipe: string): string =>
  [
    'ebur128=metadata=1:peak=true',
    ...(channels === 2 ? ['aphasemeter=video=0'] : []),
    'astats=metadata=1:measure_perchannel=Peak_level+RMS_level+Peak_count:measure_overall=Number_of_samples',
    `silencedetect=n=${SILENT_DB}dB:d=${toNumber(LEAST_SILENT)}`,
    `ametadata=print:file=${pipe}`,
  ].join(',');

/** What is heard of the sound. @param sound its channels, and its samples a second */
export function soundMeter({
  channels,
  sampleRate,
  seconds,
}: {
  channels: number;
  sampleRate: number;
  seconds: number;
}) {
  const onSample = (time: Fraction) => fraction(Math.round(toNumber(time) * sampleRate), sampleRate);
  const silent = spansTold({ from: 'lavfi.silence_start', to: 'lavfi.silence_end' }, LEAST_SILENT, onSample);
  const perStep = Math.max(1, Math.ceil((seconds * 1000) / LOUDNESS_MILLISECONDS / MOST_STEPS));
  const tenths: number[] = [];
  let counted = 0;
  let first: Fraction | undefined;
  let together = { sum: 0, weight: 0 };
  const last = new Map<string, number>();
  const keep = (frame: ToldFrame, key: string) => {
    const value = numberIn(frame, key);
    if (value !== undefined) last.set(key, value);
  };
  return {
    hear(frame: ToldFrame) {
      first ??= frame.at;
      silent.hear(frame);
      const momentary = numberIn(frame, 'lavfi.r128.M');
      if (momentary !== undefined) {
        const at = Math.floor(counted / perStep);
        counted += 1;
        tenths[at] = Math.max(tenths[at] ?? SILENCE * 10, Math.round(Math.max(SILENCE, momentary) * 10));
        // What is not heard says nothing of how the channels go together.
        const phase = numberIn(frame, 'lavfi.aphasemeter.phase');
        if (phase !== undefined && momentary > -50) {
          together = { sum: together.sum + phase, weight: together.weight + 1 };
        }
      }
      for (const key of ['lavfi.r128.I', 'lavfi.r128.LRA', 'lavfi.astats.Overall.Number_of_samples']) keep(frame, key);
      for (let channel = 0; channel < channels; channel += 1) {
        keep(frame, `lavfi.r128.true_peaks_ch${channel}`);
        for (const what of ['Peak_level', 'RMS_level', 'Peak_count'])
          keep(frame, `lavfi.astats.${channel + 1}.${what}`);
      }
    },
    /** What was found. @param start when the cut begins, in the time of the container */
    end(start: Fraction): { loudness: CutMeasures['loudness']; sound: SoundMeasures } {
      const fromStart = (time: Fraction) => (compare(time, start) < 0 ? ZERO : minus(time, start));
      const samples = last.get('lavfi.astats.Overall.Number_of_samples') ?? 0;
      const end = plus(onSample(first ?? fraction(0)), fraction(Math.round(samples), sampleRate));
      const all = Array.from({ length: channels }, (_, channel) => ({
        meanDb: last.get(`lavfi.astats.${channel + 1}.RMS_level`) ?? -120,
        peakDb: last.get(`lavfi.astats.${channel + 1}.Peak_level`) ?? -120,
        highest: last.get(`lavfi.astats.${channel + 1}.Peak_count`) ?? 0,
        truePeak: last.get(`lavfi.r128.true_peaks_ch${channel}`) ?? 0,
      }));
      const integrated = last.get('lavfi.r128.I');
      return {
        loudness: { step: perStep * LOUDNESS_MILLISECONDS, tenths },
        sound: {
          end: fromStart(end),
          integratedLufs: integrated === undefined || integrated <= SILENCE ? undefined : tenth(integrated),
          rangeLu: tenth(last.get('lavfi.r128.LRA') ?? 0),
          truePeakDbtp: tenth(20 * Math.log10(Math.max(1e-6, ...all.map(({ truePeak }) => truePeak)))),
          channels: all.map(({ meanDb, peakDb }) => ({ meanDb: tenth(meanDb), peakDb: tenth(peakDb) })),
          clippedSamples: all.reduce((sum, { peakDb, highest }) => sum + (peakDb >= CLIPPED_DB ? highest : 0), 0),
          together: together.weight === 0 ? undefined : Math.round((together.sum / together.weight) * 100) / 100,
          silent: silent.upTo(end).map(({ from, to }) => ({ from: fromStart(from), to: fromStart(to) })),
        },
      };
    },
  };
}

const tenth = (value: number) => Math.round(value * 10) / 10;
