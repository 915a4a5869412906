import { rmSync } from 'node:fs';
import type { Machine } from '../tests/setup/machine';

/**
 * Measures on a machine, and ends it however that ends: no process of a measurement outlives it.
 * @param folder what it was measured in, which goes too
 */
export async function measureOn(
  machine: Machine,
  folder: string | undefined,
  work: () => Promise<void>,
): Promise<void> {
  const end = async (code: number) => {
    const { closeDatabase } = await import('@/store/database');
    await closeDatabase().catch(() => undefined);
    await machine.end();
    if (folder) rmSync(folder, { recursive: true, force: true });
    process.exit(code);
  };
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => void end(1));
  for (const trouble of ['uncaughtException', 'unhandledRejection'] as const) {
    process.once(trouble, (error) => {
      console.error(error);
      void end(1);
    });
  }
  try {
    await work();
  } catch (error) {
    console.error(error);
    await end(1);
  }
  await end(Number(process.exitCode ?? 0));
}
