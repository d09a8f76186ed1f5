import { spawnSync } from 'node:child_process';

/** The demo data without the fleet's two winters, and nothing else, in the database that the tests were given. Runs the script that users run. */
export function seedAfresh(): void {
  const done = spawnSync('npx', ['tsx', 'scripts/seed.ts', '--fresh', '--small'], {
    encoding: 'utf8',
    env: process.env,
  });
  if (done.status !== 0) throw new Error(`the demo data could not be prepared: ${done.stderr}`);
}
