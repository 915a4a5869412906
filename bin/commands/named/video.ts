import { DeskError } from '@/desk/desk-error';
import { findVideos } from '@/desk/video/find-video';

/** The video that is named by its id, its link at a site, its page here, or its exact title; its id. @throws DeskError */
export async function videoNamed(name: string): Promise<string> {
  const found = await findVideos(name);
  const [first] = found;
  if (first && found.length === 1) return first.id;
  if (!first) {
    throw new DeskError('not found', `There is no video “${name}”. Name it by its id, its link or its exact title.`);
  }
  const ids = found.map(({ id }) => id).join(', ');
  throw new DeskError('not found', `There are ${found.length} videos called “${name}”. Say which by its id: ${ids}.`);
}
