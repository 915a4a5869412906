/** What a figure is to be at least or at most. */
export type Aim = { least: number } | { most: number };

/** One line of a measurement: what was measured, its figures, and what some of them are to be. */
interface Line {
  measure: string;
  aims?: Record<string, Aim>;
  [figure: string]: unknown;
}

const isMissed = (figure: unknown, aim: Aim): boolean =>
  typeof figure !== 'number' || ('least' in aim ? figure < aim.least : figure > aim.most);

/** Whether a line, or a part of one, has a figure; and that each is a number. @throws where one is none */
function hasFigure(part: unknown, name: string): boolean {
  if (typeof part === 'number') {
    if (!Number.isFinite(part)) throw new Error(`${name} was not measured: ${part}`);
    return true;
  }
  if (part === null || part === undefined) throw new Error(`${name} was not measured`);
  if (typeof part !== 'object') return false;
  return Object.entries(part).filter(([key, value]) => hasFigure(value, `${name}.${key}`)).length > 0;
}

let said = 0;
/** How many lines this process has printed. */
export const linesSaid = (): number => said;

/**
 * Prints a line of JSON; the figures that miss their aim are named in `missed`.
 * @throws where there is no figure, or one is no number: nothing was measured then
 */
export function say({ aims = {}, ...line }: Line): void {
  if (!hasFigure(line, line.measure)) throw new Error(`${line.measure}: there is no figure`);
  const missed = Object.entries(aims).flatMap(([name, aim]) => (isMissed(line[name], aim) ? [name] : []));
  const told = { ...line, ...(Object.keys(aims).length > 0 && { aims }), ...(missed.length > 0 && { missed }) };
  process.stdout.write(`${JSON.stringify(told)}\n`);
  said += 1;
}

/** A figure with so many digits. */
export const rounded = (number: number, digits = 0): number => Number(number.toFixed(digits));

/** Whether this is the short form, which shows that the measurement works, and not how quick anything is. */
export const SHORT = process.env.BENCH_SHORT === '1';
