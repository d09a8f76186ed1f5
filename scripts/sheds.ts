/**
 * Many sheds on one server, each in a schema of its own, called by its own name: `npm run sheds -- add NAME [LEAD]`, `list`, and
 * `up`, which brings all of them up to date. For their keeper; the database is the start command's, or the owner's that
 * `SPIRAXIS_DATABASE_URL` names.
 */
import './lib/patient';
import { join } from 'node:path';
import { addShed, bringUp, listSheds } from '../src/db/sheds';
import { closePool } from '../src/db/pool';
import { inShed } from '../src/db/shed';
import { ownerUrl } from './lib/ownerUrl.mjs';
import { putFirstLead } from './lib/putPeople';
import { VAR } from './lib/system.mjs';

const say = (text: string) => process.stdout.write(`spiraxis: ${text}\n`);
const SHOP_PORT = 33_063;

/** Makes a shed; says how its first lead signs in, once. */
async function add(name: string, called?: string): Promise<void> {
  if (!(await addShed(name))) throw new Error(`there is a shed "${name}" already`);
  const lead = await inShed(name, () => putFirstLead(Date.now(), called));
  const under = process.env.SPIRAXIS_SHEDS!;
  say(
    `${name}.${under} is there. Sign in within three days as "${lead?.name}" with the word ${lead?.word}, which is shown this once.`,
  );
}

/** All of them, as a new version of the program needs them; one that cannot be brought up holds no other back. */
async function up(): Promise<void> {
  const sheds = await listSheds();
  let failed = 0;
  for (const shed of sheds) {
    try {
      const applied = await bringUp(shed);
      if (applied.length > 0) say(`${shed}: brought up to ${applied.at(-1)}`);
    } catch (error) {
      failed++;
      say(`${shed} could not be brought up to date: ${(error as Error).message}`);
    }
  }
  say(`${sheds.length} sheds${failed > 0 ? `, ${failed} of them not up to date; see above` : ''}`);
  if (failed > 0) process.exitCode = 1;
}

const [what, name, called] = process.argv.slice(2);
process.env.SPIRAXIS_SHEDS ||= 'sheds.local';
try {
  process.env.SPIRAXIS_DATABASE_URL = ownerUrl(process.env.SPIRAXIS_VAR ?? join(VAR, 'shop'), SHOP_PORT);
  if (what === 'add' && name) await add(name, called);
  else if (what === 'list') for (const shed of await listSheds()) say(shed);
  else if (what === 'up') await up();
  else throw new Error('say what: add NAME and what its lead is called, list, or up');
} catch (error) {
  process.stderr.write(`spiraxis: ${(error as Error).message}\n`);
  process.exitCode = 1;
} finally {
  await closePool();
}
