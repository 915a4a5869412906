import { execFile } from 'node:child_process';
import { runKettle } from '../../bin/commands/command-line';

/** What a command came to: how it ended, what it gave out, and what it said beside. */
export interface CommandEnd {
  status: number;
  out: string;
  said: string;
}

/** Runs the command line in this process, which spares a start for each; what is `kettle` to a person is `startedKettle`. */
export async function kettle(args: readonly string[]): Promise<CommandEnd> {
  const end: CommandEnd = { status: 0, out: '', said: '' };
  const streams = { out: process.stdout, said: process.stderr };
  const before = { out: streams.out.write, said: streams.said.write, error: console.error };
  for (const name of ['out', 'said'] as const) {
    streams[name].write = (text: string | Uint8Array) => {
      end[name] += Buffer.from(text).toString();
      return true;
    };
  }
  console.error = (text: string) => {
    end.said += `${text}\n`;
  };
  try {
    await runKettle(args);
    end.status = Number(process.exitCode ?? 0);
  } finally {
    streams.out.write = before.out;
    streams.said.write = before.said;
    console.error = before.error;
    process.exitCode = undefined;
  }
  return end;
}

/**
 * Runs the command line in a process of its own, as a person does. This process goes on meanwhile: one that stood still would not hear that a server
 * has closed an idle connection, and would ask on it next.
 */
export function startedKettle(
  args: readonly string[],
  env: Record<string, string | undefined> = {},
): Promise<CommandEnd> {
  const options = { env: { ...process.env, KETTLE_LOG_LEVEL: 'silent', ...env } };
  return new Promise((resolve) => {
    const child = execFile(process.execPath, ['bin/kettle.mjs', ...args], options, (_, out, said) =>
      resolve({ status: child.exitCode ?? -1, out, said }),
    );
  });
}
