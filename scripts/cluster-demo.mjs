/**
 * The demonstration on a cluster: three database nodes, two processes of the application, and a proxy before them, all on
 * this machine. What ends by itself is started again; Ctrl-C stops all of it. `--fresh` starts over.
 */
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { seeding, startCluster } from './lib/cluster.mjs';
import { takeFolder } from './lib/keeper.mjs';
import { run, say, Stop } from './lib/say.mjs';
import { checkNode, ensureBuild, ensurePackages, VAR } from './lib/system.mjs';

const home = process.env.SPIRAXIS_VAR ?? join(VAR, 'cluster');
const port = Number(process.env.SPIRAXIS_PORT ?? 3200);
const stops = [];
let stopping = null;
const stop = () =>
  (stopping ??= (async () => {
    for (const one of stops.toReversed()) await one();
    say('stopped.');
  })());
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
  process.on(signal, () => {
    if (stopping && signal === 'SIGINT') process.exit(1);
    void stop().then(() => process.exit());
  });

await run(async () => {
  const unknown = process.argv.slice(2).find((word) => word !== '--fresh');
  if (unknown) throw new Stop(`unknown option ${unknown}; the only one is --fresh.`);
  checkNode();
  try {
    const held = await takeFolder(home);
    stops.push(async () => held.letGo());
    ensurePackages();
    ensureBuild();
    if (process.argv.includes('--fresh')) rmSync(join(home, 'galera'), { recursive: true, force: true });
    const { galera, applications } = await startCluster({
      home,
      port,
      dbPort: Number(process.env.SPIRAXIS_DB_PORT ?? 33100),
      fill: seeding('scripts/seed.ts'),
      onStop: (one) => stops.push(one),
      env: { SPIRAXIS_DEMO: '1', SPIRAXIS_ADDRESS: '127.0.0.1', SPIRAXIS_BUS_PORT: '0' },
    });
    for (const node of galera.nodes)
      say(`node ${node.name}: process ${node.pid()}; kill -9 it to see the others go on`);
    for (const [at, { pid }] of applications.entries()) say(`application ${at + 1}: process ${pid}`);
    say(`open http://127.0.0.1:${port}  (Ctrl-C stops it)`);
    await new Promise((resolve) => stops.unshift(async () => resolve()));
  } finally {
    await stop();
  }
});
