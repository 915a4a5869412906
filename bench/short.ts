import { endMachine } from './machine';
import { linesSaid } from './say';

/** Measures one after the other in their short form, in one process and on one machine. The names of the files are given. */
const failed: string[] = [];
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.once(signal, () => void endMachine(undefined).then(() => process.exit(1)));
}
for (const measure of process.argv.slice(2)) {
  const [began, before] = [performance.now(), linesSaid()];
  try {
    await import(`../${measure}`);
    if (linesSaid() === before) throw new Error(`${measure} has measured nothing`);
  } catch (error) {
    console.error(error);
    failed.push(measure);
  }
  console.error(`${measure}: ${((performance.now() - began) / 1000).toFixed(1)} s`);
}
await endMachine(undefined);
if (failed.length > 0) console.error(`Failed: ${failed.join(', ')}`);
process.exit(failed.length > 0 ? 1 : Number(process.exitCode ?? 0));
