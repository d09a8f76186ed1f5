/**
 * A shed of one's own on a shop's own network: `npm run serve -- --address 10.0.4.2 --host shed.local --cert FILE --key FILE`.
 * The same parts as the demonstration, without its data and people; the first start prints the first lead's word. It does
 * not start where it would be heard beyond this machine without TLS. `--sheds sheds.local` carries many sheds, each under a
 * name of its own; `npm run sheds` makes them.
 */
import { accessSync, constants } from 'node:fs';
import { isIP } from 'node:net';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { run, Stop } from './lib/say.mjs';
import { startShed } from './lib/startShed.mjs';
import { VAR } from './lib/system.mjs';

const LOOPBACK = ['127.0.0.1', '::1'];

/** A file that can be read, by its whole name. */
function readable(option, file) {
  try {
    accessSync(file, constants.R_OK);
  } catch {
    throw new Stop(`--${option} ${file} cannot be read; name the file that the certificate's issuer gave.`);
  }
  return resolve(file);
}

let shed = null;
await run(async () => {
  const { values } = parseArgs({
    options: {
      address: { type: 'string', default: '127.0.0.1' },
      port: { type: 'string', default: '8443' },
      host: { type: 'string', multiple: true, default: [] },
      sheds: { type: 'string' },
      lead: { type: 'string', default: '' },
      cert: { type: 'string' },
      key: { type: 'string' },
    },
  });
  const { address, host, cert, key, sheds, lead } = values;
  const port = Number(values.port);
  if (isIP(address) === 0)
    throw new Stop(`--address ${address} is no address; give one of this machine, as 10.0.4.2.`);
  if (!(Number.isInteger(port) && port > 0 && port < 65_536))
    throw new Stop(`--port ${values.port} is no port.`);
  if ((cert === undefined) !== (key === undefined))
    throw new Stop('--cert and --key go together; give both.');
  const proxied = process.env.SPIRAXIS_PROXY === '1' && process.env.SPIRAXIS_TLS === '1';
  if (!LOOPBACK.includes(address) && !cert && !proxied)
    throw new Stop(
      `it would be heard on ${address} without TLS: PINs and locks would go over the air for everybody to read. Give --cert and --key, or put a proxy before it (docs/serving.md).`,
    );
  const bad = [...host, ...(sheds === undefined ? [] : [sheds])].find((name) => !/^[\w.-]+$/.test(name));
  if (bad !== undefined)
    throw new Stop(`${bad} is no name of a host; give it without port or slashes, as shed.local.`);
  const names = [...host, ...(LOOPBACK.includes(address) ? [] : [address])];
  shed = {
    home: process.env.SPIRAXIS_VAR ?? join(VAR, 'shop'),
    port,
    dbPort: Number(process.env.SPIRAXIS_DB_PORT ?? 33063),
    address: `${cert ? 'https' : 'http'}://${sheds === undefined ? (host[0] ?? address) : `NAME.${sheds}`}:${port}`,
    seed: sheds === undefined ? ['scripts/seed.ts', '--empty'] : ['scripts/sheds.ts', 'up'],
    devices: [],
    env: {
      SPIRAXIS_ADDRESS: address,
      SPIRAXIS_HOSTS: names.join(','),
      SPIRAXIS_DEMO: '',
      SPIRAXIS_SHEDS: sheds ?? '',
      ...(lead === '' ? {} : { SPIRAXIS_LEAD: lead }),
      ...(cert ? { SPIRAXIS_CERT: readable('cert', cert), SPIRAXIS_KEY: readable('key', key) } : {}),
    },
  };
});
if (shed) await startShed(shed);
