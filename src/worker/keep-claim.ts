import { setTimeout as pause } from 'node:timers/promises';
import { beatClaim, type Claim, ClaimLost } from '@/store/claims';
import { database } from '@/store/database';
import { settings } from '@/store/settings';

/** A claim that is lengthened until it is let go; `gone` aborts where somebody else has the row. */
export interface KeptClaim {
  gone: AbortSignal;
  letGo(): void;
}

/** Keeps a claim alive by a heartbeat. A database that does not answer for a moment ends nothing. */
export function keepClaim(claim: Claim): KeptClaim {
  const [stop, gone] = [new AbortController(), new AbortController()];
  const { leaseSeconds } = settings();
  void (async () => {
    while (!stop.signal.aborted) {
      await pause((leaseSeconds * 1000) / 3, undefined, { signal: stop.signal });
      await beatClaim(database(), claim, leaseSeconds).catch((error) => {
        if (error instanceof ClaimLost) gone.abort(error);
      });
    }
  })().catch(() => undefined);
  return { gone: gone.signal, letGo: () => stop.abort() };
}
