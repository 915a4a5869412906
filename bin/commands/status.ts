import { lookAtStatus } from '@/desk/views/look';

/** Prints where every drop stands. */
export async function status(options: { json?: boolean }): Promise<void> {
  const lines = await lookAtStatus();
  if (options.json) {
    process.stdout.write(`${JSON.stringify(lines, null, 2)}\n`);
    return;
  }
  if (lines.length === 0) process.stdout.write('Nothing has been sent yet.\n');
  for (const line of lines) {
    const bytes = line.bytesTotal > 0 ? `${Math.floor((line.bytesSent / line.bytesTotal) * 100)} %` : '–';
    process.stdout.write(
      `${line.state.padEnd(9)} ${bytes.padStart(6)}  ${line.channel}  ${line.title}  ${line.link ?? ''}\n`,
    );
  }
}
