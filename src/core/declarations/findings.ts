import { type DeclarationField, type DeclarationRules, type Declarations, fieldsTaken } from './declarations';
import { gtinFinding } from './gtin';

/** Something that is missing or wrong in the declarations, at its field. */
export interface DeclarationFinding {
  field: DeclarationField;
  what: string;
}

/**
 * What of the declarations keeps a video from a site; only fields that the site takes are looked at.
 * @param rules what the site takes; undefined where it takes none
 * @param site its name, for what is said
 */
export function declarationFindings(
  declarations: Declarations,
  rules: DeclarationRules | undefined,
  site: string,
): DeclarationFinding[] {
  if (!rules) return [];
  const findings: DeclarationFinding[] = [];
  const takes = (field: DeclarationField) => fieldsTaken(rules).includes(field);
  const find = (field: DeclarationField, what: string) => findings.push({ field, what });
  if (takes('forChildren') && declarations.forChildren === undefined) {
    find('forChildren', 'Say whether it is aimed at children');
  }
  if (takes('forChildren') && declarations.forChildren && declarations.adultsOnly && takes('adultsOnly')) {
    find('adultsOnly', 'It cannot be aimed at children and be for adults only');
  }
  const { countries } = declarations;
  if (takes('countries') && countries.way !== 'everywhere' && countries.codes.length === 0) {
    find('countries', 'Choose a country, or show it everywhere');
  }
  const { category } = declarations;
  if (takes('category') && category !== '' && !rules.categories?.some(({ id }) => id === category)) {
    find('category', `${site} has no category “${category}”`);
  }
  if (takes('products')) {
    const { fewest, most } = rules.products ?? { fewest: 0, most: Number.POSITIVE_INFINITY };
    const count = declarations.products.length;
    if (count < fewest)
      find('products', `${site} wants at least ${fewest === 1 ? 'one product' : `${fewest} products`}`);
    if (count > most) find('products', `${count} products; ${site} takes ${most}`);
    for (const number of declarations.products) {
      const wrong = gtinFinding(number);
      if (wrong) find('products', wrong);
    }
  }
  return findings;
}

/** The declarations that a site takes, and nothing else. */
export function declaredTo(declarations: Declarations, rules: DeclarationRules | undefined): Partial<Declarations> {
  return Object.fromEntries(fieldsTaken(rules).map((field) => [field, declarations[field]]));
}
