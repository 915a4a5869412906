import { clock, dayOf } from './in-words';
import { instantsOf, type Moment, momentAt } from './moment';
import { came, nowhere, plainInstant, type SaidChoice, type SaidTime, unsaid } from './said-time';
import type { ZoneSaid } from './zone-said';

const HALF_A_YEAR_MILLISECONDS = 182 * 86_400_000;

/** What a time comes to that names the clocks it is meant by, such as CET: not each zone that has them has them all the year. */
export function onItsClocks(said: SaidTime, { clocks }: ZoneSaid, mine: string, now: Date): SaidTime {
  if (!clocks || !said.wall) return said;
  const exact = new Date(Date.parse(`${said.wall}Z`) - clocks.minutes * 60_000);
  const sameClocks = [exact, new Date(exact.getTime() + HALF_A_YEAR_MILLISECONDS)].every(
    (each) => momentAt(each, mine).wall === momentAt(each, said.zone).wall,
  );
  const zone = sameClocks ? mine : said.zone;
  const there = momentAt(exact, zone);
  const [first, second] = instantsOf({ wall: said.wall, zone });
  if (there.wall === said.wall) {
    const which = second && (there.which ?? 'first');
    return { ...nowhere(zone), wall: said.wall, ...(which && { which }), ...came(exact, now) };
  }
  if (!first) return said;
  const choice = (moment: Moment, instant: string): SaidChoice => {
    return { moment, instant, says: `${clock(moment.wall)} on the clocks of ${zone}` };
  };
  const finding = `On ${dayOf(said.wall)} the clocks of ${zone} do not show ${clocks.name}. Say which time you mean.`;
  return unsaid(zone, finding, [
    choice({ wall: said.wall, zone }, plainInstant(new Date(first))),
    choice(there, plainInstant(exact)),
  ]);
}
