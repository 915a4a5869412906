import { lookAtJobs, tryJobsAgain } from '@/desk/house/jobs-set-aside';

/** Prints the background work that was set aside, or has all of it tried again. */
export async function jobs(options: { json?: boolean; again?: boolean }): Promise<void> {
  if (options.again) {
    const count = await tryJobsAgain();
    process.stdout.write(count === 1 ? 'One is tried again.\n' : `${count} are tried again.\n`);
    return;
  }
  const lines = await lookAtJobs();
  if (options.json) {
    process.stdout.write(`${JSON.stringify(lines, null, 2)}\n`);
    return;
  }
  if (lines.length === 0) process.stdout.write('Nothing was set aside; all background work goes well.\n');
  for (const { work, of, trouble } of lines) process.stdout.write(`${work}  ${of}  ${trouble}\n`);
}
