import {
  type CountryRule,
  countriesInWords,
  DECLARATION_NAMES,
  type DeclarationField,
  type Declarations,
  declarationFindings,
  fieldsTaken,
  PLAIN_DECLARATIONS,
} from '../../declarations';
import type { Part, PartLine } from '../part';
import { type DeclaredPart, fieldsOf, GROUP_OF } from './groups';

export { type DeclaredPart, fieldsOf, GROUP_OF } from './groups';

type Declared = Partial<Declarations>;

/** A declared value in words; sites that keep nothing where nothing is said mean the same. */
function declaredInWords(value: unknown): string {
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') return value.normalize('NFC');
  if (!Array.isArray(value)) return value ? countriesInWords(value as CountryRule) : '';
  return value
    .map((each) => (typeof each === 'object' ? Object.values(each as object).join(': ') : String(each)))
    .join(', ')
    .normalize('NFC');
}

const NONE: Declared = {};

/** The lines in which two differ, of the fields that the second has. */
function lines(fields: readonly DeclarationField[], was: Declared, is: Declared): PartLine[] {
  return fields.flatMap((field) => {
    const [before, now] = [declaredInWords(was[field]), declaredInWords(is[field])];
    return before === now ? [] : [{ field: DECLARATION_NAMES[field], was: before, is: now }];
  });
}

/** The declarations of one group, as far as a site takes them. */
export function declaredPart<N extends DeclaredPart>(name: N, label: string): Part<N> {
  const fields = fieldsOf(name);
  const part: Part<DeclaredPart> = {
    label,
    place: `declared-${fields[0] ?? 'category'}`,
    mustBeRight: true,
    wanted({ declarations }, site) {
      const taken = fieldsTaken(site.declares).filter((field) => GROUP_OF[field] === name);
      return taken.length === 0 ? undefined : pick(declarations, taken);
    },
    finding: (value, { declares, name: site }) =>
      declarationFindings({ ...PLAIN_DECLARATIONS, ...value }, declares, site).find(({ field }) =>
        fields.includes(field),
      )?.what,
    same: (a, b) => lines(fields, a, b).length === 0,
    changes: (was, is) => lines(fields, was ?? NONE, is),
    expected: (value) => value,
    differences: (meant, shown = NONE) =>
      lines(
        fields.filter((field) => field in meant && meant[field] !== undefined),
        meant,
        shown,
      ),
    asGiven: (shown = NONE) => pick(shown, fields),
    takeOver: (shown) => ({ set: pick(shown, fields) }),
  };
  return part as Part<N>;
}

function pick(from: Declared, fields: readonly DeclarationField[]): Declared {
  const entries = fields.filter((field) => from[field] !== undefined).map((field) => [field, from[field]]);
  return Object.fromEntries(entries) as Declared;
}

/** Declarations by the parts that they belong to. */
export function byGroup(declared: Declared): { [N in DeclaredPart]?: Declared } {
  const groups = [...new Set(Object.values(GROUP_OF))];
  return Object.fromEntries(groups.map((group) => [group, pick(declared, fieldsOf(group))]));
}
