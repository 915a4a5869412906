import { execFile } from 'node:child_process';

/** What a command came to: how it ended, what it gave out, and what it said beside. */
export interface CommandEnd {
  status: number;
  out: string;
  said: string;
}

/**
 * Runs the command line, as a person does. This process goes on meanwhile: one that stood still would not hear that a server
 * has closed an idle connection, and would ask on it next.
 */
export function kettle(args: readonly string[], env: Record<string, string | undefined> = {}): Promise<CommandEnd> {
  const options = { env: { ...process.env, KETTLE_LOG_LEVEL: 'silent', ...env } };
  return new Promise((resolve) => {
    const child = execFile(process.execPath, ['bin/kettle.mjs', ...args], options, (_, out, said) =>
      resolve({ status: child.exitCode ?? -1, out, said }),
    );
  });
}
