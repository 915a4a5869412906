'use client';

import { type FormEvent, useState } from 'react';
import { SHAPE_NAMES, SHAPES, type Shape } from '@/core/framing';
import {
  type Container,
  type EncodeSettings,
  type PictureCodec,
  type RateControl,
  type SoundCodec,
  settingsTrouble,
} from '@/core/renditions';
import { Button } from '../button';
import { FIELD } from '../fields/field-row';
import { Bits, List, Part } from './set-fields';

/** What a set is called, and what it asks for. */
export interface NamedSettings {
  name: string;
  settings: EncodeSettings;
}

const CONTAINER_CHOICES: [Container, string][] = [
  ['mp4', 'MP4'],
  ['mov', 'MOV'],
  ['mkv', 'MKV'],
  ['webm', 'WebM'],
];
const CODEC_CHOICES: [PictureCodec, string][] = [
  ['h264', 'H.264 (taken everywhere)'],
  ['hevc', 'H.265 (smaller, slower to make)'],
  ['vp9', 'VP9 (smaller, slow to make)'],
];
const SHAPE_CHOICES: ['keep' | Shape, string][] = [
  ['keep', 'as the file'],
  ...SHAPES.map((shape): [Shape, string] => [shape, SHAPE_NAMES[shape]]),
];
const SOUND_CHOICES: [SoundCodec, string][] = [
  ['aac', 'AAC'],
  ['opus', 'Opus'],
];
const LINES = [2160, 1440, 1080, 720, 480];
/** Frame rates that are met (common practice, no source), by their names. */
const RATES: [string, string][] = [
  ['', 'as the file'],
  ['24000/1001', '23.976'],
  ['24/1', '24'],
  ['25/1', '25'],
  ['30000/1001', '29.97'],
  ['30/1', '30'],
  ['50/1', '50'],
  ['60000/1001', '59.94'],
  ['60/1', '60'],
];
const SOUND_RATES = [64, 96, 128, 192, 256, 320];
const LOUDNESS: [string, string][] = [
  ['', 'as the file'],
  ['-14', '−14 LUFS'],
  ['-16', '−16 LUFS'],
  ['-23', '−23 LUFS (EBU R 128)'],
];

/** The fields of a set; what cannot be met is said where it is typed, with the nearest that can. */
export function SetForm({
  first,
  hardware,
  button,
  onSave,
}: {
  first: NamedSettings;
  /** Codecs that graphics hardware encodes here. */
  hardware: readonly string[];
  button: string;
  onSave: (set: NamedSettings) => unknown;
}) {
  const [{ name, settings }, setSet] = useState(first);
  const put = (fields: Partial<EncodeSettings>) => setSet({ name, settings: { ...settings, ...fields } });
  const sound = (fields: Partial<EncodeSettings['sound']>) => put({ sound: { ...settings.sound, ...fields } });
  const { size, rate, control } = settings;
  const trouble = settingsTrouble(settings);
  return (
    <form
      className="grid gap-3 text-sm sm:grid-cols-2"
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        if (!trouble && name.trim() !== '') void onSave({ name: name.trim(), settings });
      }}
    >
      <label className="grid gap-1 sm:col-span-2">
        Name
        <input
          value={name}
          required
          maxLength={60}
          onChange={(event) => setSet({ name: event.target.value, settings })}
          className={FIELD}
        />
      </label>
      <Part label="File">
        <List
          label="File"
          value={settings.container}
          options={CONTAINER_CHOICES}
          onChange={(container) => put({ container })}
        />
      </Part>
      <Part label="Picture">
        <List label="Picture" value={settings.codec} options={CODEC_CHOICES} onChange={(codec) => put({ codec })} />
      </Part>
      <Part label="Shape">
        <List
          label="Shape"
          value={settings.shape ?? 'keep'}
          options={SHAPE_CHOICES}
          onChange={(value) => put({ shape: value === 'keep' ? undefined : value })}
        />
      </Part>
      <Part label="Size">
        <List
          label="Size"
          value={size.way === 'keep' ? 'keep' : `${size.way} ${size.lines}`}
          options={[
            ['keep', 'as the file'],
            ...(['at most', 'exactly'] as const).flatMap((way) =>
              linesWith(size.way === way ? size.lines : undefined).map(
                (lines) => [`${way} ${lines}`, `${way} ${lines} lines`] as const,
              ),
            ),
          ]}
          onChange={(value) => put({ size: sizeOf(value) })}
        />
      </Part>
      <Part label="Frames a second">
        <List
          label="Frames a second"
          value={rate ? `${rate.num}/${rate.den}` : ''}
          options={RATES}
          onChange={(value) => {
            const [num = 0, den = 1] = value.split('/').map(Number);
            put({ rate: value === '' ? null : { num, den } });
          }}
        />
      </Part>
      <Part label="Bits of the picture">
        <List
          label="Bits of the picture"
          value={control.way}
          options={[
            ['by size', 'as many as its size wants'],
            ['variable', 'a target and a ceiling'],
            ['quality', 'equally good throughout'],
          ]}
          onChange={(way) => put({ control: controlOf(way) })}
        />
      </Part>
      <Bits control={control} onChange={(next) => put({ control: next })} />
      {(hardware.includes(settings.codec) || settings.hardware) && (
        <Part label="Encoded by">
          <List
            label="Encoded by"
            value={settings.hardware ? 'hardware' : 'program'}
            options={[
              ['program', 'a program (looks best for its size)'],
              ['hardware', 'graphics hardware (quicker)'],
            ]}
            onChange={(value) => put({ hardware: value === 'hardware' ? true : undefined })}
          />
        </Part>
      )}
      <Part label="Sound">
        <div className="flex gap-2">
          <List
            label="Sound"
            value={settings.sound.codec}
            options={SOUND_CHOICES}
            onChange={(codec) => sound({ codec })}
          />
          <List
            label="Rate of the sound"
            value={String(settings.sound.kilobits)}
            options={[...new Set([...SOUND_RATES, settings.sound.kilobits])]
              .sort((a, b) => a - b)
              .map((kilobits) => [String(kilobits), `${kilobits} kbit/s`] as const)}
            onChange={(value) => sound({ kilobits: Number(value) })}
          />
        </div>
      </Part>
      <Part label="Loudness">
        <List
          label="Loudness"
          value={String(settings.sound.loudness ?? '')}
          options={loudnessWith(settings.sound.loudness)}
          onChange={(value) => sound({ loudness: value === '' ? null : Number(value) })}
        />
      </Part>
      {trouble && (
        <p className="text-snag sm:col-span-2" role="alert">
          ▲ {trouble}.
        </p>
      )}
      <Button type="submit" look="press" className="justify-self-start sm:col-span-2">
        {button}
      </Button>
    </form>
  );
}

const linesWith = (own: number | undefined) => [...new Set([...LINES, ...(own ? [own] : [])])].sort((a, b) => b - a);

function loudnessWith(own: number | null): [string, string][] {
  if (own === null || LOUDNESS.some(([value]) => value === String(own))) return LOUDNESS;
  return [...LOUDNESS, [String(own), `${String(own).replace('-', '−')} LUFS`]];
}

function sizeOf(value: string): EncodeSettings['size'] {
  const found = /^(at most|exactly) (\d+)$/.exec(value);
  return found ? { way: found[1] as 'at most' | 'exactly', lines: Number(found[2]) } : { way: 'keep' };
}

function controlOf(way: RateControl['way']): RateControl {
  if (way === 'variable') return { way, kilobits: 18_000, ceiling: 24_000 };
  return way === 'quality' ? { way, quality: 20 } : { way };
}
