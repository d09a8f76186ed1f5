/**
 * A backup of the shed's database while it runs: `npm run backup -- [--to FOLDER] [--keep 14]`. It is restored into a
 * database of its own and read there before it counts. The oldest beyond `--keep` are taken away.
 */
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { makeBackup } from './lib/backups.mjs';
import { HOME, ownerUrl } from './lib/ownerUrl.mjs';
import { run, say, Stop } from './lib/say.mjs';
import { checkNode } from './lib/system.mjs';

const KEEP = 14;

await run(async () => {
  checkNode();
  const { values } = parseArgs({ options: { to: { type: 'string' }, keep: { type: 'string' } } });
  const most = Number(values.keep ?? KEEP);
  if (!Number.isInteger(most) || most < 1)
    throw new Stop(`--keep is how many backups stay, 1 or more (given ${values.keep}).`);
  const { file, manifest, dropped } = await makeBackup({
    url: ownerUrl(),
    folder: values.to ?? join(HOME, 'backups'),
    most,
  });
  const tables = Object.values(manifest.tables);
  const rows = tables.reduce((sum, one) => sum + one.rows, 0);
  say(`${file}: ${tables.length} tables, ${rows} rows, ${manifest.bytes} bytes; restored and read once.`);
  if (dropped.length > 0) say(`${dropped.length} older taken away: ${dropped.join(', ')}.`);
});
