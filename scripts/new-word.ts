/**
 * A new first word for a lead who has lost password or code where no other lead is left to give one: `npm run word`, `npm run word -- NAME`,
 * `--shed NAME` for one of many. For the shed's keeper, on the server itself; it stands in the trail.
 */
import './lib/patient';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { closePool } from '../src/db/pool';
import { inShed } from '../src/db/shed';
import { insertTrail } from '../src/db/trail';
import { ownerUrl } from './lib/ownerUrl.mjs';
import { putWordForLead } from './lib/putPeople';
import { VAR } from './lib/system.mjs';

const SHOP_PORT = 33_063;

async function give(called: string | undefined): Promise<void> {
  const at = new Date();
  const lead = await putWordForLead(at.getTime(), called);
  if (!lead) throw new Error(called ? `no lead is called "${called}"` : 'nobody leads here');
  await insertTrail({
    what: 'secretReset',
    person: 'the keeper',
    accountId: null,
    deviceId: null,
    address: 'the server itself',
    requestId: '',
    about: lead.name,
    at,
  });
  process.stdout.write(
    `spiraxis: sign in within three days as "${lead.name}" with the word ${lead.word}, which is shown this once.\n`,
  );
}

try {
  const { values, positionals } = parseArgs({
    allowPositionals: true,
    options: { shed: { type: 'string' } },
  });
  process.env.SPIRAXIS_DATABASE_URL = ownerUrl(process.env.SPIRAXIS_VAR ?? join(VAR, 'shop'), SHOP_PORT);
  if (values.shed) process.env.SPIRAXIS_SHEDS ||= 'sheds.local';
  await (values.shed ? inShed(values.shed, () => give(positionals[0])) : give(positionals[0]));
} catch (error) {
  process.stderr.write(`spiraxis: ${(error as Error).message}\n`);
  process.exitCode = 1;
} finally {
  await closePool();
}
