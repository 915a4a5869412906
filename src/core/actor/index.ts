/** Whoever does something: a person, the folder that is watched, the worker by itself, or a site. */
export type Who = `person:${string}` | 'inbox' | 'worker' | `site:${string}`;

/** Whoever does something, and by what where that is not a page. */
export interface Actor {
  who: Who;
  via?: 'command line';
}

/** The one person that there is today. */
export const MANAGER: Who = 'person:manager';

/**
 * Who did something, as a colleague would say it.
 * @param me who reads it
 * @param siteName the name of a site by its id
 */
export function actorWords({ who, via }: Actor, me: Who, siteName: (id: string) => string): string {
  const by = via ? `, by ${via}` : '';
  if (who === me) return `you${by}`;
  if (who === 'inbox') return 'the inbox';
  if (who === 'worker') return 'Kettle Drop';
  const [kind, id = ''] = who.split(':');
  return kind === 'site' ? siteName(id) : `${id}${by}`;
}
