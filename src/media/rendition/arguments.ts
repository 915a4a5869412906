import type { CutFacts } from '@/core/delivery';
import {
  carriesAllSounds,
  lengthOfRecipe,
  type PictureRecipe,
  type Recipe,
  type RecipeControl,
  type SoundRecipe,
} from '@/core/renditions';
import { type Fraction, toDecimal, toNumber } from '@/core/time';
import { FROM_OUTSIDE } from '../program';
import { frameFilters } from './frame-filter';
import type { HardwareEncoder } from './hardware';
import { pictureGraph, soundGraph } from './part-graphs';

/** Formats by ffmpeg's names of their writers. */
const WRITERS: Record<Recipe['container'], string> = { mp4: 'mp4', mov: 'mov', mkv: 'matroska', webm: 'webm' };
const ENCODERS = { h264: 'libx264', hevc: 'libx265', vp9: 'libvpx-vp9' } as const;
/** A player can begin at a whole picture; one every two seconds is common practice, no source. */
const WHOLE_PICTURE_SECONDS = 2;

/** One run of ffmpeg, of one pass or of the last. */
export interface Run {
  facts: CutFacts;
  recipe: Recipe;
  from: string;
  to: string;
  /** Of two passes: which, and where what the first has learned is kept. */
  pass?: { number: 1 | 2; log: string };
  /** What encodes the picture in place of a program. */
  hardware?: HardwareEncoder;
  /** Filters of the sound, as those that bring it to a loudness. */
  soundFilters?: string[];
  /** Paths of the sounds that take over parts of its own, by their ids. */
  sounds?: ReadonlyMap<string, string>;
}

/** What ffmpeg is asked to do, word by word. */
export function renditionArguments(run: Run): string[] {
  const { facts, recipe, from, to, pass, hardware, soundFilters = [], sounds = new Map() } = run;
  const { container, picture, sound } = recipe;
  const first = pass?.number === 1;
  const filters = picture === 'copy' ? '' : allFilters(picture, facts, recipe, hardware);
  const seenGraph = picture === 'copy' ? undefined : pictureGraph(recipe, facts, filters);
  const heardGraph = typeof sound !== 'object' || first ? undefined : soundGraph(recipe, facts, sounds, soundFilters);
  const graphs = [seenGraph, heardGraph].flatMap((graph) => graph ?? []);
  const input = [
    ...(hardware?.before ?? []),
    ...FROM_OUTSIDE,
    ...beginning(recipe),
    '-i',
    from,
    ...graphs.flatMap(({ inputs }) => inputs),
    ...length(recipe, facts),
    ...(graphs.length > 0 ? ['-filter_complex', graphs.map((graph) => graph.filters).join(';')] : []),
  ];
  const seen =
    picture === 'copy'
      ? ['-c:v', 'copy', ...tag(container, facts.video.codec)]
      : [...(seenGraph ? [] : ['-vf', filters]), ...encoding(picture, facts, recipe, { pass, hardware })];
  const heard =
    sound === 'none' || first
      ? ['-an']
      : sound === 'copy'
        ? ['-c:a', 'copy']
        : soundEncoding(sound, heardGraph ? [] : soundFilters);
  return [
    ...['-v', 'error', '-nostdin', '-y', '-progress', 'pipe:1', '-stats_period', '0.5', ...input],
    ...[
      '-map',
      seenGraph ? `[${seenGraph.out}]` : '0:v:0',
      ...(first
        ? []
        : ['-map', heardGraph ? `[${heardGraph.out}]` : carriesAllSounds(recipe, facts) ? '0:a?' : '0:a:0?']),
      '-dn',
      '-sn',
      '-map_metadata',
      '0',
    ],
    ...seen,
    ...heard,
    // What says that the picture is a sphere is written only where that is asked for (ffmpeg-formats, mov muxer).
    ...['-strict', 'unofficial', '-max_muxing_queue_size', '4096'],
    ...(first ? ['-f', 'null', '-'] : [...indexFirst(container), '-f', WRITERS[container], to]),
  ];
}

/** An index that stands first lets a player begin at once; only these have one that could stand elsewhere. */
const indexFirst = (container: Recipe['container']) =>
  container === 'mp4' || container === 'mov' ? ['-movflags', '+faststart'] : [];

