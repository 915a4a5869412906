import {
  type CutFacts,
  type CutMeasures,
  codecName,
  containerName,
  reasonsNotTaken,
  type SiteRules,
} from '../delivery';
import { compare, floor, minus, toNumber, ZERO } from '../time';
import { LINES_DOWN, linesOf, type Size, shownSize, sizeFor, withLines } from './frame-size';
import { goodKilobits, kilobitsBelow, leastKilobits } from './rates';
import {
  type PictureRecipe,
  pictureBits,
  type Recipe,
  type RecipeControl,
  type SoundRecipe,
  type Work,
} from './recipe';
import { partOf, type Remedies } from './remedies';
import { bitsName } from './said';
import {
  CONTAINERS,
  type Container,
  type EncodeSettings,
  type FileSet,
  HOLDS,
  PICTURE_CODECS,
  type PictureCodec,
  type SoundCodec,
} from './settings';

/** A cut as plans need it. */
export interface CutToSend {
  facts: CutFacts;
  /** Undefined until it is measured. */
  measures: CutMeasures | undefined;
}

/** What one channel asks of a file. */
export interface Asked {
  site: Pick<SiteRules, 'name' | 'file'>;
  /** The settings in force there; undefined keeps the cut as it is wherever that can be. */
  set: FileSet | undefined;
  remedies: Remedies;
}

/** The files that would serve a channel, the best first, with the work that they take and why. */
export interface Demand {
  work: Work;
  /** undefined: the cut as it is. */
  recipes: readonly (Recipe | undefined)[];
  why: string[];
}

/** Why no file can be made that serves a channel, and what comes nearest. */
export interface Refusal {
  refused: string;
  nearest: string;
}

/** By how much loudness may miss its target before the sound is encoded again, in LU (EBU R 128 allows 0.5 and 1 live). */
const NEAR_LOUDNESS = 0.5;
/** A rate that is so little higher than asked for is left. */
const NEAR_RATE = 1.25;
const GOOD_QUALITY_SOUND = 192;
const FRAMES_NAMES = { h264: 'H.264', hevc: 'H.265', vp9: 'VP9' } as const;

/** What files serve a channel, or why none can. */
export function demandOf(cut: CutToSend, asked: Asked): Demand | Refusal {
  const { facts } = cut;
  const { site, remedies } = asked;
  const { from, to } = partOf(remedies, facts);
  const seconds = minus(to, from);
  if (compare(seconds, ZERO) <= 0) {
    return { refused: 'Nothing is left of the video', nearest: 'Leave off less at its start or end' };
  }
  if (site.file.longest !== undefined && floor(seconds) > site.file.longest) {
    const what = `The video lasts ${floor(seconds)} s; ${site.name} takes ${site.file.longest} s`;
    return { refused: what, nearest: `Cut it to ${site.file.longest} s, or untick ${site.name}` };
  }
  const picture = pictureOf(cut, asked, toNumber(seconds));
  if ('refused' in picture) return picture;
  const sound = soundOf(cut, asked);
  const containers = containersOf(asked);
  const trimmed = remedies.from !== undefined || remedies.to !== undefined;
  const part = { from: remedies.from, to: remedies.to, sphere: remedies.sphere };
  const moved = [
    ...(trimmed ? ['the start or the end is left off'] : []),
    ...(remedies.indexFirst && facts.more?.indexFirst === false ? ['the index goes first'] : []),
    ...(remedies.sphere ? ['the metadata of a 360° video is added'] : []),
  ];
  const other = containerReasons(facts, asked, containers);
  const copies = picture.why.length === 0 && sound.why.length === 0;
  if (copies && other.length === 0 && moved.length === 0) {
    const kept = asked.set ? `the file is already what “${asked.set.name}” asks for` : `${site.name} takes it as it is`;
    return { work: 'as it is', recipes: [undefined], why: [kept] };
  }
  const recipes = containers.flatMap((container): Recipe[] => {
    const holds = HOLDS[container];
    const pictures = picture.why.length > 0 ? picture.choices : (['copy'] as const);
    return pictures.flatMap((each): Recipe[] => {
      if (!holds.picture.includes(each === 'copy' ? facts.video.codec : each.codec)) return [];
      if (!facts.audio) return [{ container, picture: each, sound: 'none', ...part }];
      const copied = sound.why.length === 0 && holds.sound.includes(facts.audio.codec);
      const codec = sound.codecs.find((name) => holds.sound.includes(name));
      if (!copied && !codec) return [];
      const heard = copied ? ('copy' as const) : { ...sound.recipe, codec: codec as SoundCodec };
      return [{ container, picture: each, sound: heard, ...part }];
    });
  });
  if (recipes.length === 0) {
    const taken = site.file.containers.map(containerName).join(', ');
    return {
      refused: `No file can be made that ${site.name} takes (${taken})`,
      nearest: 'Export it as MP4 with H.264',
    };
  }
  // Where nothing has to be encoded, a container that needs the sound anew is no better than one that does not. Where
  // something has, a file that more sites can share is worth more than a copied sound.
  const untouched = recipes.filter(({ sound: heard }) => typeof heard !== 'object');
  const copiesOnly = picture.why.length === 0 && sound.why.length === 0 && untouched.length > 0;
  const chosen = copiesOnly ? untouched : recipes;
  const anew = chosen.every(({ sound: heard }) => typeof heard === 'object');
  const work: Work = picture.why.length > 0 ? 'encode' : anew ? 'sound' : 'container';
  const soundWhy =
    anew && sound.why.length === 0
      ? [`${containerName(chosen[0]?.container ?? '')} cannot hold ${codecName(facts.audio?.codec ?? '')}`]
      : [];
  return { work, recipes: chosen, why: [...picture.why, ...sound.why, ...soundWhy, ...other, ...moved] };
}

