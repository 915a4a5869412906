import { type CutFacts, codecName, containerName } from '../delivery';
import { compare, floor, toNumber, ZERO } from '../time';
import type { Asked, CutToSend, Refusal } from './asked';
import { pictureOf } from './demand-picture';
import { soundOf } from './demand-sound';
import type { Recipe, Work } from './recipe';
import { lengthWith, type Remedies } from './remedies';
import { CONTAINERS, type Container, HOLDS, type SoundCodec } from './settings';

/** The files that would serve a channel, the best first, with the work that they take and why. */
export interface Demand {
  work: Work;
  /** undefined: the cut as it is. */
  recipes: readonly (Recipe | undefined)[];
  why: string[];
}

/** What files serve a channel, or why none can. */
export function demandOf(cut: CutToSend, asked: Asked): Demand | Refusal {
  const { facts } = cut;
  const { site, remedies } = asked;
  const seconds = lengthWith(remedies, facts);
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
  const part = { ...partsOf(remedies), sphere: remedies.sphere };
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

/** What of a cut goes into a file, and what is heard there. */
function partsOf({ from, to, without, silence, swaps }: Remedies): Partial<Recipe> {
  return {
    ...{ from, to },
    ...(without?.length ? { without } : {}),
    ...(silence?.length ? { silence } : {}),
    ...(swaps?.length ? { swaps } : {}),
  };
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
