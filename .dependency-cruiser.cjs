/** The wings of the core, and which others each may know. */
const WINGS = {
  model: [],
  statistics: ['model'],
  geometry: ['model'],
  toolpath: ['model', 'statistics'],
  measures: ['model', 'statistics'],
  answers: ['model', 'statistics', 'geometry', 'toolpath', 'measures'],
  text: ['model', 'statistics', 'geometry', 'toolpath', 'measures', 'answers'],
};

/** The folders of the server: each may know those before it. */
const SUBJECTS = (
  'network http access api jobs live uploads pictures backup rows artefacts photos panels ' +
  'sliced-files line-up study results question plan watching link report measure inspect runs workshop desk'
).split(' ');

/** Imports run one way: processes, pages → server → data, files → core; ui, threads, cli → core. */
module.exports = {
  forbidden: [
    {
      name: 'core-is-pure',
      comment: 'the core imports only itself and numerics',
      severity: 'error',
      from: { path: '^src/core', pathNot: '\\.test\\.ts$' },
      to: {
        pathNot:
          '^src/core|node_modules/(@stdlib|ml-matrix|zod|papaparse|@types/papaparse|fflate|saxes|manifold-3d|@noble/hashes|fft.js)/',
      },
    },
    {
      name: 'core-faces',
      comment:
        'a folder of the core is used through its face; words and lists without schemas, and sums without distributions, may be taken alone, for the bundles of the browser and of what starts often',
      severity: 'error',
      from: { path: '^src/core/(toolpath|[^/]+/[^/]+)/', pathNot: '\\.test\\.ts$' },
      to: {
        path: '^src/core/',
        pathNot:
          '^src/core/($1/|(toolpath|[^/]+/[^/]+)/index\\.ts$|model/study/(labels|catalogues|settings|typed-number)\\.ts$|statistics/stats/summary\\.ts$)',
      },
    },
    ...Object.entries(WINGS).map(([wing, known]) => ({
      name: `wing-${wing}`,
      comment: `wings of the core know one another one way: ${wing} knows ${known.join(', ') || 'no other'}`,
      severity: 'error',
      from: { path: `^src/core/${wing}/`, pathNot: '\\.test\\.ts$' },
      to: { path: '^src/core/', pathNot: `^src/core/(${[wing, ...known].join('|')})/` },
    })),
    {
      name: 'contract-knows-core-and-types',
      comment: 'what the interface may see of the server: types, and what both read in an address',
      severity: 'error',
      from: { path: '^src/contract', pathNot: '\\.test\\.ts$' },
      to: { path: '^src/', pathNot: '^src/(contract|core)/', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'data-knows-core-only',
      severity: 'error',
      from: { path: '^src/data' },
      to: { path: '^src/(server|files|threads|processes|pages|ui|cli)' },
    },
    {
      name: 'files-know-core-only',
      comment: 'what opens packages, containers and meshes on disk: no database, no app',
      severity: 'error',
      from: { path: '^src/files' },
      to: { path: '^src/(data|server|threads|processes|pages|ui|cli)' },
    },
    {
      name: 'forms-know-core-only',
      comment:
        'what a report leaves in: text and pictures of a model; no disk, no database, no app',
      severity: 'error',
      from: { path: '^src/forms' },
      to: { path: '^src/(data|files|server|threads|processes|pages|ui|cli)' },
    },
    {
      name: 'server-knows-data-files-and-core',
      severity: 'error',
      from: { path: '^src/server' },
      to: { path: '^src/(threads|processes|pages|ui|cli)' },
    },
    {
      name: 'pages-ask-the-server',
      comment:
        'a page or endpoint checks, calls the server and answers; rows and SQL are not its own',
      severity: 'error',
      from: { path: '^src/(pages|middleware)' },
      to: { path: '^src/(data|files|threads|processes|cli)', dependencyTypesNot: ['type-only'] },
    },
    {
      name: 'ui-knows-the-contract',
      comment: 'what the interface sees of the server stands in the contract, types too',
      severity: 'error',
      from: { path: '^src/ui', pathNot: '\\.test\\.tsx?$' },
      to: { path: '^src/(server|data|files|threads|processes|pages|cli)' },
    },
    {
      name: 'threads-know-files-and-core',
      severity: 'error',
      from: { path: '^src/threads' },
      to: { path: '^src/(server|data|processes|pages|ui|cli)' },
    },
    {
      name: 'processes-know-the-server',
      severity: 'error',
      from: { path: '^src/processes' },
      to: { path: '^src/(pages|ui|threads|cli)' },
    },
    {
      name: 'cli-knows-core-files-and-server',
      severity: 'error',
      from: { path: '^src/cli' },
      to: { path: '^src/(threads|processes|pages|ui)' },
    },
    {
      name: 'sql-lives-in-data',
      severity: 'error',
      from: { path: '^src', pathNot: '^src/data' },
      to: { path: 'node_modules/(sequelize|pg|umzug)/' },
    },
    ...SUBJECTS.map((subject, at) => ({
      name: `subject-${subject}`,
      comment: `folders of the server know one another one way: ${subject} knows those before it`,
      severity: 'error',
      from: { path: `^src/server/${subject}/`, pathNot: '\\.test\\.ts$' },
      to: {
        path: '^src/server/[^/]+/',
        pathNot: `^src/server/(${SUBJECTS.slice(0, at + 1).join('|')})/`,
      },
    })),
    {
      name: 'subject-unlisted',
      comment: 'a new folder of the server has its place in the order',
      severity: 'error',
      from: {},
      to: { path: '^src/server/[^/]+/', pathNot: `^src/server/(${SUBJECTS.join('|')})/` },
    },
    { name: 'no-circles', severity: 'error', from: {}, to: { circular: true } },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    // It has a compiler of its own.
    exclude: { path: 'src/core/.+/hot/assembly' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
  },
};
