import { AllowanceSpent, type LookAtMany, type Session, SiteError, type SiteLook } from '@/sites/contract';

/** What a site says of many videos, by their ids, and the one that it cannot tell of. */
export interface LooksTogether {
  looks: ReadonlyMap<string, SiteLook>;
  atFault: string | undefined;
  /** How many requests it took. */
  requests: number;
}

const isOfOneOfThem = (error: unknown) => error instanceof SiteError && !(error instanceof AllowanceSpent);

/**
 * What a site says of videos together. Where it cannot, they are asked for by halves, until the one is found that it cannot tell
 * of: that one keeps nobody from hearing of the others.
 * @param siteVideoIds no more than it takes at a time
 * @throws SiteError where it can tell of neither half, or of none but one
 */
export async function lookTogether(
  lookAtMany: LookAtMany,
  session: Session,
  siteVideoIds: readonly string[],
): Promise<LooksTogether> {
  const looks = new Map<string, SiteLook>();
  let requests = 0;
  const ask = async (ids: readonly string[]): Promise<void> => {
    requests += 1;
    for (const [id, look] of await lookAtMany.look(session, ids)) looks.set(id, look);
  };
  const canTell = (ids: readonly string[]): Promise<boolean> =>
    ask(ids).then(
      () => true,
      (error: unknown) => {
        if (!isOfOneOfThem(error)) throw error;
        return false;
      },
    );
  const all = (atFault?: string): LooksTogether => ({ looks, atFault, requests });
  if (siteVideoIds.length === 1) await ask(siteVideoIds);
  if (siteVideoIds.length < 2) return all();
  let [left, isAtFault] = [siteVideoIds, false];
  for (;;) {
    if (!isAtFault && (await canTell(left))) return all();
    if (left.length === 1) return all(left[0]);
    const middle = Math.ceil(left.length / 2);
    const [first, second] = [left.slice(0, middle), left.slice(middle)];
    isAtFault = !(await canTell(first));
    if (isAtFault) await ask(second);
    left = isAtFault ? first : second;
  }
}