/** Only these hold the box that says that a picture is a sphere. */
const SPHERE_CONTAINERS: readonly Container[] = ['mp4', 'mov'];

function containersOf({ site, set, remedies }: Asked): Container[] {
  const written = remedies.sphere ? SPHERE_CONTAINERS : CONTAINERS;
  const taken = written.filter((container) => site.file.containers.includes(container));
  const wanted = set?.settings.container;
  return wanted && taken.includes(wanted) ? [wanted] : taken;
}

function containerReasons({ container }: CutFacts, { site, set }: Asked, containers: readonly Container[]): string[] {
  if ((containers as readonly string[]).includes(container)) return [];
  if (!site.file.containers.includes(container)) {
    return [`${site.name} does not take ${containerName(container)}`];
  }
  return [`“${set?.name}” asks for ${containerName(containers[0] ?? '')}`];
}

/** Why the picture has to be encoded, and as what; without a reason it is copied. */
function pictureOf(
  cut: CutToSend,
  asked: Asked,
  seconds: number,
): { why: string[]; choices: PictureRecipe[] } | Refusal {
  const { facts } = cut;
  const { site, set, remedies } = asked;
  const own = shownSize(facts.video);
  const size = set?.settings.size ?? { way: 'keep' };
  if (size.way === 'exactly' && size.lines > linesOf(own)) {
    const refused = `“${set?.name}” asks for ${size.lines} lines; the file has ${linesOf(own)}`;
    return { refused, nearest: `Ask for at most ${linesOf(own)}` };
  }
  const codecs = codecsOf(site, set?.settings, facts);
  const asks = set ? settingsReasons(cut, set, own) : [];
  const instead =
    set && !codecs.includes(set.settings.codec)
      ? [`${site.name} does not take ${FRAMES_NAMES[set.settings.codec]}`]
      : [];
  const refuses = reasonsNotTaken({ ...facts, container: site.file.containers[0] ?? '', duration: ZERO }, site);
  // What is made by a set is what the site takes; why the file itself is not taken does not matter then.
  const why = [
    ...(asks.length > 0 ? [...asks, ...instead] : refuses),
    ...(remedies.from ? ['the start is left off to the frame'] : []),
  ];
  if (why.length === 0) return { why, choices: [] };
  if (codecs.length === 0) {
    const taken = site.file.videoCodecs.map(codecName).join(', ');
    return { refused: `${site.name} takes ${taken} only`, nearest: 'Choose other file settings for this channel' };
  }
  const wanted = sizeFor(own, size, site.file.mostPixels);
  // What varies is made even: sound and picture drift apart otherwise.
  const oneRate = set?.settings.rate ?? (cut.measures?.picture?.varies ? facts.video.rate : undefined);
  const rate = toNumber(oneRate ?? facts.video.rate);
  const soundKilobits = facts.audio ? (set?.settings.sound.kilobits ?? GOOD_QUALITY_SOUND) : 0;
  const room = kilobitsBelow(site.file.largest, seconds, soundKilobits);
  const made = codecs.map((codec): PictureRecipe | undefined => {
    const sizes = size.way === 'exactly' ? [wanted] : [wanted, ...smaller(wanted)];
    const fits = sizes.find((each) => room >= leastKilobits(each.width, each.height, rate, codec));
    if (!fits) return undefined;
    return {
      codec,
      ...fits,
      ...(oneRate ? { rate: oneRate } : {}),
      control: controlFor(set?.settings, fits, rate, codec, room, facts, site.file.largest),
      ...(facts.video.more?.interlaced ? { deinterlace: true as const } : {}),
      ...(facts.video.more?.hdr ? { standardRange: true as const } : {}),
    };
  });
  const choices = made.flatMap((each) => each ?? []);
  if (choices.length > 0) return { why, choices };
  const least = size.way === 'exactly' ? wanted : withLines(own, Math.min(linesOf(own), LINES_DOWN.at(-1) ?? 480));
  const codec = codecs[0] as PictureCodec;
  const lowest = leastKilobits(least.width, least.height, rate, codec) + soundKilobits;
  const longest = Math.floor((site.file.largest * 8 * 0.96) / 1000 / lowest);
  const refused = `It would look bad: ${bitsName(Math.max(0, room))} is all that ${site.name}’s limit leaves for ${Math.round(seconds)} s`;
  return { refused, nearest: `It can have up to ${longest} s there` };
}

