import { linkFinding, overLimit } from '../../words';
import { plainPart } from '../plain-part';
import { textShowing } from './text-showing';

export const text = plainPart<'text'>({
  label: 'text',
  place: 'summary',
  mustBeRight: true,
  wanted: ({ words }, site) => site.text && words.text,
  finding(value, { text: limit, name }) {
    if (!limit) return undefined;
    const links = linkFinding(value, limit, name);
    if (links) return links;
    const over = overLimit(value, limit, name);
    return over && `The text is ${over}`;
  },
  inWords: (value) => value,
  takeOver: (shown, { shown: { chapters = [] }, textBecomes }) => ({
    set: { text: textShowing(shown, chapters, textBecomes) },
  }),
  texts: (value) => [value],
});
