import type { MoveName, Snag } from '@/core/drop';
import type { NoticeKind } from '@/core/notices';
import { nextLookAfter } from '@/core/work';
import type { VideoRecord } from '@/desk/drop/record';
import type { Session, SiteAdapter, SiteProfile } from '@/sites/contract';
import type { Database } from '@/store/database';
import type { DropFields } from '@/store/drop/rows';
import type { Drop } from '@/store/drop/shape';
import type { Channel } from '@/store/site/channels';

/** What a step has to work with. */
export interface StepContext {
  drop: Drop;
  channel: Channel;
  record: VideoRecord;
  adapter: SiteAdapter;
  /** What the channel takes. */
  profile: SiteProfile;
  session: Session;
  /** The database's time when the step began. */
  now: Date;
  /** Keeps fields of the drop at once, or in a transaction that is open, and tells the pages. @throws ClaimLost where the drop is no longer ours */
  keep(fields: DropFields, trx?: Database): Promise<void>;
  /** Aborts where the drop is taken out of our hands. */
  signal: AbortSignal;
}

/** A look at the site again, later with age: what has just begun may end at any moment. */
export function lookAgain(drop: Drop, now: Date, kind: 'processing' | 'review', fields: DropFields): StepEnd {
  const age = (now.getTime() - drop.stateSince.getTime()) / 1000;
  return { again: nextLookAfter(age, kind), fields: { waiting: undefined, ...fields } };
}

/** What a manager hears of something as; `sharing` what with others, where one cause is told as one. */
export interface ToldAs {
  tells?: NoticeKind;
  sharing?: string;
}

/** How a step ends: the drop moves on, or waits and is looked at again after so many seconds. */
export type StepEnd =
  /** Where it goes on at once, the next step follows in the same hands. */
  | ({ move: MoveName; says: string; fields?: DropFields; goesOn?: true } & ToldAs)
  | { again: number; fields: DropFields };

/** Something that only a person can settle. */
export class SnagFound extends Error {
  override name = 'SnagFound';
  constructor(
    readonly kind: Snag['kind'],
    readonly what: string,
    readonly remedy: string,
    readonly more: Pick<Snag, 'asks' | 'owner' | 'parts' | 'differences'> = {},
    /** What a manager hears of it as. */
    readonly tells: NoticeKind = 'needs you',
  ) {
    super(what);
  }
}

/** A step: carries a drop towards its next stop. It may be run again after a crash at any point. */
export type Step = (context: StepContext) => Promise<StepEnd>;
