/** Imports run one way: pages → server → data → core; ui, workers, cli → core. */
module.exports = {
  forbidden: [
    {
      name: 'core-is-pure',
      comment: 'the core imports only itself and numerics',
      severity: 'error',
      from: { path: '^src/core', pathNot: '\\.test\\.ts$' },
      to: {
        pathNot:
          '^src/core|node_modules/(@stdlib|ml-matrix|zod|papaparse|@types/papaparse|fflate|saxes|manifold-3d|@noble/hashes)/',
      },
    },
    {
      name: 'core-faces',
      comment: 'a folder of the core is used through its face (browser bundles may take one file)',
      severity: 'error',
      from: { path: '^src/core/([^/]+)/', pathNot: '\\.test\\.ts$' },
      to: { path: '^src/core/[^/]+/', pathNot: '^src/core/($1/|[^/]+/index\\.ts$)' },
    },
    {
      name: 'data-knows-core-only',
      severity: 'error',
      from: { path: '^src/data' },
      to: { path: '^src/(server|pages|ui|workers|cli)' },
    },
    {
      name: 'server-knows-data-and-core',
      severity: 'error',
      from: { path: '^src/server' },
      to: { path: '^src/(pages|ui|workers|cli)' },
    },
    {
      name: 'ui-takes-only-types-of-the-server',
      severity: 'error',
      from: { path: '^src/ui' },
      to: { path: '^src/(server|data|pages|cli)', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'workers-know-core',
      comment: 'and how a sliced file on disk is opened',
      severity: 'error',
      from: { path: '^src/workers' },
      to: {
        path: '^src/(server|data|pages|ui|cli)',
        pathNot: '^src/server/(toolpaths/|artefacts/task)',
      },
    },
    {
      name: 'cli-knows-core-and-server',
      severity: 'error',
      from: { path: '^src/cli' },
      to: { path: '^src/(pages|ui|workers)' },
    },
    {
      name: 'sql-lives-in-data',
      severity: 'error',
      from: { path: '^src', pathNot: '^src/data' },
      to: { path: 'node_modules/(sequelize|pg|umzug)/' },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
  },
};
