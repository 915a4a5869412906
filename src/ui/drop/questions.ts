import { openEnd } from '@/core/drop';
import type { DropAction } from '@/desk/actions/act-on-drop';
import type { SheetChannel } from '@/desk/views/views';
import { BUTTONS } from '@/ui/button-words';
import { type Question, questionBeforeAnotherLink, questionBeforeOpening } from '@/ui/sure-questions';

type SentDrop = NonNullable<SheetChannel['drop']>;

/** What is asked before the changes of some channels go out; nothing where they only change words. */
export function questionBeforeChanges(channels: readonly SheetChannel[]): Question | undefined {
  const opened = channels.filter(({ drop, values }) => {
    return values.privacy.value === 'everyone' && drop?.openedTo !== 'everyone' && values.release.value === 'by itself';
  });
  if (opened.length === 0) return undefined;
  const names = new Intl.ListFormat('en').format(opened.map(({ name }) => name));
  return {
    title: `Open it to everyone on ${names}?`,
    follows: [
      'The changes go out; it waits a few seconds then, so that you can still stop it.',
      'After that, everyone can see it. Subscribers may be told at once.',
    ],
    yes: BUTTONS.sendAndOpen,
  };
}

/** What is asked before something is done with a drop; undefined where it is done at once. */
export function questionBefore(action: DropAction, channel: SheetChannel, drop: SentDrop): Question | undefined {
  const { name, siteName, values } = channel;
  switch (action) {
    case 'open':
      return questionBeforeOpening([name], openEnd(values.privacy.value));
    case 'open again':
      return questionBeforeOpening([name], drop.closedFrom ?? 'everyone');
    case 'accept':
      return questionBeforeAccepting(channel, drop);
    case 'revise':
    case 'take over':
      return questionBeforeChanges([channel]);
    case 'close':
      return {
        title: `Close it on ${name}?`,
        follows: ['Nobody but you can see it from then on. The link stays the same, and you can open it again.'],
        yes: 'Close it',
      };
    case 'remove':
      return {
        title: `Remove it from ${siteName}?`,
        follows: ['The video, its views and its comments are gone there, and the link stops working.'],
        yes: 'Remove it',
      };
    case 'new file':
    case 'new file, remove':
      return questionBeforeNewFile(action, channel, drop);
    case 'try again':
      return drop.linkEnds ? questionBeforeAnotherLink(siteName) : undefined;
    case 'keep the old file':
    case 'not yet':
      return undefined;
  }
}

/** What becomes of the video that is live where a better file takes its place. */
function questionBeforeNewFile(action: DropAction, { name, siteName }: SheetChannel, drop: SentDrop): Question {
  const until = `The video on ${name} stays as it is until the new file is there and checked.`;
  const then = !drop.otherFileStays
    ? `Then ${siteName} shows the new file at the same link.`
    : action === 'new file'
      ? `Then a new video opens with another link, and the old one is closed. Its views and comments stay with it.`
      : `Then a new video opens with another link, and the old one is gone with its views and comments.`;
  return { title: `Send the new file to ${name}?`, follows: [until, then], yes: 'Send the new file' };
}

function questionBeforeAccepting({ name, values }: SheetChannel, { snag }: SentDrop): Question | undefined {
  if (snag?.kind !== 'rights') return undefined;
  const owner = snag.owner ?? 'The owner';
  const opens = values.privacy.value === 'everyone' && values.release.value === 'by itself';
  const then = opens ? ['The video goes on after that, and opens to everyone by itself.'] : [];
  if (snag.asks === 'silence') {
    return {
      title: `Let ${owner} have the sound off?`,
      follows: [`The sound is off over that part on ${name}, for everyone.`, ...then],
      yes: 'Agree',
    };
  }
  if (snag.asks === 'closing in countries') {
    return {
      title: `Let ${owner} close it there?`,
      follows: [`${snag.what}.`, `People in all other countries can still see it on ${name}.`, ...then],
      yes: 'Agree',
    };
  }
  return {
    title: `Share what it earns with ${owner}?`,
    follows: [
      `${owner} gets a share of what this video earns on ${name}.`,
      'You cannot take that back from here.',
      ...then,
    ],
    yes: 'Agree',
  };
}