/** Rounded down, so that the frame at the moment itself is in (ffmpeg-utils, time duration: microseconds). */
const beginning = ({ from }: Recipe) => (from ? ['-ss', toDecimal(from, 6)] : []);

const length = (recipe: Recipe, facts: CutFacts) =>
  recipe.from || recipe.to || recipe.without ? ['-t', toDecimal(lengthOfRecipe(recipe, facts), 6)] : [];

/** Players of one maker take H.265 by this name of it only. */
const tag = (container: Recipe['container'], codec: string) =>
  codec === 'hevc' && (container === 'mp4' || container === 'mov') ? ['-tag:v', 'hvc1'] : [];

/** Everything that is done to the picture, in order. */
function allFilters(picture: PictureRecipe, facts: CutFacts, { from }: Recipe, hardware: Run['hardware']): string {
  const exact = picture.rate ?? facts.video.rate;
  return [...pictureFilters(picture, from, exact), ...(hardware?.filters ?? [])].join(',');
}

function encoding(
  picture: PictureRecipe,
  facts: CutFacts,
  { container }: Recipe,
  { pass, hardware }: Pick<Run, 'pass' | 'hardware'>,
): string[] {
  const rate = toNumber(picture.rate ?? facts.video.rate);
  return [
    ...['-c:v', hardware?.name ?? ENCODERS[picture.codec]],
    ...(hardware
      ? []
      : picture.codec === 'vp9'
        ? ['-row-mt', '1', '-cpu-used', '3', '-deadline', 'good']
        : ['-preset', 'medium']),
    ...['-g', String(Math.max(1, Math.round(rate * WHOLE_PICTURE_SECONDS)))],
    ...bits(picture.codec, picture.control),
    ...(pass ? passing(picture.codec, pass) : []),
    ...tag(container, picture.codec),
    ...(picture.codec === 'hevc' && !pass && !hardware ? ['-x265-params', 'log-level=error'] : []),
  ];
}

function bits(codec: PictureRecipe['codec'], control: RecipeControl): string[] {
  const most = ['-maxrate', `${control.ceiling}k`, '-bufsize', `${control.ceiling * 2}k`];
  if (control.way === 'variable') return ['-b:v', `${control.kilobits}k`, ...most];
  // libvpx takes a quality with a target of 0 only, and counts it otherwise: some 11 more look alike (from memory).
  if (codec === 'vp9') return ['-crf', String(Math.min(63, control.quality + 11)), '-b:v', '0'];
  return ['-crf', String(codec === 'hevc' ? control.quality + 4 : control.quality), ...most];
}

function passing(codec: PictureRecipe['codec'], { number, log }: NonNullable<Run['pass']>): string[] {
  if (codec === 'hevc') return ['-x265-params', `log-level=error:pass=${number}:stats=${log}`];
  return ['-pass', String(number), '-passlogfile', log];
}

/** Whole frames, of the size and rate asked for, with square pixels, 8 bits, and half the colour (what every site plays). */
function pictureFilters(picture: PictureRecipe, from: Fraction | undefined, exact: Fraction): string[] {
  const { rate, deinterlace, standardRange } = picture;
  const { width, height } = picture.framed?.full ?? picture;
  return [
    ...(deinterlace ? ['bwdif'] : []),
    ...(rate ? [`fps=${rate.num}/${rate.den}`] : []),
    `scale=${width}:${height}:flags=lanczos`,
    'setsar=1',
    // ITU-R BT.2100 to BT.709, by ffmpeg's own example for its tonemap filter.
    ...(standardRange
      ? [
          'zscale=t=linear:npl=100',
          'format=gbrpf32le',
          'zscale=p=bt709',
          'tonemap=hable:desat=0',
          'zscale=t=bt709:m=bt709:r=tv',
        ]
      : []),
    ...frameFilters(picture, from, exact),
    'format=yuv420p',
  ];
}

function soundEncoding({ codec, kilobits, sampleRate }: SoundRecipe, filters: readonly string[]): string[] {
  const encoder = codec === 'opus' ? 'libopus' : 'aac';
  // Opus knows 48 kHz and its parts only (RFC 6716, 2.1.3).
  const rate = codec === 'opus' ? 48_000 : sampleRate;
  return [
    ...(filters.length > 0 ? ['-af', filters.join(',')] : []),
    '-c:a',
    encoder,
    '-b:a',
    `${kilobits}k`,
    '-ar',
    String(rate),
  ];
}
