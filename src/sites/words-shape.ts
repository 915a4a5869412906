import { array, object, string } from 'yup';
import { type Declarations, declarationFindings, PLAIN_DECLARATIONS } from '@/core/declarations';
import { linkFinding, overLimit, tagFindings } from '@/core/words';
import type { SiteProfile } from './contract';

const said = (what: string | undefined, message: (what: string) => string) => (what ? message(what) : undefined);

/** A text that has nothing against it; what there is, is said. */
function checked(check: (text: string) => string | undefined) {
  return string()
    .defined()
    .test(
      'taken',
      ({ value }) => check(value as string) ?? '',
      (text) => check(text ?? '') === undefined,
    );
}

/**
 * The shape of words that a site takes, made from its profile: what goes out is held against it once more, whichever way
 * it came.
 */
export function wordsShape(profile: SiteProfile) {
  const { name, title, text, tags, declares } = profile;
  return object({
    title: checked((value) => {
      if (!title) return undefined;
      if (value === '') return 'The title is empty';
      return said(overLimit(value, title, name), (over) => `The title is ${over}`);
    }),
    text: checked((value) => {
      if (!text) return undefined;
      const links = linkFinding(value, text, name);
      if (links) return links;
      return said(overLimit(value, text, name), (over) => `The text is ${over}`);
    }),
    tags: array(string().required())
      .required()
      .test(
        'taken',
        ({ value }) => (typeof tags === 'object' ? (tagFindings(value as string[], tags, name)[0] ?? '') : ''),
        (value) => typeof tags !== 'object' || tagFindings(value ?? [], tags, name).length === 0,
      ),
    declared: object<Partial<Declarations>>().test(
      'taken',
      ({ value }) => declaredFinding(value as Partial<Declarations>) ?? '',
      (value) => declaredFinding(value as Partial<Declarations>) === undefined,
    ),
  });

  function declaredFinding(declared: Partial<Declarations>): string | undefined {
    return declarationFindings({ ...PLAIN_DECLARATIONS, ...declared }, declares, name)[0]?.what;
  }
}
