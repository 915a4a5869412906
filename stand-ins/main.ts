import path from 'node:path';
import { lanternfold } from './lanternfold/server';

const home = path.join(process.env.KETTLE_HOME ?? '.kettle', 'stand-ins');
const firstPort = Number(process.env.KETTLE_SITES_PORT ?? 7310);

const servers = [await lanternfold(path.join(home, 'lanternfold'), firstPort)];
console.error(`Stand-ins listen from port ${firstPort}`);

for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, async () => {
    await Promise.all(servers.map((server) => server.close()));
    process.exit(0);
  });
}
