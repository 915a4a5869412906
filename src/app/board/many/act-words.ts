import type { Foreseen } from '@/desk/many/foresee-many';
import type { Act } from '@/desk/many/many-act';
import { BUTTONS } from '@/ui/button-words';
import type { Question } from '@/ui/sure-questions';

const count = (number: number, one: string) => `${number.toLocaleString('en')} ${number === 1 ? one : `${one}s`}`;
const videosOf = (number: number) => count(number, 'video');
const placesOf = (number: number) => count(number, 'place');

/** What opens to everyone by an act, without a further word. */
const opensWords = (opening: number): string[] =>
  opening > 0
    ? [`${opening.toLocaleString('en')} of them ${opening === 1 ? 'opens' : 'open'} to everyone once checked.`]
    : [];

/** What is said before an act on many videos: what will happen, where, and where it cannot. */
export function questionBeforeMany(act: Act, seen: Foreseen): Question {
  const { videos, concerned, places, opening, closing, warned, cannot } = seen;
  const not = cannot.map(({ why, places: number }) => `Not in ${placesOf(number)}: ${why}.`);
  switch (act.do) {
    case 'send':
      return {
        title: `Send ${videosOf(concerned)}?`,
        follows: [
          `${count(places, 'upload')} will start.`,
          ...opensWords(opening),
          ...(warned > 0 ? [`In the file of ${videosOf(warned)} something was found; look at it first.`] : []),
          ...not,
        ],
        yes: 'Send',
      };
    case 'open':
      return {
        title: `Open ${videosOf(concerned)} to everyone?`,
        follows: [
          `Everyone can see them in ${placesOf(places)} a few seconds later; until then you can stop it. Subscribers may be told at once.`,
          ...not,
        ],
        yes: 'Open',
      };
    case 'try again':
      return {
        title: `Try ${placesOf(places)} again?`,
        follows: [`On ${videosOf(concerned)}.`, ...not],
        yes: BUTTONS.tryAgain,
      };
    case 'delete':
      return {
        title: `Delete ${videosOf(videos)}?`,
        follows: [
          'Files, words, markers and pictures are gone here. This cannot be undone.',
          ...(places > 0
            ? [
                `They are removed from ${placesOf(places)} at sites first; views, comments and links there are gone, too.`,
              ]
            : []),
        ],
        yes: BUTTONS.delete,
      };
    default:
      return {
        title: `Change ${videosOf(videos)}?`,
        follows: [
          ...(closing > 0
            ? [`In ${placesOf(closing)} fewer people see it than now: it is closed to the others at once.`]
            : []),
          'What is on its way to a site follows the change, and opens to nobody by it. What is there already stays as it is until you send the changes.',
          'You can undo it at once.',
        ],
        yes: 'Change',
      };
  }
}
