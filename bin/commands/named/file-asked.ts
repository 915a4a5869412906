import type { CutFacts, CutMeasures } from '@/core/delivery';
import { preflight, remedyOffer, withRemedy } from '@/core/preflight';
import { type EncodeSettings, type FileSet, PLAIN_SETTINGS, READY_SETS, type Remedies } from '@/core/renditions';
import { settingsShape } from '@/desk/defaults/settings-shape';
import { DeskError } from '@/desk/desk-error';

/** What plans and files are asked for with. */
export interface FileAsked {
  settings?: string;
  remedy?: string[];
}

/** The settings that are named, or given as JSON. @throws DeskError, ValidationError */
export async function settingsNamed(text: string | undefined): Promise<FileSet | undefined> {
  if (text === undefined) return undefined;
  const ready = READY_SETS.find(({ id, name }) => id === text.toLowerCase() || name === text);
  if (ready) return ready;
  if (!text.trimStart().startsWith('{')) {
    const known = READY_SETS.map(({ id }) => id).join(', ');
    throw new DeskError('not found', `There are no settings called ${text}; there are ${known}, or give them as JSON.`);
  }
  const given = parsed(text) as Partial<EncodeSettings>;
  const whole = { ...PLAIN_SETTINGS, ...given, sound: { ...PLAIN_SETTINGS.sound, ...given.sound } };
  const settings = (await settingsShape.validate(whole, { stripUnknown: false })) as EncodeSettings;
  return { id: 'given', name: 'The settings', says: '', settings };
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new DeskError('not taken', `The settings are no JSON: ${(error as Error).message}.`);
  }
}

/** Without a number, loudness goes where most sites on the web have it (common practice, no source). */
const LOUDNESS = -14;

/** The remedies that are named, for what is found in the file. @throws DeskError where there is nothing to put right */
export function remediesNamed(names: readonly string[] = [], facts: CutFacts, measures: CutMeasures): Remedies {
  const offers = preflight({ facts, measures, sites: [] }).flatMap((finding) => remedyOffer(finding) ?? []);
  let remedies: Remedies = {};
  for (const text of names) {
    const [name = '', value] = text.split('=');
    const loudness = value === undefined ? LOUDNESS : Number(value);
    const fixed: Record<string, Remedies> = {
      loudness: { loudness },
      index: { indexFirst: true },
      sphere: { sphere: true },
      convert: { convert: true },
    };
    if (name === 'loudness' && !(loudness >= -36 && loudness <= -8)) {
      throw new DeskError('not taken', 'Loudness goes from -36 to -8 LUFS.');
    }
    if (!fixed[name] && name !== 'start' && name !== 'end') {
      throw new DeskError(
        'not found',
        `There is no remedy ${name}; there are start, end, loudness, index, sphere, convert.`,
      );
    }
    const offer = offers.find(({ way }) => way === name);
    if (!fixed[name] && !offer) {
      throw new DeskError('not now', `Nothing is found at its ${name} that could be left off.`);
    }
    remedies = offer && !fixed[name] ? withRemedy(remedies, offer, loudness) : { ...remedies, ...fixed[name] };
  }
  return remedies;
}
