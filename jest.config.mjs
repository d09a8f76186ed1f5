import nextJest from 'next/jest.js';

const createJestConfig = nextJest({ dir: './' });
/** Packages that ship ECMAScript modules only. */
const MODULES = [
  'iron-session',
  'iron-webcrypto',
  'uncrypto',
  'cookie',
  'uuid',
  '@tanstack/react-table',
  '@tanstack/table-core',
  '@tanstack/react-store',
  '@tanstack/store',
];

/**
 * Looked up in the sandbox of a test they cost more than the arithmetic between them: handed to every module instead. Not in a
 * page, where icons bear such names.
 */
const FAST_GLOBALS = [
  'Array',
  'Boolean',
  'Float64Array',
  'Infinity',
  'Int32Array',
  'JSON',
  'Map',
  'Math',
  'Number',
  'Object',
  'Set',
  'String',
  'Uint8Array',
  'WeakMap',
];

/** One project's settings, with its ESM-only packages transformed. */
async function project(displayName, testMatch, testPathIgnorePatterns = [], testEnvironment = 'node') {
  const made = await createJestConfig({
    displayName,
    testEnvironment,
    testMatch,
    testPathIgnorePatterns: ['/node_modules/', ...testPathIgnorePatterns],
    moduleNameMapper: { '^@/(.*)$': '<rootDir>/src/$1', '^server-only$': '<rootDir>/scripts/lib/empty.cjs' },
  })();
  return {
    ...made,
    transformIgnorePatterns: [`/node_modules/(?!(${MODULES.join('|')})/)`],
    ...(testEnvironment === 'jsdom'
      ? { setupFiles: ['<rootDir>/scripts/lib/jsdom.cjs'] }
      : { sandboxInjectedGlobals: FAST_GLOBALS }),
  };
}

export default async () => ({
  // Patience for a machine that others use too; what is slow is measured in bench.
  testTimeout: 300_000,
  projects: [
    await project('core', ['<rootDir>/src/core/**/*.test.ts']),
    await project(
      'features',
      [
        '<rootDir>/src/{features,words,ui,workers,cli,formats,devices}/**/*.test.ts',
        '<rootDir>/src/*.test.ts',
        '<rootDir>/scripts/**/*.test.ts',
      ],
      ['\\.db\\.test\\.ts$'],
    ),
    // What people press, in a page without a browser.
    await project('screens', ['<rootDir>/src/{features,ui}/**/*.test.tsx'], [], 'jsdom'),
    // The queries, and the use cases over them, on a real MariaDB.
    await project('db', ['<rootDir>/src/db/**/*.test.ts', '<rootDir>/src/features/**/*.db.test.ts']),
  ],
});
