import { execFile } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdir, rename, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { promisify } from 'node:util';
import sharp from 'sharp';
import { nominal, rate, timecodeOfFrame } from '@/core/time';
import type { DemoVideo } from './scenario';
import { LOOP_SECONDS, PAST_THE_EDIT, SCENES, WIDTH } from './scenes/scenes';

const run = promisify(execFile);

/**
 * Scenes are drawn for 1280×720 and made at three quarters of that, which takes half the time; small ones, at a quarter, take a
 * tenth of it.
 */
const SCALE = process.env.KETTLE_DEMO === 'small' ? 0.25 : 0.75;

/** Loops that are being drawn or are there, so that two videos that share one do not both draw it. */
const underWay = new Map<string, Promise<string>>();

/** Draws one scene as a loop of LOOP_SECONDS; one that is there already is taken again. */
function loopOf(folder: string, video: DemoVideo, name: string): Promise<string> {
  const key = [name.replaceAll(' ', '-'), video.rate.replace('/', '-'), video.palette.sky.slice(1)].join('_');
  const target = path.join(folder, `${key}.mp4`);
  const making = underWay.get(target);
  if (making) return making;
  const drawing = existsSync(target) ? Promise.resolve(target) : drawLoop(folder, key, target, video, name);
  underWay.set(target, drawing);
  return drawing;
}

async function drawLoop(folder: string, key: string, target: string, video: DemoVideo, name: string): Promise<string> {
  const make = SCENES[name];
  if (!make) throw new Error(`There is no scene ${name}`);
  const scene = make(video.palette);
  const inputs: string[] = [];
  const still = async (svg: string, size: number, n: number) => {
    const png = path.join(folder, `${key}_${n}.png`);
    const width = Math.round(size * SCALE);
    await sharp(Buffer.from(svg)).resize({ width }).png().toFile(png);
    inputs.push('-loop', '1', '-framerate', video.rate, '-t', String(LOOP_SECONDS), '-i', png);
  };
  await still(scene.background, WIDTH, 0);
  for (const [n, layer] of scene.layers.entries()) await still(layer.svg, layer.width, n + 1);
  const steps = scene.layers.map(({ x, y }, n) => {
    const under = n === 0 ? '0:v' : `s${n}`;
    return `[${under}][${n + 1}:v]overlay=x='${SCALE}*(${x})':y='${SCALE}*(${y})':eval=frame[s${n + 1}]`;
  });
  const last = scene.layers.length;
  const drawn = last === 0 ? '0:v' : `s${last}`;
  await run('ffmpeg', [
    ...['-v', 'error', '-nostdin', '-y', ...inputs],
    ...['-filter_complex', [...steps, `[${drawn}]format=yuv420p[out]`].join(';'), '-map', '[out]'],
    ...['-c:v', 'libx264', '-preset', 'superfast', '-crf', '17', '-g', '50'],
    ...['-video_track_timescale', '90000', '-t', String(LOOP_SECONDS), '-f', 'mp4', `${target}.part`],
  ]);
  await rename(`${target}.part`, target);
  return target;
}

/** So long is the sound that is repeated under each cut; it fades at its ends, where it would click. */
const SOUND_SECONDS = 40;
const FADE_SECONDS = 0.05;

/** The sound of the sea and some notes, made and encoded once for all cuts: both take longer than all of their pictures. */
function soundLoop(folder: string): Promise<string> {
  const target = path.join(folder, 'sea.aac');
  const making = underWay.get(target);
  if (making) return making;
  const drawing = existsSync(target) ? Promise.resolve(target) : makeSound(target);
  underWay.set(target, drawing);
  return drawing;
}

async function makeSound(target: string): Promise<string> {
  const d = SOUND_SECONDS;
  const sea = `anoisesrc=color=pink:amplitude=0.25:seed=7:duration=${d},tremolo=f=0.25:d=0.8,lowpass=f=900`;
  const notes = `aevalsrc='0.06*sin(2*PI*220*t)*exp(-mod(t\\,2))+0.05*sin(2*PI*330*t)*exp(-mod(t+1\\,2))':d=${d}`;
  const fades = `afade=t=in:d=${FADE_SECONDS},afade=t=out:st=${d - FADE_SECONDS}:d=${FADE_SECONDS}`;
  await run('ffmpeg', [
    ...['-v', 'error', '-nostdin', '-y', '-f', 'lavfi', '-i', sea, '-f', 'lavfi', '-i', notes],
    ...['-filter_complex', `[0:a][1:a]amix=inputs=2,volume=18dB,${fades}[a]`, '-map', '[a]'],
    ...['-c:a', 'aac', '-b:a', '256k', '-ar', '48000', '-f', 'adts', `${target}.part`],
  ]);
  await rename(`${target}.part`, target);
  return target;
}

/** Makes the finished cut of a demo video: its scenes one after the other, with the sound of the sea. */
export async function makeCutFile(folder: string, video: DemoVideo): Promise<string> {
  await mkdir(folder, { recursive: true });
  const target = path.join(folder, video.fileName);
  if (existsSync(target)) return target;
  const lines: string[] = [];
  for (const [name, loops] of video.scenes) {
    const loop = await loopOf(folder, video, name);
    for (let n = 0; n < loops; n += 1) lines.push(`file '${path.basename(loop)}'`);
  }
  const list = path.join(folder, `${video.fileName}.txt`);
  await writeFile(list, lines.join('\n'));
  const seconds = String(lines.length * LOOP_SECONDS);
  const sound = await soundLoop(folder);
  await run('ffmpeg', [
    ...['-v', 'error', '-nostdin', '-y', '-f', 'concat', '-safe', '0', '-i', list],
    ...['-stream_loop', '-1', '-i', sound, '-map', '0:v', '-map', '1:a', '-c', 'copy', '-t', seconds],
    ...['-movflags', '+faststart', '-f', 'mp4', `${target}.part`],
  ]);
  await rename(`${target}.part`, target);
  return target;
}

/** The edit's decision list of a demo video: its scenes as events, its markers as locators, from 01:00:00:00. */
export function markerFile(video: DemoVideo): string {
  const [num = 25, den = 1] = video.rate.split('/').map(Number);
  const at = rate(num, den);
  // Seconds are counted as the timecode counts them, so that what starts on a second says so.
  const code = (seconds: number) => timecodeOfFrame(Math.round((3600 + seconds) * nominal(at)), at);
  const lines = [`TITLE: ${path.parse(video.fileName).name}`, 'FCM: NON-DROP FRAME', ''];
  let start = 0;
  video.scenes.forEach(([name, loops], index) => {
    if (name === PAST_THE_EDIT) return;
    const end = start + loops * LOOP_SECONDS;
    const [from, to] = [code(start), code(end)];
    lines.push(
      `${String(index + 1).padStart(3, '0')}  ${name.toUpperCase().padEnd(8)} V     C        ${from} ${to} ${from} ${to}`,
    );
    for (const [seconds, colour, title] of video.markers) {
      if (seconds >= start && seconds < end) lines.push(`* LOC: ${code(seconds)} ${colour.padEnd(7)} ${title}`);
    }
    start = end;
  });
  return `${lines.join('\n')}\n`;
}
