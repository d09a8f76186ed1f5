/**
 * What a cluster bears: people write through the proxy all the time while each database node and each process of the
 * application is killed, a node is parted from the others by a firewall, two of three stand still, one is slow, and one
 * comes back after a while. Afterwards every acknowledged entry stands once on every node.
 *
 *   npm run cluster:test
 */
import { spawnSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
import { v7 as uuidv7 } from 'uuid';
import { seeding, startCluster } from './lib/cluster.mjs';
import { account, fault as faultAt, recovered, sleep, tellRefusals, writers } from './lib/faults.mjs';
import { run, say, Stop } from './lib/say.mjs';
import { signInCookie } from './lib/signIn.mjs';
import { checkNode, ensureBuild, ensurePackages, has, VAR } from './lib/system.mjs';

const port = Number(process.env.SPIRAXIS_TEST_PORT ?? 3240);
const base = `http://127.0.0.1:${port}`;
const home = join(VAR, 'cluster-test');
const WRITERS = 8;
const JOBS = [403, 411, 416, 417];
const STILL_SECONDS = 8;
const TABLE = 'spiraxis_parted';
const results = [];
const longest = [];

/** Parts a node from the others as a broken switch would; null where this user may set no rules. */
function firewall() {
  const nft = (...words) => spawnSync('nft', words, { encoding: 'utf8' });
  if (!has('nft')) return null;
  nft('delete', 'table', 'inet', TABLE);
  if (nft('add', 'table', 'inet', TABLE).status !== 0) return null;
  nft('add', 'chain', 'inet', TABLE, 'in', '{ type filter hook input priority 0; }');
  return {
    part: (node, others) => {
      for (const other of others)
        for (const [from, to] of [
          [node.address, other.address],
          [other.address, node.address],
        ])
          nft('add', 'rule', 'inet', TABLE, 'in', 'ip', 'saddr', from, 'ip', 'daddr', to, 'drop');
    },
    join: () => nft('flush', 'chain', 'inet', TABLE, 'in'),
    end: () => nft('delete', 'table', 'inet', TABLE),
  };
}

/** What a node says of itself. */
async function stateOf({ ownerUrl }) {
  const connection = await createConnection({ uri: ownerUrl, connectTimeout: 1000 }).catch(() => null);
  if (!connection) return {};
  try {
    const [rows] = await connection.query("SHOW STATUS LIKE 'wsrep_%'");
    return Object.fromEntries(rows.map(({ Variable_name, Value }) => [Variable_name, Value]));
  } finally {
    connection.destroy();
  }
}

/** Waits until all three nodes stand together again. */
async function together(nodes) {
  for (let waited = 0; ; waited += 0.3) {
    const states = await Promise.all(nodes.map(stateOf));
    if (states.every((state) => state.wsrep_ready === 'ON' && state.wsrep_cluster_size === '3'))
      return waited;
    if (waited > 90) throw new Stop('the nodes do not stand together again.');
    await sleep(300);
  }
}

/** What is written at one process reaches who follows the job at the other. */
async function crossing([one, other]) {
  const [near, far] = [one, other].map(({ port: at }) => `http://127.0.0.1:${at}`);
  const [writer, reader] = [await signInCookie(near, 'Tove'), await signInCookie(far, 'Henrike')];
  const line = await fetch(`${far}/api/jobs/${JOBS[0]}/events?after=0`, { headers: { cookie: reader } });
  const id = uuidv7();
  let seen = null;
  const reading = (async () => {
    const decoder = new TextDecoder();
    for await (const piece of line.body) {
      if (!decoder.decode(piece, { stream: true }).includes(id)) continue;
      seen = performance.now();
      break;
    }
  })().catch(() => undefined);
  await sleep(1500);
  const began = performance.now();
  const entry = {
    id,
    at: new Date().toISOString(),
    person: 'Tove',
    type: 'looked',
    body: { check: 'plug X9', finding: 'good' },
  };
  await fetch(`${near}/api/jobs/${JOBS[0]}/entries`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', cookie: writer },
    body: JSON.stringify({ entries: [entry] }),
  });
  await Promise.race([reading, sleep(10_000)]);
  if (seen === null) throw new Stop('an entry written at one process never came to the other.');
  results.push(`an entry of one process was on the other’s event line after ${Math.round(seen - began)} ms`);
  say(results.at(-1));
}

