import { FIELD_NAMES } from '@/core/defaults';
import type { Act } from '@/desk/many/many-act';

/** What is being done, and what was done, with many videos. */
export function actWords(act: Act): { doing: string; done: string } {
  switch (act.do) {
    case 'send':
      return { doing: 'Sending', done: 'Sent' };
    case 'open':
      return { doing: 'Opening', done: 'Being opened' };
    case 'try again':
      return { doing: 'Trying again', done: 'Tried again' };
    case 'delete':
      return { doing: 'Deleting', done: 'Deleted' };
    case 'set':
      return { doing: `Setting ${FIELD_NAMES[act.field]}`, done: `Set ${FIELD_NAMES[act.field]}` };
    case 'tags':
      return { doing: 'Adding tags', done: 'Tags added' };
    case 'playlist':
      return { doing: `Adding to “${act.title}”`, done: `Added to “${act.title}”` };
    case 'series':
      return act.seriesId
        ? { doing: 'Putting in the series', done: 'Put in the series' }
        : { doing: 'Taking out of the series', done: 'Taken out of the series' };
  }
}
