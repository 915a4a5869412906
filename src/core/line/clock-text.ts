/** A minute of the day as clocks show it: 09:05. */
export const clockText = (minutes: number): string =>
  `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;

/** The minute of the day that a text like 9:00 names. */
export function minutesIn(text: string): number | undefined {
  const found = /^(\d{1,2})[:.](\d{2})$/.exec(text.trim());
  const [hours, minutes] = [Number(found?.[1]), Number(found?.[2])];
  return found && hours < 24 && minutes < 60 ? hours * 60 + minutes : undefined;
}
