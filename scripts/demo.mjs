/**
 * One command: packages, build, a database of its own on loopback, demo data, and the application on
 * http://127.0.0.1:3000. Started again it keeps what was entered; `--fresh` starts over. What ends by itself is started
 * again; Ctrl-C stops all of it.
 */
import { say } from './lib/say.mjs';
import { startShed } from './lib/startShed.mjs';
import { VAR } from './lib/system.mjs';

const port = Number(process.env.SPIRAXIS_PORT ?? 3000);
const busPort = Number(process.env.SPIRAXIS_BUS_PORT ?? 33070);
const meterPort = Number(process.env.SPIRAXIS_METER_PORT ?? 33080);

const unknown = process.argv.slice(2).find((word) => word !== '--fresh');
if (unknown) {
  say(`unknown option ${unknown}; the only one is --fresh.`);
  process.exit(1);
}

await startShed({
  home: process.env.SPIRAXIS_VAR ?? VAR,
  port,
  dbPort: Number(process.env.SPIRAXIS_DB_PORT ?? 33060),
  address: `http://127.0.0.1:${port}`,
  seed: ['scripts/seed.ts'],
  fresh: process.argv.includes('--fresh'),
  devices: [
    { name: 'simulated bus', script: 'bus-simulator', port: busPort, setting: 'SPIRAXIS_BUS_PORT' },
    { name: 'simulated meter', script: 'meter-simulator', port: meterPort, setting: 'SPIRAXIS_METER_PORT' },
  ],
  env: {
    SPIRAXIS_BUS_PORT: String(busPort),
    SPIRAXIS_METER_PORT: String(meterPort),
    SPIRAXIS_METER: process.env.SPIRAXIS_METER ?? `127.0.0.1:${meterPort}`,
    // Everybody is invented here, and signs in with one press; on loopback alone.
    SPIRAXIS_DEMO: '1',
    SPIRAXIS_ADDRESS: '127.0.0.1',
  },
});
