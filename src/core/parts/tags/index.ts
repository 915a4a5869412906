import { tagFindings } from '../../words';
import { plainPart } from '../plain-part';

export const tags = plainPart<'tags'>({
  label: 'tags',
  place: 'tags',
  mustBeRight: true,
  wanted: ({ words }, site) => (typeof site.tags === 'object' ? words.tags : undefined),
  finding: (value, site) => (typeof site.tags === 'object' ? tagFindings(value, site.tags, site.name)[0] : undefined),
  inWords: (value) => value.join(', '),
  takeOver: (shown) => ({ set: { tags: { way: 'replace', items: shown } } }),
  texts: (value) => value,
});
