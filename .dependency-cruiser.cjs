/** Arrows go one way: app -> features -> ui, workers, db -> core. The core imports nothing but core and Zod. */
module.exports = {
  forbidden: [
    {
      name: 'no-cycles',
      severity: 'error',
      from: {},
      // A type may look back (a kind of part knows what a compiled circuit is); nothing that runs may.
      to: { circular: true, viaOnly: { dependencyTypesNot: ['type-only'] } },
    },
    {
      name: 'core-is-pure',
      severity: 'error',
      from: { path: '^src/core', pathNot: '\\.test\\.ts$' },
      to: { pathNot: ['^src/core', '^node_modules/zod'] },
    },
    {
      name: 'core-has-no-node',
      severity: 'error',
      from: { path: '^src/core', pathNot: '\\.test\\.ts$' },
      to: { dependencyTypes: ['core'] },
    },
    {
      name: 'words-over-core',
      severity: 'error',
      from: { path: '^src/words', pathNot: '\\.test\\.ts$' },
      to: { path: '^src/(app|features|db|ui|workers|cli|devices|formats)' },
    },
    {
      name: 'formats-over-core',
      severity: 'error',
      from: { path: '^src/formats', pathNot: '\\.test\\.ts$' },
      to: { path: '^src/(app|features|db|ui|workers|cli|devices)' },
    },
    {
      name: 'devices-over-core',
      severity: 'error',
      from: { path: '^src/devices', pathNot: '\\.test\\.ts$' },
      to: { path: '^src/(app|features|db|ui|workers|cli)' },
    },
    {
      name: 'db-below-features',
      severity: 'error',
      from: { path: '^src/db' },
      to: { path: '^src/(app|features|ui|workers)' },
    },
    {
      name: 'ui-below-features',
      severity: 'error',
      from: { path: '^src/ui' },
      to: { path: '^src/(app|features|db|workers)' },
    },
    {
      name: 'workers-below-features',
      severity: 'error',
      from: { path: '^src/workers' },
      to: { path: '^src/(app|features|db|ui)' },
    },
    {
      name: 'features-below-app',
      severity: 'error',
      from: { path: '^src/features' },
      to: { path: '^src/app' },
    },
    {
      name: 'cli-over-core',
      severity: 'error',
      from: { path: '^src/cli' },
      to: { path: '^src/(app|features|db|ui|workers)' },
    },
    {
      name: 'sql-only-in-db',
      severity: 'error',
      from: { path: '^src', pathNot: '^src/db' },
      to: { path: '^node_modules/mysql2' },
    },
    {
      name: 'app-over-features',
      severity: 'error',
      from: { path: '^src/app', pathNot: '^src/app/globals' },
      to: { path: '^src/db' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsConfig: { fileName: 'tsconfig.json' },
    tsPreCompilationDeps: true,
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['import', 'require', 'node', 'default', 'types'],
    },
  },
};
