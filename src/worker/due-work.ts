import type { Due } from '@/store/queue/due';

const GOOD_MILLISECONDS = 150;

/**
 * Asks for all lanes at once which sorts of work are due: an idle worker puts the same question a dozen times in each pause
 * otherwise. An answer holds for a moment only, and not beyond work that has ended.
 */
export class DueWork {
  private asked: Promise<Due> | undefined;
  private askedAt = 0;
  private readonly hearers: (() => void)[] = [];

  /** @param ask what is due now; @param clock milliseconds */
  constructor(
    private readonly ask: () => Promise<Due>,
    private readonly clock: () => number = () => performance.now(),
  ) {}

  /** Whether any work is due that these words of `of` name. @throws where it could not be asked */
  async has<K extends keyof Due>(of: K, sorts: readonly (Due[K] extends Set<infer S> ? S : never)[]): Promise<boolean> {
    if (!this.asked || this.clock() - this.askedAt >= GOOD_MILLISECONDS) {
      this.askedAt = this.clock();
      const asking = this.ask();
      this.asked = asking;
      // A question that failed is put again by whoever comes next.
      asking.catch(() => {
        if (this.asked === asking) this.asked = undefined;
      });
    }
    const due: Set<unknown> = (await this.asked)[of];
    return sorts.some((sort) => due.has(sort));
  }

  /** Work has ended, so that other work may have become due: whoever listens looks at once. */
  forget(): void {
    this.asked = undefined;
    for (const hear of this.hearers) hear();
  }

  /** Lets somebody hear that other work may have become due. */
  hear(hearer: () => void): void {
    this.hearers.push(hearer);
  }
}
