import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { ensureBuild } from './setup/build.mjs';
import { startDatabase } from './setup/database.mjs';
import { DATABASE_PROGRAMS, ensurePrograms } from './setup/debian.mjs';
import { ensurePackages } from './setup/packages.mjs';
import { endProcess, PROCESSES, processEnvironment, startProcess, untilAnswers } from './setup/processes.mjs';

const root = path.dirname(path.dirname(fileURLToPath(import.meta.url)));
const env = processEnvironment(root);
const running = new Map();
const commands = new Set();
let database;
let ending = false;

async function end(code) {
  if (ending) return;
  ending = true;
  await Promise.all([...running.values(), ...commands].map((child) => endProcess(child)));
  await endProcess(database);
  process.exit(code);
}

/** Keeps a process running: one that dies is started again, what it held is taken up. */
function keep(name) {
  const child = startProcess(root, name, env);
  running.set(name, child);
  child.once('exit', async (code) => {
    if (ending) return;
    console.error(`${name} ended (${code}); it is started again. ${env.KETTLE_HOME}/logs/${name}.log may say why.`);
    await pause(1000);
    if (!ending) keep(name);
  });
}

/** Keeps the database running, too: what waits for it goes on when it is there again. */
async function keepDatabase() {
  database = await startDatabase(env.KETTLE_HOME, Number(env.KETTLE_DB_PORT));
  database.once('exit', async (code) => {
    if (ending) return;
    console.error(
      `The database ended (${code}); it is started again. ${env.KETTLE_HOME}/logs/database.log may say why.`,
    );
    for (let tries = 1; !ending; tries += 1) {
      await pause(1000);
      try {
        if (!ending) await keepDatabase();
        return;
      } catch (error) {
        console.error(`${error.message} Tried ${tries} times.`);
      }
    }
  });
}

async function kettle(...args) {
  const child = spawn(process.execPath, ['bin/kettle.mjs', ...args], {
    cwd: root,
    env,
    stdio: 'inherit',
    detached: true,
  });
  commands.add(child);
  const [status] = await once(child, 'exit');
  commands.delete(child);
  if (status !== 0 && !ending) throw new Error(`kettle ${args.join(' ')} failed.`);
}

for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => end(0));

try {
  // Several machines share a database that somebody else runs.
  const isPrivate = !env.KETTLE_DATABASE_URL;
  ensurePrograms([...(isPrivate ? DATABASE_PROGRAMS : []), 'ffmpeg', 'ffprobe']);
  ensurePackages(root);
  mkdirSync(env.KETTLE_HOME, { recursive: true });
  if (isPrivate) await keepDatabase();
  const demo = env.KETTLE_DEMO !== 'off';
  // The demo's videos are drawn while the pages are built.
  await Promise.all([ensureBuild(root), demo && kettle('demo', '--draw-only')]);
  await kettle('migrate');
  for (const name of Object.keys(PROCESSES)) keep(name);
  const address = `http://127.0.0.1:${env.KETTLE_PORT}`;
  await untilAnswers(`http://127.0.0.1:${env.KETTLE_SITES_PORT}/.well-known/oauth-authorization-server`);
  await untilAnswers(`${address}/api/health`);
  if (demo) await kettle('demo');
  console.error(`\nKettle Drop: ${address}\nCtrl-C ends it.`);
} catch (error) {
  if (!ending) console.error(error.message);
  await end(1);
}
