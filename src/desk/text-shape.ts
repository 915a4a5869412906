import { string } from 'yup';

const asText = (change: (text: string) => string) => (value: unknown) =>
  typeof value === 'string' ? change(value) : value;

/** A text without white space around it. Yup's own `trim` takes a list for a text and trips over it. */
export const trimmed = () => string().transform(asText((text) => text.trim()));

/** The same in small letters. */
export const trimmedSmall = () => string().transform(asText((text) => text.trim().toLowerCase()));
