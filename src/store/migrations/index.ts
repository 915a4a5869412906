import type { Knex } from 'knex';
import * as first from './001-first-slice';
import * as hiddenMarkers from './002-hidden-markers';
import * as timeLine from './003-time-line';
import * as fourSites from './004-four-sites';
import * as layers from './005-layers';
import * as ends from './006-ends';
import * as traces from './007-traces';
import * as jobs from './008-jobs';
import * as allowances from './009-allowances';
import * as board from './010-board';
import * as many from './011-many';
import * as cutNames from './012-cut-names';
import * as preflight from './013-preflight';
import * as renditions from './014-renditions';
import * as framingAndEarly from './015-framing-and-early';
import * as release from './016-release';
import * as whatSitesSay from './017-what-sites-say';
import * as notices from './018-notices';
import * as afterOpening from './019-after-opening';
import * as askedAndConfirmed from './020-asked-and-confirmed';
import * as actsThatStop from './021-acts-that-stop';
import * as parts from './022-parts';
import * as who from './023-who';
import * as actsThatPause from './024-acts-that-pause';
import * as whatGrows from './025-what-grows';
import * as amongMany from './026-among-many';
import * as noticesOfTheHouse from './027-notices-of-the-house';
import * as agreed from './028-agreed';
import * as preferences from './029-preferences';
import * as lateAndClosed from './030-late-and-closed';
import * as soundAround from './031-sound-around';

/** All migrations by name, in the order in which they run. */
export const migrations: Record<string, Knex.Migration> = {
  '001-first-slice': first,
  '002-hidden-markers': hiddenMarkers,
  '003-time-line': timeLine,
  '004-four-sites': fourSites,
  '005-layers': layers,
  '006-ends': ends,
  '007-traces': traces,
  '008-jobs': jobs,
  '009-allowances': allowances,
  '010-board': board,
  '011-many': many,
  '012-cut-names': cutNames,
  '013-preflight': preflight,
  '014-renditions': renditions,
  '015-framing-and-early': framingAndEarly,
  '016-release': release,
  '017-what-sites-say': whatSitesSay,
  '018-notices': notices,
  '019-after-opening': afterOpening,
  '020-asked-and-confirmed': askedAndConfirmed,
  '021-acts-that-stop': actsThatStop,
  '022-parts': parts,
  '023-who': who,
  '024-acts-that-pause': actsThatPause,
  '025-what-grows': whatGrows,
  '026-among-many': amongMany,
  '027-notices-of-the-house': noticesOfTheHouse,
  '028-agreed': agreed,
  '029-preferences': preferences,
  '030-late-and-closed': lateAndClosed,
  '031-sound-around': soundAround,
};
