import { boolean, lazy, number, object, string } from 'yup';
import { SHAPES } from '@/core/framing';
import {
  CONTAINERS,
  type EncodeSettings,
  HOLDS,
  PICTURE_CODECS,
  SAMPLE_RATES,
  SOUND_CODECS,
  settingsTrouble,
} from '@/core/renditions';
import { fractionShape } from '../layers/values-shape';

const lines = () =>
  number()
    .integer('Lines are a whole number.')
    .min(144, 'A picture has at least 144 lines.')
    .max(4320, 'A picture has at most 4,320 lines.');
const kilobits = () =>
  number().integer().min(100, 'A rate is at least 100 kbit/s.').max(400_000, 'A rate is at most 400,000 kbit/s.');

const sizeShape = lazy((size: { way?: string } | undefined) => {
  const way = string().oneOf(['keep', 'at most', 'exactly']).required();
  if (size?.way === 'keep') return object({ way }).noUnknown();
  return object({ way, lines: lines().required('Say how many lines.') }).noUnknown();
});

const controlShape = lazy((control: { way?: string } | undefined) => {
  const way = string().oneOf(['by size', 'variable', 'quality']).required();
  if (control?.way === 'variable') {
    const [target, ceiling] = [kilobits().required('Say the rate.'), kilobits().required('Say the ceiling.')];
    return object({ way, kilobits: target, ceiling }).noUnknown();
  }
  if (control?.way === 'quality') {
    const quality = number()
      .integer()
      .min(10, 'Quality goes from 10, which is very large, to 40.')
      .max(40, 'Quality goes from 10 to 40, which is very coarse.')
      .required('Say the quality.');
    return object({ way, quality }).noUnknown();
  }
  return object({ way }).noUnknown();
});

const soundShape = object({
  codec: string().oneOf(SOUND_CODECS).required(),
  kilobits: number()
    .integer()
    .min(32, 'Sound has at least 32 kbit/s.')
    .max(640, 'Sound has at most 640 kbit/s.')
    .required(),
  sampleRate: number().oneOf(SAMPLE_RATES, 'Sound has 44.1 or 48 kHz.').nullable().defined(),
  loudness: number()
    .min(-36, 'Loudness goes from −36 to −8 LUFS.')
    .max(-8, 'Loudness goes from −36 to −8 LUFS.')
    .nullable()
    .defined(),
}).noUnknown();

/** Settings of an encode, as they are typed or given on the command line. */
export const settingsShape = object({
  container: string().oneOf(CONTAINERS).required(),
  codec: string().oneOf(PICTURE_CODECS).required(),
  shape: string().oneOf(SHAPES),
  size: sizeShape,
  rate: fractionShape().nullable().defined(),
  control: controlShape,
  hardware: boolean().oneOf([true]),
  sound: soundShape.required(),
})
  .noUnknown()
  .test('can be met', (settings, { createError }) => {
    // Yup runs this where a part is missing or wrong, too; that is said by the part.
    const whole = settings?.container in HOLDS && settings.codec && settings.control && settings.sound;
    const trouble = whole ? settingsTrouble(settings as EncodeSettings) : undefined;
    return trouble ? createError({ message: `${trouble}.` }) : true;
  });
