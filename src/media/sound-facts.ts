import { array, number, object, string } from 'yup';
import { type Fraction, fromDecimal } from '@/core/time';
import { FROM_OUTSIDE, runProgram } from './program';

const PROBE_MILLISECONDS = 60_000;

const probeShape = object({
  streams: array(object({ codec_type: string(), channels: number() })).required(),
  format: object({ duration: string().required() }).required(),
});

/** How long a sound file lasts, in exact seconds. @throws ProgramError, ValidationError where there is no sound in it */
export async function soundFactsOf(path: string): Promise<{ duration: Fraction }> {
  const args = ['-v', 'error', ...FROM_OUTSIDE, '-select_streams', 'a:0'];
  const entries = ['-show_entries', 'stream=codec_type,channels:format=duration', '-of', 'json', path];
  const out = await runProgram('ffprobe', [...args, ...entries], { milliseconds: PROBE_MILLISECONDS });
  const probe = await probeShape.validate(JSON.parse(out));
  const duration = fromDecimal(probe.format.duration);
  if (!duration || duration.num <= 0 || probe.streams.length === 0) throw new Error('There is no sound');
  return { duration };
}
