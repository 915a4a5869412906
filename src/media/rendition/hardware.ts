import { readdir } from 'node:fs/promises';
import type { PictureCodec } from '@/core/renditions';
import { MachineError, ProgramError, runProgram, TooLong } from '../program';

/** An encoder of graphics hardware, as ffmpeg names it, with what goes before the input and after all other filters. */
export interface HardwareEncoder {
  name: string;
  before: readonly string[];
  filters: readonly string[];
}

/** A kind of graphics hardware: its devices, and how a picture gets to it (ffmpeg-codecs; ffmpeg-filters, hwupload). */
interface Kind {
  device: RegExp;
  folder: string;
  encoders: Partial<Record<PictureCodec, string>>;
  before(device: string): string[];
  filters: string[];
}

const KINDS: readonly Kind[] = [
  {
    ...{ folder: '/dev', device: /^nvidiactl$/, before: () => [], filters: [] },
    encoders: { h264: 'h264_nvenc', hevc: 'hevc_nvenc' },
  },
  {
    ...{ folder: '/dev/dri', device: /^renderD\d+$/, filters: ['format=nv12', 'hwupload'] },
    before: (device) => ['-vaapi_device', device],
    encoders: { h264: 'h264_vaapi', hevc: 'hevc_vaapi', vp9: 'vp9_vaapi' },
  },
  {
    ...{ folder: '/dev', device: /^video1\d$/, before: () => [], filters: [] },
    encoders: { h264: 'h264_v4l2m2m', hevc: 'hevc_v4l2m2m' },
  },
];

const TRIAL_MILLISECONDS = 20_000;

/** Whether an encoder makes one second of pictures on this machine. */
export async function worksHere({ name, before, filters }: HardwareEncoder): Promise<boolean> {
  const source = ['-f', 'lavfi', '-i', 'testsrc2=s=640x360:r=25:d=1'];
  const filtered = ['-vf', ['format=yuv420p', ...filters].join(',')];
  const args = [
    '-v',
    'error',
    '-nostdin',
    ...before,
    ...source,
    ...filtered,
    '-c:v',
    name,
    '-b:v',
    '1M',
    '-f',
    'null',
    '-',
  ];
  try {
    await runProgram('ffmpeg', args, { milliseconds: TRIAL_MILLISECONDS, niceness: 15 });
    return true;
  } catch (error) {
    if (error instanceof ProgramError || error instanceof TooLong || error instanceof MachineError) return false;
    throw error;
  }
}

/** The graphics hardware of this machine that a trial of one second works on, by codec. */
export async function hardwareHere(): Promise<Map<PictureCodec, HardwareEncoder>> {
  const found = new Map<PictureCodec, HardwareEncoder>();
  for (const { folder, device, encoders, before, filters } of KINDS) {
    const here = (await readdir(folder).catch((): string[] => [])).find((name) => device.test(name));
    if (!here) continue;
    for (const [codec, name] of Object.entries(encoders) as [PictureCodec, string][]) {
      const encoder = { name, before: before(`${folder}/${here}`), filters };
      if (!found.has(codec) && (await worksHere(encoder))) found.set(codec, encoder);
    }
  }
  return found;
}
