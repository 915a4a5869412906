import { floor } from '../time';
import type { CutFacts } from './facts';
import type { SiteRules } from './site-rules';

const CODEC_NAMES: Record<string, string> = {
  h264: 'H.264',
  hevc: 'H.265',
  vp9: 'VP9',
  vp8: 'VP8',
  av1: 'AV1',
  prores: 'ProRes',
  mpeg4: 'MPEG-4 Part 2',
  aac: 'AAC',
  opus: 'Opus',
  vorbis: 'Vorbis',
  flac: 'FLAC',
  alac: 'ALAC',
  ac3: 'AC-3',
  mp3: 'MP3',
  pcm_s16le: 'PCM, 16 bit',
  pcm_s24le: 'PCM, 24 bit',
};

const CONTAINER_NAMES: Record<string, string> = { mp4: 'MP4', mov: 'MOV', mkv: 'MKV', webm: 'WebM' };

/** A codec as people write it. */
export function codecName(codec: string): string {
  return CODEC_NAMES[codec] ?? codec;
}

/** A container as people write it. */
export function containerName(container: string): string {
  return CONTAINER_NAMES[container] ?? container;
}

/** Why a site does not take a file as it is, each reason in words; none means that it does. */
export function reasonsNotTaken(facts: CutFacts, site: Pick<SiteRules, 'name' | 'file'>): string[] {
  const { file, name } = site;
  const reasons: string[] = [];
  const list = (values: readonly string[]) => new Intl.ListFormat('en', { type: 'disjunction' }).format(values);
  if (!file.containers.includes(facts.container)) {
    const taken = list(file.containers.map(containerName));
    reasons.push(`The file is ${containerName(facts.container)}; ${name} takes ${taken}`);
  }
  if (!file.videoCodecs.includes(facts.video.codec)) {
    const taken = list(file.videoCodecs.map(codecName));
    reasons.push(`The picture is ${codecName(facts.video.codec)}; ${name} takes ${taken}`);
  }
  if (facts.size > file.largest) {
    reasons.push(`The file has ${binarySize(facts.size)}; ${name} takes ${binarySize(file.largest)}`);
  }
  if (file.longest !== undefined && floor(facts.duration) > file.longest) {
    reasons.push(`The video lasts ${floor(facts.duration)} s; ${name} takes ${file.longest} s`);
  }
  const bound = file.mostPixels;
  if (bound && (facts.video.width > bound.width || facts.video.height > bound.height)) {
    const { width, height } = facts.video;
    reasons.push(`The picture is ${width}×${height}; ${name} takes at most ${bound.width}×${bound.height}`);
  }
  const bits = facts.video.more?.bits;
  if (file.mostBits !== undefined && bits !== undefined && bits > file.mostBits) {
    reasons.push(`The picture has ${bits} bits a sample; ${name} takes ${file.mostBits}`);
  }
  return reasons;
}

/** A size in bytes as people read it, in powers of 1024. */
export function binarySize(bytes: number): string {
  const units = ['bytes', 'KiB', 'MiB', 'GiB', 'TiB'];
  let [value, unit] = [bytes, 0];
  while (value >= 1024 && unit < units.length - 1) {
    value /= 1024;
    unit += 1;
  }
  return `${unit === 0 || value >= 100 ? Math.round(value) : value.toFixed(1)} ${units[unit]}`;
}
