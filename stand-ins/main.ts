import path from 'node:path';
import { fieldgate } from './fieldgate/server';
import { lanternfold } from './lanternfold/server';
import { mailCatcher } from './mail/server';
import { pipwire } from './pipwire/server';
import { stallmarket } from './stallmarket/server';

const home = path.join(process.env.KETTLE_HOME ?? '.kettle', 'stand-ins');
const firstPort = Number(process.env.KETTLE_SITES_PORT ?? 7310);
/** Hours of the sites pass quickly: so many real milliseconds each. */
const hour = Number(process.env.KETTLE_SITE_HOUR_SECONDS ?? 1) * 1000;

const servers = [
  await lanternfold(path.join(home, 'lanternfold'), firstPort, hour),
  await fieldgate(path.join(home, 'fieldgate'), firstPort + 1, hour),
  await pipwire(path.join(home, 'pipwire'), firstPort + 2, hour),
  await stallmarket(path.join(home, 'stallmarket'), firstPort + 3, hour),
  await mailCatcher(path.join(home, 'mail'), firstPort + 4),
];
console.error(`Stand-ins listen from port ${firstPort}`);

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, async () => {
    await Promise.all(servers.map((server) => server.close()));
    process.exit(0);
  });
}