const smaller = (size: Size) =>
  LINES_DOWN.filter((lines) => lines < linesOf(size)).map((lines) => withLines(size, lines));

function codecsOf(site: Asked['site'], settings: EncodeSettings | undefined, facts: CutFacts): PictureCodec[] {
  const taken = PICTURE_CODECS.filter((codec) => site.file.videoCodecs.includes(codec));
  if (settings) return taken.includes(settings.codec) ? [settings.codec] : taken.slice(0, 1);
  // What is taken everywhere first (common practice, no source), then what the file has.
  return [...taken]
    .sort((a, b) => Number(b === facts.video.codec) - Number(a === facts.video.codec))
    .sort((a, b) => Number(b === 'h264') - Number(a === 'h264'));
}

/** In what a file is not what a set asks for. */
function settingsReasons({ facts, measures }: CutToSend, { name, settings }: FileSet, own: Size): string[] {
  const { codec, size, rate, control } = settings;
  const { video } = facts;
  const why: string[] = [];
  if (video.codec !== codec) why.push(`“${name}” asks for ${FRAMES_NAMES[codec]}`);
  const over = size.way !== 'keep' && linesOf(own) > size.lines;
  if (over) why.push(`“${name}” asks for ${size.way} ${size.lines} lines`);
  if (rate && compare(rate, video.rate) !== 0) why.push(`“${name}” asks for another frame rate`);
  if (video.more?.interlaced) why.push('the picture is interlaced');
  if (measures?.picture?.varies) why.push('its frame rate varies');
  const most =
    control.way === 'variable'
      ? control.ceiling
      : goodKilobits(own.width, own.height, toNumber(video.rate), codec) * 1.25;
  const has = pictureBits(facts) / 1000;
  if (!over && has > most * 1.05) {
    why.push(`“${name}” asks for at most ${bitsName(most)}; the file has ${bitsName(has)}`);
  }
  return why;
}

function controlFor(
  settings: EncodeSettings | undefined,
  { width, height }: Size,
  rate: number,
  codec: PictureCodec,
  room: number,
  facts: CutFacts,
  largest: number,
): RecipeControl {
  const good = goodKilobits(width, height, rate, codec);
  const control = settings?.control ?? { way: 'by size' };
  const below = (kilobits: number, ceiling: number): RecipeControl =>
    kilobits <= room * 0.9
      ? { way: 'variable', kilobits, ceiling: Math.max(kilobits, Math.min(ceiling, room * 4)), passes: 1 }
      : {
          way: 'variable',
          kilobits: Math.min(kilobits, room),
          ceiling: Math.round(Math.min(kilobits, room) * 1.5),
          passes: 2,
          within: largest,
        };
  if (control.way === 'variable') return below(control.kilobits, control.ceiling);
  if (control.way === 'quality') {
    return good * 2 <= room
      ? { way: 'quality', quality: control.quality, ceiling: Math.round(good * 2) }
      : below(Math.min(good, room), good * 2);
  }
  // More bits than the file itself has make it larger and no better; another codec may need a third more of them.
  const has = Math.ceil((pictureBits(facts) / 1000) * 1.35);
  const kilobits = has > 0 ? Math.min(good, Math.max(has, leastKilobits(width, height, rate, codec))) : good;
  return below(kilobits, Math.round(kilobits * 1.5));
}

/** Why the sound has to be encoded, and as what. */
function soundOf(
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
