/**
 * The check digit that follows the digits of a GTIN (GS1 General Specifications, section 7.9: from the right, digits are
 * weighted by 3 and 1 in turn; the check digit fills their sum up to a multiple of ten).
 * @param digits all digits but the last
 */
export function gtinCheckDigit(digits: string): number {
  const sum = [...digits].reverse().reduce((all, digit, index) => all + Number(digit) * (index % 2 === 0 ? 3 : 1), 0);
  return (10 - (sum % 10)) % 10;
}

/** Why a number is no GTIN-8, -12, -13 or -14, in words; undefined where it is one. Spaces and hyphens do not count. */
export function gtinFinding(number: string): string | undefined {
  const digits = number.replace(/[\s-]/g, '');
  if (!/^\d+$/.test(digits)) return `“${number}” is no GTIN: it has to be digits alone`;
  if (![8, 12, 13, 14].includes(digits.length)) {
    return `“${number}” has ${digits.length} digits; a GTIN has 8, 12, 13 or 14`;
  }
  const meant = gtinCheckDigit(digits.slice(0, -1));
  if (meant === Number(digits.at(-1))) return undefined;
  return `“${number}” has a slip: its last digit would have to be ${meant}`;
}

/** The numbers of products from text with commas, semicolons, spaces or line ends between them, each once. */
export function gtinsFromText(text: string): string[] {
  return [...new Set(text.split(/[\s,;]+/).filter(Boolean))];
}
