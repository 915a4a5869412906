/** Hours of the day in which a limit holds: minutes after midnight in a zone of the IANA data. */
export interface LimitHours {
  from: number;
  to: number;
  zone: string;
}

/** How much of the line uploads may take, in kilobits a second. */
export interface LineLimit {
  /** A channel's id; `EVERYTHING` for all uploads together. */
  owner: string;
  kilobits: number;
  /** Undefined: at all hours. */
  hours: LimitHours | undefined;
}

/** The owner of the limit for all uploads together. */
export const EVERYTHING = 'everything';

const clocks = new Map<string, Intl.DateTimeFormat>();

function clockOf(zone: string): Intl.DateTimeFormat {
  const known = clocks.get(zone);
  if (known) return known;
  const made = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  });
  clocks.set(zone, made);
  return made;
}

/** The minute of the day that clocks in a zone show. */
export function minuteOfDay(at: Date, zone: string): number {
  const parts = clockOf(zone).formatToParts(at);
  const part = (type: string) => Number(parts.find((each) => each.type === type)?.value ?? 0);
  return part('hour') * 60 + part('minute');
}

/** Whether a limit holds at an instant. Hours that end before they begin go over midnight. */
export function holdsAt({ hours }: Pick<LineLimit, 'hours'>, at: Date): boolean {
  if (!hours || hours.from === hours.to) return true;
  const now = minuteOfDay(at, hours.zone);
  const { from, to } = hours;
  return from < to ? now >= from && now < to : now >= from || now < to;
}

/**
 * What one upload may take now: an equal part of what its channel may, and of what all may together.
 * @param onChannel uploads under way to the channel, this one counted in
 * @param inAll uploads under way in all, this one counted in
 * @returns bytes a second; undefined without a limit
 */
export function shareOfLine(
  limits: readonly LineLimit[],
  channelId: string,
  { onChannel, inAll }: { onChannel: number; inAll: number },
  at: Date,
): number | undefined {
  const part = (owner: string, among: number) => {
    const limit = limits.find((each) => each.owner === owner && holdsAt(each, at));
    return limit ? (limit.kilobits * 1000) / 8 / Math.max(1, among) : undefined;
  };
  const parts = [part(channelId, onChannel), part(EVERYTHING, inAll)].filter((each) => each !== undefined);
  return parts.length === 0 ? undefined : Math.min(...parts);
}
