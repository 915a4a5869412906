import { codecName } from '../delivery';
import type { Asked, CutToSend } from './asked';
import type { SoundRecipe } from './recipe';
import type { SoundCodec } from './settings';

/** By how much loudness may miss its target before the sound is encoded again, in LU (EBU R 128 allows 0.5 and 1 live). */
const NEAR_LOUDNESS = 0.5;
/** A rate that is so little higher than asked for is left. */
const NEAR_RATE = 1.25;
/** Kilobits a second, where nobody asks for others. */
export const GOOD_QUALITY_SOUND = 192;

/** Why the sound has to be encoded, and as what, the preferred codec first; without a reason it is copied where it can be. */
export function soundOf(
  { facts, measures }: CutToSend,
  { set, remedies, site }: Asked,
): { why: string[]; codecs: SoundCodec[]; recipe: Omit<SoundRecipe, 'codec'> } {
  const settings = set?.settings.sound;
  const { audio } = facts;
  const target = remedies.loudness ?? settings?.loudness ?? undefined;
  const is = measures?.sound?.integratedLufs;
  const off = target !== undefined && (is === undefined || Math.abs(is - target) > NEAR_LOUDNESS);
  // What cannot be measured is silent, and no gain makes it loud.
  const silent = measures !== undefined && is === undefined;
  const why: string[] = [];
  if (audio && off && !silent) {
    why.push(`the sound goes ${is === undefined ? '' : `from ${words(is)} `}to ${words(target)} LUFS`);
  }
  if (audio && settings && audio.codec !== settings.codec) {
    why.push(`“${set?.name}” asks for ${codecName(settings.codec)}`);
  } else if (audio && settings && (audio.bitRate ?? 0) > settings.kilobits * 1000 * NEAR_RATE) {
    why.push(`“${set?.name}” asks for sound of ${settings.kilobits} kbit/s`);
  }
  if (audio && remedies.silence?.length) why.push('the sound is off over a part');
  if (audio && remedies.swaps?.length) why.push('other sound is heard over a part');
  if (audio && remedies.without?.length) why.push('a part is left out');
  const rate = settings?.sampleRate;
  if (audio && rate && audio.sampleRate > rate) why.push(`“${set?.name}” asks for ${rate / 1000} kHz`);
  const first: SoundCodec = settings?.codec ?? (site.file.containers.includes('mp4') ? 'aac' : 'opus');
  const codecs: SoundCodec[] = first === 'aac' ? ['aac', 'opus'] : ['opus', 'aac'];
  const known = audio?.sampleRate === 44_100 ? 44_100 : 48_000;
  return {
    why,
    codecs,
    recipe: {
      kilobits: settings?.kilobits ?? GOOD_QUALITY_SOUND,
      sampleRate: rate ?? known,
      ...(target !== undefined && off && !silent ? { loudness: target } : {}),
    },
  };
}

const words = (lufs: number) => lufs.toFixed(1).replace('-', '−').replace('.0', '');
