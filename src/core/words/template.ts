import Mustache from 'mustache';

/** What a template may name: text, a list that a section repeats, or a group of these. */
export type TemplateView = { [name: string]: string | boolean | TemplateView | TemplateView[] | string[] | undefined };

/** A template that cannot be read; `at` counts signs from its start. */
export class TemplateError extends Error {
  override name = 'TemplateError';
  constructor(
    message: string,
    readonly at: number,
  ) {
    super(message);
  }
}

/** How many templates are kept as they were read: those in use are read again and again, and each typed letter is a new one. */
const MOST_KEPT = 200;

function boundedCache() {
  const kept = new Map<string, string>();
  return {
    get: (key: string) => kept.get(key),
    set(key: string, tokens: string) {
      const [oldest] = kept.keys();
      if (kept.size >= MOST_KEPT && oldest !== undefined) kept.delete(oldest);
      kept.set(key, tokens);
    },
    clear: () => kept.clear(),
  };
}

// The package keeps every template for ever where it is not told otherwise.
Mustache.templateCache = boundedCache();

type Token = [type: string, name: string, start: number, end: number, inner?: Token[]];

/** The package would find what every object has from JavaScript, and trips over some of it; none of it is a name of ours. */
function refuseInherited(tokens: readonly Token[]): void {
  for (const [type, name, start, , inner] of tokens) {
    if (type !== 'text' && name.split('.').some((part) => part in Object.prototype)) {
      throw new TemplateError(`Nothing is called “${name}”`, start);
    }
    if (Array.isArray(inner)) refuseInherited(inner);
  }
}

function parsed(template: string): Token[] {
  try {
    const tokens = Mustache.parse(template) as Token[];
    refuseInherited(tokens);
    return tokens;
  } catch (error) {
    if (error instanceof TemplateError) throw error;
    const text = (error as Error).message;
    throw new TemplateError(text.replace(/ at \d+$/, ''), Number(/ at (\d+)$/.exec(text)?.[1] ?? 0));
  }
}

/**
 * A template in Mustache (mustache(5), the published language) filled in. Nothing is escaped: what comes out is text and
 * not HTML.
 * @param view what its names stand for
 * @param partials other templates by their names
 * @throws TemplateError where it cannot be read
 */
export function renderTemplate(template: string, view: TemplateView, partials: Record<string, string> = {}): string {
  parsed(template);
  return Mustache.render(template, view, partials, { escape: (value: unknown) => String(value) });
}

/** A name in a template for which there is nothing. */
export interface Blank {
  name: string;
  /** Signs from the start of the template. */
  at: number;
}

/**
 * The blanks that a template leaves open: names that stand for nothing, outside of sections that vanish.
 * @param mayBeEmpty names that are well without anything
 * @throws TemplateError where it cannot be read
 */
export function blanksIn(template: string, view: TemplateView, mayBeEmpty: readonly string[] = []): Blank[] {
  const blanks: Blank[] = [];
  const walk = (tokens: readonly Token[], stack: readonly TemplateView[]) => {
    for (const [type, name, start, , inner = []] of tokens) {
      const value = lookUp(name, stack);
      const empty =
        value === undefined || value === false || value === '' || (Array.isArray(value) && value.length === 0);
      if (type === '#' && !empty) {
        for (const each of Array.isArray(value) ? value : [value]) {
          walk(inner, typeof each === 'object' ? [...stack, each as TemplateView] : stack);
        }
      }
      if (type === '^' && empty) walk(inner, stack);
      const filled = type === 'name' || type === '&' || type === '{';
      if (filled && name !== '.' && empty && !mayBeEmpty.includes(name)) blanks.push({ name, at: start });
    }
  };
  walk(parsed(template), [view]);
  return blanks;
}

/** What a name stands for: looked for from the innermost section outwards, a point going into a group (mustache(5)). */
function lookUp(name: string, stack: readonly TemplateView[]): TemplateView[string] {
  const [first = '', ...rest] = name.split('.');
  const holder = stack.findLast((each) => Object.hasOwn(each, first));
  let value: TemplateView[string] = holder?.[first];
  for (const part of rest) {
    value = typeof value === 'object' && !Array.isArray(value) && Object.hasOwn(value, part) ? value[part] : undefined;
  }
  return value;
}

/** Every name that a template uses, as a value or as a section, each once in the order in which they stand. */
export function namesIn(template: string): string[] {
  const found = new Set<string>();
  const walk = (tokens: readonly Token[]) => {
    for (const [type, name, , , inner = []] of tokens) {
      if (type === 'name' || type === '&' || type === '#' || type === '^') found.add(name);
      walk(inner);
    }
  };
  walk(parsed(template));
  return [...found];
}

/** What keeps a template from being read, with its place in signs from the start; undefined where it reads well. */
export function templateTrouble(template: string): { what: string; at: number } | undefined {
  try {
    parsed(template);
    return undefined;
  } catch (error) {
    if (error instanceof TemplateError) return { what: error.message, at: error.at };
    throw error;
  }
}

/** Names of the shelf's links that a template uses, as lines or as addresses. */
export function shelfNamesIn(template: string): string[] {
  const names = templateTrouble(template) ? [] : namesIn(template);
  return [...new Set(names.flatMap((name) => /^(?:shelf|address)\.(.+)$/.exec(name)?.[1] ?? []))];
}

const TURNS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth'];

/** The name of the sections that are cut in a turn: `cut-first` before `cut-second`; from the tenth on `cut-10`. */
export const cutName = (turn: number): string => `cut-${TURNS[turn - 1] ?? turn}`;

/** The turn in which sections of a name are cut; undefined where it is no such name. */
export function cutTurn(name: string): number | undefined {
  const said = /^cut-(\w+)$/.exec(name)?.[1];
  if (said === undefined) return undefined;
  if (TURNS.includes(said)) return TURNS.indexOf(said) + 1;
  return /^[1-9]\d$/.test(said) ? Number(said) : undefined;
}

/** A template in which such sections have today's names; they were called `go.1`, `go.2` and so on once. */
export const withCutNames = (template: string): string =>
  template.replace(/(\{\{[#/^]\s*)go\.([1-9]\d?)(\s*\}\})/g, (_, open: string, turn: string, close: string) => {
    return `${open}${cutName(Number(turn))}${close}`;
  });

/** Sections of a template that go first when there is no room, `cut-first` before `cut-second`; their turns in order. */
export function partsThatMayGo(template: string): number[] {
  const found = new Set<number>();
  const walk = (tokens: readonly Token[]) => {
    for (const [type, name, , , inner = []] of tokens) {
      const turn = cutTurn(name);
      if (type === '#' && turn !== undefined) found.add(turn);
      walk(inner);
    }
  };
  walk(parsed(template));
  return [...found].sort((a, b) => a - b);
}
