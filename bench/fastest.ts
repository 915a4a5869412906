const ROUNDS = 5;

/** Milliseconds of the fastest of a few rounds. */
export async function fastest(work: () => unknown): Promise<number> {
  const times: number[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    const start = process.hrtime.bigint();
    await work();
    times.push(Number(process.hrtime.bigint() - start) / 1e6);
  }
  return Math.min(...times);
}
