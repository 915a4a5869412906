import { overLimit } from '../../words';
import { plainPart } from '../plain-part';

export const title = plainPart<'title'>({
  label: 'title',
  place: 'title',
  mustBeRight: true,
  wanted: ({ words }, site) => site.title && words.title,
  finding(value, { title: limit, name }) {
    if (!limit) return undefined;
    if (value === '') return 'The title is empty';
    const over = overLimit(value, limit, name);
    return over && `The title is ${over}`;
  },
  inWords: (value) => value,
  takeOver: (shown) => ({ set: { title: shown } }),
  texts: (value) => [value],
});
