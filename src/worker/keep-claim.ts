import { setTimeout as pause } from 'node:timers/promises';
import { database } from '@/store/database';
import { beatClaim, type Claim, ClaimLost } from '@/store/queue/claims';
import { settings } from '@/store/settings';

/** A claim that is lengthened until it is let go; `gone` aborts where somebody else has the row. */
export interface KeptClaim {
  gone: AbortSignal;
  letGo(): void;
}

/**
 * Keeps a claim alive by a heartbeat. A database that does not answer for a moment ends nothing; one that has not for as
 * long as the claim holds has given the row to another by now.
 */
export function keepClaim(claim: Claim): KeptClaim {
  const [stop, gone] = [new AbortController(), new AbortController()];
  const { leaseSeconds } = settings();
  void (async () => {
    let heldUntil = performance.now() + leaseSeconds * 1000;
    while (!stop.signal.aborted && !gone.signal.aborted) {
      await pause((leaseSeconds * 1000) / 3, undefined, { signal: stop.signal });
      const asked = performance.now();
      try {
        await beatClaim(database(), claim, leaseSeconds);
        heldUntil = asked + leaseSeconds * 1000;
      } catch (error) {
        if (error instanceof ClaimLost || performance.now() > heldUntil) gone.abort(error);
      }
    }
  })().catch(() => undefined);
  return { gone: gone.signal, letGo: () => stop.abort() };
}
