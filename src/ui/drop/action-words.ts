import { type OpenEnd, openEnd, type RightsAsk } from '@/core/drop';
import type { DropAction } from '@/desk/actions/act-on-drop';
import type { DropView, SheetChannel } from '@/desk/views/views';
import { BUTTONS } from '../button-words';

const OPEN_BUTTONS: Record<OpenEnd, string> = {
  everyone: BUTTONS.openToEveryone,
  link: BUTTONS.openByLink,
  password: BUTTONS.openWithPassword,
};

export const OPEN_AGAIN: Record<OpenEnd, string> = {
  everyone: 'Open it again to everyone',
  link: 'Open it again by link',
  password: 'Open it again with the password',
};

/** What agreeing to a rights match does. */
function agreeWords(asks: RightsAsk | undefined): string {
  if (asks === 'silence') return 'Let them silence it';
  return asks === 'closing in countries' ? 'Let them close it there' : 'Share what it earns';
}

/** What the button for trying again says: what it does, where somebody has changed at the site what waits there. */
export function tryAgainWords({ snag }: Pick<DropView, 'snag'>): string {
  const { at, kind, parts } = snag ?? {};
  if (at === 'held' && kind === 'file') return BUTTONS.sendNewFile;
  if (at !== 'held' || kind !== 'difference') return BUTTONS.tryAgain;
  return parts?.includes('privacy') ? 'Close it there again' : 'Set its time there again';
}

/** What each action says on its button. */
export function actionWords(action: DropAction, { drop, values }: SheetChannel): string {
  switch (action) {
    case 'open':
      if (drop?.opensAt) return BUTTONS.openNow;
      return OPEN_BUTTONS[openEnd(values.privacy.value)];
    case 'not yet':
      return BUTTONS.notYet;
    case 'try again':
      return drop ? tryAgainWords(drop) : BUTTONS.tryAgain;
    case 'accept':
      return drop?.snag?.kind === 'rights' ? agreeWords(drop.snag.asks) : BUTTONS.leaveIt;
    case 'revise':
      return 'Send the changes';
    case 'new file':
      return drop?.otherFileStays ? 'Send the new file, close the old video' : BUTTONS.sendNewFile;
    case 'new file, remove':
      return 'Send the new file, remove the old video';
    case 'keep the old file':
      return 'Keep the old file';
    case 'take over':
      return 'Send again with current defaults';
    case 'close':
      return 'Close it: private';
    case 'open again':
      return OPEN_AGAIN[drop?.closedFrom ?? 'everyone'];
    case 'remove':
      return 'Remove from the site';
  }
}
