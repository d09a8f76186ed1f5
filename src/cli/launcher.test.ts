import { spawnSync } from 'node:child_process';
import { readFileSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

const ROOT = process.cwd();
const BUNDLE = join(ROOT, 'var', 'cli', 'spiraxis.mjs');
const LIST = `${BUNDLE}.json`;
const run = (...args: string[]) =>
  spawnSync(process.execPath, [join(ROOT, 'scripts', 'spiraxis.mjs'), ...args], { encoding: 'utf8' });
const made = () => statSync(BUNDLE).mtimeMs;

describe('the command line', () => {
  it('is bundled once, and again when what went in is another', () => {
    expect(JSON.parse(run('reading', '4k7').stdout)).toMatchObject({ value: 4700 });
    const first = made();
    run('reading', '4k7');
    expect(made()).toBe(first);
    // A clock that was set back makes nothing current: it has to be the same file.
    const source = join(ROOT, 'src', 'cli', 'main.ts');
    const { atime, mtime } = statSync(source);
    try {
      utimesSync(source, atime, new Date('2020-01-01T00:00:00Z'));
      expect(run('reading', '27.4').status).toBe(0);
      expect(made()).not.toBe(first);
    } finally {
      utimesSync(source, atime, mtime);
    }
  });

  it.each(['{"a":1}', '[tru', '["src/cli/main.ts"]'])('makes it anew where its list reads %s', (damaged) => {
    run('reading', '1');
    writeFileSync(LIST, damaged);
    expect(run('reading', '4k7').status).toBe(0);
    expect(JSON.parse(readFileSync(LIST, 'utf8'))).toEqual(
      expect.arrayContaining([['src/cli/main.ts', expect.any(Number), expect.any(Number)]]),
    );
  });

  it('says a bad input in one line and with its own status, from nothing as well', () => {
    rmSync(join(ROOT, 'var', 'cli'), { recursive: true, force: true });
    const { status, stderr, stdout } = run('diagnose', join(ROOT, 'no-such-file.json'));
    expect(status).toBe(2);
    expect(stdout).toBe('');
    expect(stderr.trim().split('\n')).toHaveLength(1);
  });
});
