import type { Finding, PreflightInput } from './finding';
import { reaches, startsAt0 } from './spans';

/** EBU R 128 (2023): programmes have at most −1 dBTP. */
const MOST_TRUE_PEAK = -1;
// Common practice, no source: what is spoken for screens lies between −24 and −14 LUFS.
const QUIET_LUFS = -28;
const LOUD_LUFS = -9;
// Common practice, no source.
const CLIPPED = 20;
const DEAD_DB = -60;
const ALIVE_DB = -45;
const TURNED_OVER = -0.5;

const db = (value: number) => value.toFixed(1).replace('-', '−');

/** What is wrong with the sound as a whole. */
export function soundFindings({ facts, measures }: PreflightInput): Finding[] {
  if (!facts.audio) {
    const why = 'Viewers take it for a fault, if it is none.';
    return [
      { rule: 'no sound', level: 'warns', what: 'The file has no sound', why, remedy: 'Export it with its sound' },
    ];
  }
  const sound = measures?.sound;
  if (!sound) return [];
  const [only] = sound.silent;
  if (only && startsAt0(only) && reaches(only, sound.end)) {
    const what = 'The sound is silent from start to end';
    const remedy = 'Look whether the right track was exported';
    return [{ rule: 'silent', level: 'warns', span: only, what, why: 'Nothing is heard.', remedy }];
  }
  const found: Finding[] = [];
  const add = (rule: string, level: Finding['level'], what: string, why: string, remedy: string) =>
    found.push({ rule, level, what, why, remedy });
  const loud = sound.integratedLufs;
  if (loud !== undefined && loud < QUIET_LUFS) {
    add(
      'too quiet',
      'warns',
      `The sound is quiet: ${db(loud)} LUFS`,
      'Beside other videos it is hard to hear.',
      'Raise the level in the edit',
    );
  }
  if (loud !== undefined && loud > LOUD_LUFS) {
    add(
      'too loud',
      'warns',
      `The sound is loud: ${db(loud)} LUFS`,
      'Sites turn it down, and it stays flat.',
      'Lower the level in the edit',
    );
  }
  if (sound.clippedSamples >= CLIPPED) {
    const count = sound.clippedSamples.toLocaleString('en');
    add(
      'clipped',
      'warns',
      `The sound is cut off at full level: ${count} samples`,
      'It is heard as crackling.',
      'Lower the level in the edit',
    );
  } else if (sound.truePeakDbtp > MOST_TRUE_PEAK) {
    const why = 'When a site encodes it again, it may crackle. EBU R 128 allows at most −1.';
    add(
      'true peak',
      'note',
      `The loudest peak reaches ${db(sound.truePeakDbtp)} dBTP`,
      why,
      'Lower the level a little',
    );
  }
  const [left, right] = sound.channels;
  if (left && right && sound.channels.length === 2) {
    const [low, high] = left.meanDb < right.meanDb ? [left, right] : [right, left];
    if (low.meanDb < DEAD_DB && high.meanDb > ALIVE_DB) {
      const side = low === left ? 'left' : 'right';
      const why = 'With headphones it is heard on one ear only.';
      add('one side', 'warns', `The ${side} side is silent`, why, 'Put the sound on both sides in the edit');
    } else if (sound.together !== undefined && sound.together < TURNED_OVER) {
      const why = 'On a phone, which plays both as one, little is left of the sound.';
      add('out of phase', 'warns', 'Left and right cancel each other out', why, 'Invert one side in the edit');
    }
  }
  return found;
}
