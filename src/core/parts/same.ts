const canonical = (value: unknown): unknown => {
  if (typeof value === 'string') return value.normalize('NFC');
  if (Array.isArray(value)) return value.map(canonical);
  if (value === null || typeof value !== 'object') return value;
  const entries = Object.entries(value).filter(([, each]) => each !== undefined);
  return Object.fromEntries(entries.sort(([a], [b]) => (a < b ? -1 : 1)).map(([key, each]) => [key, canonical(each)]));
};

/** A value as one text, the same for what is the same to who sees it: signs composed, names in order (UAX #15, RFC 8785). */
const asText = (value: unknown): string => JSON.stringify(canonical(value) ?? null);

/** Whether two values are the same to who sees them. */
export const isSame = (a: unknown, b: unknown): boolean => asText(a) === asText(b);

/** The same for lists whose order says nothing. */
export const isSameSet = (a: readonly string[], b: readonly string[]): boolean => isSame([...a].sort(), [...b].sort());
