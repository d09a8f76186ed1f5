/**
 * A whole shed as one file of lines of JSON, and back into an empty one: `npm run archive -- --to FILE`, `npm run archive -- --from FILE`.
 * For the shed's keeper; the database is the start command's, or the owner's that `SPIRAXIS_DATABASE_URL` names; `--shed NAME` is one of many.
 */
import './lib/patient';
import { createReadStream, createWriteStream } from 'node:fs';
import { rename } from 'node:fs/promises';
import { once } from 'node:events';
import { join } from 'node:path';
import { finished, pipeline } from 'node:stream/promises';
import { parseArgs } from 'node:util';
import { createGunzip, createGzip } from 'node:zlib';
import { InputError } from '../src/core/circuit/inputError';
import { migrate } from '../src/db/migrate';
import { closePool } from '../src/db/pool';
import { readShed, writeShed } from '../src/db/shedArchive';
import { inShed } from '../src/db/shed';
import { ownerUrl } from './lib/ownerUrl.mjs';
import { putWordForLead } from './lib/putPeople';
import { VAR } from './lib/system.mjs';

const say = (text: string) => process.stdout.write(`spiraxis: ${text}\n`);
const SHOP_PORT = 33_063;
const counted = (rows: Record<string, number>) =>
  `${rows['machines']} machines, ${rows['jobs']} jobs, ${rows['entries']} entries, ${rows['photos']} pictures`;

/** Written beside its place and put there whole: half an archive is never found under its name. */
async function take(file: string): Promise<void> {
  const packed = createGzip();
  const out = packed.pipe(createWriteStream(`${file}.part`));
  const rows = await writeShed(async (line) => {
    if (!packed.write(`${line}\n`)) await once(packed, 'drain');
  });
  packed.end();
  await finished(out);
  await rename(`${file}.part`, file);
  say(`${file}: ${counted(rows)}.`);
}

/** Text by its lines, as they come. */
async function* linesOf(source: AsyncIterable<string>) {
  let rest = '';
  for await (const piece of source) {
    const lines = `${rest}${piece}`.split('\n');
    rest = lines.pop()!;
    yield* lines;
  }
  if (rest !== '') yield rest;
}

async function put(file: string): Promise<void> {
  await migrate();
  const plain = createGunzip().setEncoding('utf8');
  const rows = await pipeline(createReadStream(file), plain, (source) =>
    readShed(linesOf(source as AsyncIterable<string>)),
  );
  say(`${counted(rows)} from ${file}.`);
  const lead = await putWordForLead(Date.now());
  say(
    lead === null
      ? 'No lead is among its people: nobody can sign in yet.'
      : `Nobody’s password or PIN was in it. Sign in within three days as "${lead.name}" with the word ${lead.word}, which is shown this once, and give the others new ones.`,
  );
}

try {
  const { values } = parseArgs({
    options: { to: { type: 'string' }, from: { type: 'string' }, shed: { type: 'string' } },
  });
  process.env.SPIRAXIS_DATABASE_URL = ownerUrl(process.env.SPIRAXIS_VAR ?? join(VAR, 'shop'), SHOP_PORT);
  const { to, from, shed } = values;
  if ((to === undefined) === (from === undefined))
    throw new Error('say one of --to FILE, which writes the shed, and --from FILE, which fills an empty one');
  const work = () => (to === undefined ? put(from!) : take(to));
  if (shed !== undefined) process.env.SPIRAXIS_SHEDS ||= 'sheds.local';
  await (shed === undefined ? work() : inShed(shed, work));
} catch (error) {
  const { message, code, path } = error as NodeJS.ErrnoException;
  const why =
    code === 'ENOENT'
      ? `there is no ${path}`
      : /^Z_/.test(code ?? '')
        ? `this is no whole archive (${message})`
        : message;
  process.stderr.write(`spiraxis: ${error instanceof InputError ? `${message}. Nothing was taken` : why}.\n`);
  process.exitCode = 1;
} finally {
  await closePool();
}
