import { DeskError } from '@/desk/desk-error';
import { lookAtSeriesList } from '@/desk/views/look-at-layers';

/** The series of a name, by its id. @throws DeskError */
export async function seriesNamed(name: string): Promise<string> {
  const { series } = await lookAtSeriesList();
  const found = series.find((each) => each.name.toLowerCase() === name.toLowerCase());
  if (found) return found.id;
  const known = series.map((each) => `“${each.name}”`);
  const which = known.length > 0 ? `There are ${known.join(', ')}.` : 'There is none yet; make one on Series.';
  throw new DeskError('not found', `There is no series called “${name}”. ${which}`);
}
