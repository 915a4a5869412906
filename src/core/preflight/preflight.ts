import { reasonsNotTaken } from '../delivery';
import { compare, ZERO } from '../time';
import { endFindings, lengthFindings } from './ends';
import { type Finding, LEVELS, type PreflightInput } from './finding';
import { pictureFindings } from './picture';
import { soundFindings } from './sound';

/** What a site's own rules say against a file. */
function siteFindings({ facts, sites }: PreflightInput): Finding[] {
  return sites.flatMap((site) =>
    reasonsNotTaken(facts, site).map((what): Finding => {
      const why = `${site.name} does not take it as it is.`;
      return { rule: 'not taken', level: 'stops', site: site.name, what, why, remedy: 'Export it so that it fits' };
    }),
  );
}

/**
 * What is wrong with a file before it goes anywhere, the worst first, then in the order of its time.
 * @param input facts and, once it is measured, measures; spans are exact seconds of the file
 */
export function preflight(input: PreflightInput): Finding[] {
  const all = [
    ...siteFindings(input),
    ...lengthFindings(input),
    ...endFindings(input),
    ...soundFindings(input),
    ...pictureFindings(input),
  ];
  const place = ({ level }: Finding) => LEVELS.indexOf(level);
  return all.sort((a, b) => place(a) - place(b) || compare(a.span?.from ?? ZERO, b.span?.from ?? ZERO));
}
