import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';

/** The programs that Node.js runs beside the pages, each by the file that it begins with. */
const PROGRAMS = { worker: 'src/worker/main.ts', 'stand-ins': 'stand-ins/main.ts', kettle: 'bin/commands/kettle.ts' };

const BUILT_FROM = [
  'src',
  'bin/commands',
  'bin/setup/programs.mjs',
  'demo',
  'stand-ins',
  'package-lock.json',
  'tsconfig.json',
];
const FOLDER = '.programs';
const OTHER_DRIVERS = [
  'better-sqlite3',
  'mariadb',
  'mysql',
  'oracledb',
  'pg',
  'pg-native',
  'pg-query-stream',
  'sqlite3',
  'tedious',
];
/** Packages that are CommonJS ask for modules of Node.js by it (esbuild, format ESM for Node.js). */
const REQUIRE = [
  "import { createRequire as requireFrom } from 'node:module';",
  "import { fileURLToPath as pathFrom } from 'node:url';",
  'const require = requireFrom(import.meta.url);',
  'const __filename = pathFrom(import.meta.url);',
  "const __dirname = pathFrom(new URL('.', import.meta.url));",
].join(' ');
/** One that runs still reads parts of what it was started from. */
const KEPT = 4;

/** Name, size and time of every source: a change shows in them, and nothing has to be read. */
function fingerprint(root) {
  const hash = createHash('sha256').update(process.version);
  const look = (file) => {
    const { size, mtimeMs } = statSync(file);
    hash.update(`${path.relative(root, file)} ${size} ${mtimeMs}\n`);
  };
  for (const name of BUILT_FROM) {
    const at = path.join(root, name);
    if (path.extname(name) !== '') look(at);
    else {
      const files = readdirSync(at, { withFileTypes: true, recursive: true }).filter((entry) => entry.isFile());
      for (const file of files.map((entry) => path.join(entry.parentPath ?? entry.path, entry.name)).sort()) look(file);
    }
  }
  return hash.digest('hex').slice(0, 16);
}

/** Takes away what older sources were bundled to, but the newest few. */
function tidy(folder) {
  const builds = readdirSync(folder).map((name) => path.join(folder, name));
  const times = new Map(builds.map((build) => [build, statSync(build).mtimeMs]));
  const sorted = builds.sort((a, b) => times.get(b) - times.get(a));
  for (const old of sorted.slice(KEPT)) rmSync(old, { recursive: true, force: true });
}

/**
 * The file that runs a program: its sources in a few files that Node.js starts in a fraction of the time. It is made anew
 * where the sources have changed since.
 */
export function programFile(root, name) {
  const folder = path.join(root, FOLDER);
  const built = path.join(folder, fingerprint(root));
  if (!existsSync(built)) {
    const { buildSync } = createRequire(import.meta.url)('esbuild');
    // Whoever is first puts it in its place; two at once make the same.
    const making = `${built}.${process.pid}`;
    mkdirSync(making, { recursive: true });
    buildSync({
      absWorkingDir: root,
      entryPoints: PROGRAMS,
      outdir: making,
      bundle: true,
      splitting: true,
      // With the packages: finding and reading each of their files is most of what a start costs. Drivers of other databases
      // are named by Knex, and are not there.
      external: OTHER_DRIVERS,
      banner: { js: REQUIRE },
      platform: 'node',
      format: 'esm',
      target: 'node20.19',
      sourcemap: 'linked',
      logLevel: 'error',
    });
    try {
      renameSync(making, built);
    } catch (error) {
      if (!existsSync(built)) throw error;
      rmSync(making, { recursive: true, force: true });
    }
    tidy(folder);
  }
  return path.join(built, `${name}.js`);
}
