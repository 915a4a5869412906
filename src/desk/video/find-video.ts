import { validate } from 'uuid';
import { database } from '@/store/database';
import { videosNamed } from '@/store/record/videos';

/** Videos that somebody means by an id, a link at a site, the address of a page here, or an exact title. */
export async function findVideos(name: string): Promise<{ id: string; title: string }[]> {
  const page = /\/videos\/([0-9a-f-]{36})/i.exec(name)?.[1];
  const id = [page, name].find((text) => text !== undefined && validate(text));
  return videosNamed(database(), id ? { id } : /^https?:\/\//.test(name) ? { link: name } : { title: name });
}