await run(async () => {
  checkNode();
  ensurePackages();
  ensureBuild();
  rmSync(home, { recursive: true, force: true });
  const stops = [];
  const wall = firewall();
  if (wall) stops.push(async () => void wall.end());
  else say('this user may set no firewall rules: a node is not parted from the others.');
  try {
    const { galera, applications } = await startCluster({
      home,
      port,
      dbPort: Number(process.env.SPIRAXIS_TEST_DB_PORT ?? 33240),
      fill: seeding('scripts/seed.ts', '--small'),
      onStop: (one) => stops.push(one),
      env: {
        SPIRAXIS_DEMO: '1',
        SPIRAXIS_ADDRESS: '127.0.0.1',
        SPIRAXIS_BUS_PORT: '0',
        SPIRAXIS_LOG: process.env.SPIRAXIS_LOG ?? 'error',
        SPIRAXIS_CALLS_A_MINUTE: '1000000',
      },
    });
    const { nodes } = galera;
    await recovered(base, 'the start');
    await crossing(applications);
    await crossing(applications.toReversed());
    const { known, stop } = writers(base, JOBS, WRITERS);
    stops.push(stop);
    await sleep(3000);
    const look = async () => {
      const seen = await Promise.all(nodes.map(async (node) => [node.name, await node.look()]));
      return seen.flatMap(([name, lines]) => lines.map((line) => `  ${name}: ${line}`));
    };
    const fault = async (what, work) => {
      results.push(await faultAt(base, what, known, work, look));
      longest.push(known.longestMs);
      await together(nodes);
    };
    for (const node of nodes)
      await fault(`node ${node.name} killed`, async () => {
        await node.kill();
        await sleep(5000);
        await node.start();
      });
    for (const [at, application] of applications.entries())
      await fault(`application ${at + 1} killed`, async () => {
        process.kill(application.pid, 'SIGKILL');
        await sleep(6000);
      });
    if (wall)
      await fault('the first node parted from the others by a firewall', async () => {
        wall.part(nodes[0], nodes.slice(1));
        await sleep(STILL_SECONDS * 1000);
        const { wsrep_cluster_status: status } = await stateOf(nodes[0]);
        if (status === 'Primary') throw new Stop('the parted node still takes itself for the cluster.');
        say(`  the parted node says ${status}`);
        wall.join();
      });
    const before = [...known.refusals.values()].reduce((sum, n) => sum + n, 0);
    await fault('two of three nodes stand still: the one that is left refuses', async () => {
      for (const node of nodes.slice(1)) node.signal('SIGSTOP');
      await sleep(STILL_SECONDS * 1000);
      for (const node of nodes.slice(1)) node.signal('SIGCONT');
    });
    const refused = [...known.refusals.values()].reduce((sum, n) => sum + n, 0) - before;
    if (refused === 0) throw new Stop('a minority of the nodes refused nothing.');
    say(`  ${refused} refusals with a sentence meanwhile`);
    await fault('a slow node, a third of the time at work', async () => {
      for (let at = 0; at < 40; at++) {
        nodes[2].signal('SIGSTOP');
        await sleep(200);
        nodes[2].signal('SIGCONT');
        await sleep(100);
      }
    });
    await fault('a node stopped in order, away for 12 s, and back', async () => {
      await nodes[1].stop();
      await sleep(12_000);
      await nodes[1].start();
    });
    await stop();
    for (const node of nodes) await account(known, node.ownerUrl, `on ${node.name}`);
    tellRefusals(known);
    say(`longest pause of anybody: ${(Math.max(...longest) / 1000).toFixed(1)} s`);
  } finally {
    for (const one of stops.toReversed()) await one();
  }
  process.stdout.write(`${results.length} passed, 0 failed\n`);
});
