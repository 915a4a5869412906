import type { Size } from '../delivery';
import { type CutFacts, codecName, reasonsNotTaken } from '../delivery';
import { frameIn, hasShape, pathOf, SHAPE_NAMES, type Shape, shotStarts, UNPLACED } from '../framing';
import { compare, rate as rateOf, toNumber, ZERO } from '../time';
import type { Asked, CutToSend, Refusal } from './asked';
import { GOOD_QUALITY_SOUND } from './demand-sound';
import { LINES_DOWN, linesOf, shownSize, sizeFor, withLines } from './frame-size';
import { goodKilobits, kilobitsBelow, leastKilobits } from './rates';
import { type PictureRecipe, pictureBits, type RecipeControl } from './recipe';
import { bitsName } from './said';
import { type EncodeSettings, type FileSet, PICTURE_CODECS, type PictureCodec } from './settings';

/**
 * Why the picture has to be encoded, and as what, the best first; without a reason it is copied.
 * @param seconds how long the file will be
 */
export function pictureOf(
  cut: CutToSend,
  asked: Asked,
  seconds: number,
): { why: string[]; choices: PictureRecipe[] } | Refusal {
  const { facts } = cut;
  const { site, set, remedies } = asked;
  const all = shownSize(facts.video);
  const shape = shapeAsked(set, all);
  if (shape && (remedies.sphere || facts.video.more?.sphere)) {
    return { refused: 'A 360° picture has no frame that could be cut out', nearest: 'Choose other file settings' };
  }
  const own = shape ? frameIn(all, shape, (asked.framings?.[shape] ?? UNPLACED).percent) : all;
  const size = set?.settings.size ?? { way: 'keep' };
  if (size.way === 'exactly' && size.lines > linesOf(own)) {
    const lines = Math.floor(linesOf(own));
    const has = shape ? `the ${SHAPE_NAMES[shape]} frame has ${lines}` : `the file has ${lines}`;
    return { refused: `“${set?.name}” asks for ${size.lines} lines; ${has}`, nearest: `Ask for at most ${lines}` };
  }
  const codecs = codecsOf(site, set?.settings, facts);
  const even = [
    ...(facts.video.more?.interlaced ? ['the picture is interlaced'] : []),
    ...(cut.measures?.picture?.varies ? ['its frame rate varies'] : []),
  ];
  const asks = [
    ...(set ? settingsReasons(cut, set, own) : []),
    ...(set || remedies.convert ? even : []),
    ...(remedies.convert && facts.video.more?.hdr ? ['the picture goes to standard range'] : []),
  ];
  const instead =
    set && !codecs.includes(set.settings.codec) ? [`${site.name} does not take ${codecName(set.settings.codec)}`] : [];
  const refuses = reasonsNotTaken({ ...facts, container: site.file.containers[0] ?? '', duration: ZERO }, site);
  // What is made by a set is what the site takes; why the file itself is not taken does not matter then.
  const why = [
    ...(asks.length > 0 ? [...asks, ...instead] : refuses),
    ...(remedies.from ? ['the start is left off to the frame'] : []),
    ...(remedies.without?.length ? ['a part is left out to the frame'] : []),
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
      ...(shape ? { framed: framedTo(shape, all, own, fits, cut, asked) } : {}),
      ...(oneRate ? { rate: oneRate } : {}),
      control: controlFor(set?.settings, fits, rate, codec, room, facts, site.file.largest),
      ...(set?.settings.hardware ? { hardware: true as const } : {}),
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

/** The shape that a set asks for, where the picture does not have it already. */
function shapeAsked(set: Pick<FileSet, 'settings'> | undefined, own: Size): Shape | undefined {
  const shape = set?.settings.shape;
  return shape && !hasShape(own, shape) ? shape : undefined;
}

/** Where the frame goes. @param own the frame in the cut's own pixels @param made its size in the file */
function framedTo(
  shape: Shape,
  all: Size,
  own: Size,
  made: Size,
  { facts, measures }: CutToSend,
  { framings }: Asked,
): NonNullable<PictureRecipe['framed']> {
  const scale = made.height / own.height;
  const full = withLines(all, linesOf(all) * scale);
  const starts = shotStarts(measures?.shots ?? [], rateOf(facts.video.rate.num, facts.video.rate.den));
  return {
    // Rounding must not make it smaller than its frame.
    full: { width: Math.max(full.width, made.width), height: Math.max(full.height, made.height) },
    path: pathOf((framings?.[shape] ?? UNPLACED).placements, starts),
  };
}

function codecsOf(site: Asked['site'], settings: EncodeSettings | undefined, facts: CutFacts): PictureCodec[] {
  const taken = PICTURE_CODECS.filter((codec) => site.file.videoCodecs.includes(codec));
  if (settings) return taken.includes(settings.codec) ? [settings.codec] : taken.slice(0, 1);
  // What is taken everywhere first (common practice, no source), then what the file has.
  return [...taken]
    .sort((a, b) => Number(b === facts.video.codec) - Number(a === facts.video.codec))
    .sort((a, b) => Number(b === 'h264') - Number(a === 'h264'));
}

/** In what a file is not what a set asks for. */
function settingsReasons({ facts }: CutToSend, { name, settings }: FileSet, own: Size): string[] {
  const { codec, size, rate, control } = settings;
  const { video } = facts;
  const shape = shapeAsked({ settings }, shownSize(video));
  const why: string[] = [];
  if (shape) why.push(`“${name}” asks for ${shape === 'upright' ? 'an' : 'a'} ${SHAPE_NAMES[shape]} picture`);
  if (video.codec !== codec) why.push(`“${name}” asks for ${codecName(codec)}`);
  const over = size.way !== 'keep' && linesOf(own) > size.lines;
  if (over) why.push(`“${name}” asks for ${size.way} ${size.lines} lines`);
  if (rate && compare(rate, video.rate) !== 0) why.push(`“${name}” asks for another frame rate`);
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
