/** Which of two numbers comes first where a date is written with both: the day, the month, or neither is known. */
export type DateOrder = 'day first' | 'month first' | 'ask';

/**
 * Day and month as two numbers in either order: 12/04, 12/4/2027, 12-4-2027. With points the day comes first everywhere, and
 * 9-10 alone may be hours.
 */
const EITHER_ORDER = /(?<![\d/:.-])(\d{1,2})(?:(\/)(\d{1,2})(?![\d:.-])|(-)(\d{1,2})(?=-\d))/;
const MONTHS = 12;

/** The texts that a text with a date can mean, the day first in each. */
export interface InOrders {
  texts: [string] | [dayFirst: string, monthFirst: string];
  /** The order that decided, where the numbers alone would not have. */
  by?: Exclude<DateOrder, 'ask'>;
}

/** What a text means whose date may have the day first or the month first: one text, or both where these are two days. */
export function inOrders(text: string, order: DateOrder): InOrders {
  const [found, first = '', slash, afterSlash, dash = '', afterDash = ''] = EITHER_ORDER.exec(text) ?? [];
  if (!found) return { texts: [text] };
  const second = afterSlash ?? afterDash;
  const turned = text.replace(found, `${second}${slash ?? dash}${first}`);
  if (Number(second) > MONTHS) return { texts: [turned] };
  if (Number(first) > MONTHS || Number(first) === Number(second)) return { texts: [text] };
  if (order === 'ask') return { texts: [text, turned] };
  return { texts: [order === 'day first' ? text : turned], by: order };
}
