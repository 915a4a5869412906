const ROUNDS = 5;

/**
 * Milliseconds of the fastest of a few rounds, once it is warm.
 * @param warm how often it is done before that; work of less than a millisecond has to be compiled first
 */
export async function fastest(work: () => unknown, warm = 1): Promise<number> {
  for (let round = 0; round < warm; round += 1) await work();
  const times: number[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    const start = process.hrtime.bigint();
    await work();
    times.push(Number(process.hrtime.bigint() - start) / 1e6);
  }
  return Math.min(...times);
}
