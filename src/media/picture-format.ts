import { array, type InferType, number, object, string } from 'yup';
import type { PictureFormat } from '@/core/delivery';
import { type Fraction, fraction } from '@/core/time';

/** What ffprobe tells of how a picture is coded, beside what every stream has. */
export const pictureFields = {
  level: number(),
  bits_per_raw_sample: string(),
  sample_aspect_ratio: string(),
  field_order: string(),
  color_primaries: string(),
  color_transfer: string(),
  color_space: string(),
  color_range: string(),
  side_data_list: array(object({ side_data_type: string(), rotation: number(), projection: string() })).default([]),
};

const shape = object(pictureFields);
type Told = InferType<typeof shape> & { codec_name?: string; pix_fmt?: string };

/** Codecs whose level is written as tenths (ITU-T H.264, A.3) or as thirtieths (ITU-T H.265, A.4). */
const LEVEL_UNITS: Record<string, number> = { h264: 10, hevc: 30 };

const HDR_TRANSFERS: Record<string, PictureFormat['hdr']> = { smpte2084: 'PQ', 'arib-std-b67': 'HLG' };

/** Bits of one sample, by the name that ffmpeg has for the layout: yuv420p10le has ten. */
function bitsOf({ bits_per_raw_sample: told, pix_fmt: layout = '' }: Told): number {
  const named = /p(\d{1,2})(?:le|be)$/.exec(layout)?.[1];
  return Number(named ?? told) || 8;
}

function pixelShapeOf(text: string | undefined): Fraction {
  const [num = 0, den = 0] = (text ?? '').split(':').map(Number);
  return num > 0 && den > 0 ? fraction(num, den) : fraction(1);
}

/** How a picture is coded. @param stream as ffprobe tells of it */
export function pictureFormatOf(stream: Told): PictureFormat {
  const side = (type: string) => stream.side_data_list?.find((each) => each.side_data_type === type);
  const unit = LEVEL_UNITS[stream.codec_name ?? ''];
  const turned = -(side('Display Matrix')?.rotation ?? 0);
  const known = (name: string | undefined) => (name === undefined || name === 'unknown' ? '' : name);
  return {
    level: unit && (stream.level ?? 0) > 0 ? String((stream.level ?? 0) / unit) : '',
    bits: bitsOf(stream),
    pixelShape: pixelShapeOf(stream.sample_aspect_ratio),
    turned: ((turned % 360) + 360) % 360,
    interlaced: ['tt', 'bb', 'tb', 'bt'].includes(stream.field_order ?? ''),
    primaries: known(stream.color_primaries),
    transfer: known(stream.color_transfer),
    matrix: known(stream.color_space),
    range: known(stream.color_range),
    hdr: HDR_TRANSFERS[stream.color_transfer ?? ''],
    sphere: side('Spherical Mapping')?.projection,
  };
}
