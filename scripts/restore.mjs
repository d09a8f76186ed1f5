/**
 * Puts a backup back: `npm run restore -- FILE`. The application must be stopped. What stood there before is kept beside it
 * under another name; nothing is deleted.
 */
import { existsSync, renameSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { checkedManifest, differences, restoreInto } from './lib/backups.mjs';
import { takeFolder } from './lib/keeper.mjs';
import { removeMariaDb } from './lib/mariadb.mjs';
import { run, say, Stop } from './lib/say.mjs';
import { checkNode, ensureProgram, VAR } from './lib/system.mjs';

const home = process.env.SPIRAXIS_VAR ?? VAR;
const folder = join(home, 'mariadb');

await run(async () => {
  checkNode();
  const { positionals } = parseArgs({ allowPositionals: true });
  const [name] = positionals;
  if (!name || positionals.length > 1) throw new Stop('name one backup: npm run restore -- FILE.sql.gz');
  const file = resolve(name);
  if (!file.endsWith('.sql.gz') || !existsSync(file))
    throw new Stop(`there is no backup ${file}; they end in .sql.gz.`);
  ensureProgram('mariadb', ['mariadb-client-core']);
  const manifest = await checkedManifest(file);
  const held = await takeFolder(home);
  const fresh = `${folder}-restoring`;
  try {
    removeMariaDb(fresh);
    const wrong = differences(manifest.tables, await restoreInto(file, fresh));
    if (wrong.length > 0)
      throw new Stop(`the backup did not come back as it was: ${wrong.join('; ')}. Nothing was changed.`);
    const before = `${folder}-before-${new Date().toISOString().replaceAll(/[-:.]/g, '')}`;
    if (existsSync(folder)) {
      renameSync(folder, before);
      say(`what stood there before is kept in ${before}.`);
    }
    renameSync(fresh, folder);
    say(
      `restored as of ${manifest.madeAt}: ${Object.keys(manifest.tables).length} tables. Start the application again.`,
    );
  } finally {
    removeMariaDb(fresh);
    held.letGo();
  }
});
