import { ROOT } from './project.mjs';

/** How everything of ours is bundled. */
export const shared = {
  absWorkingDir: ROOT,
  outdir: 'dist',
  bundle: true,
  splitting: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  logLevel: 'warning',
};

/** What is packed: looking up hundreds of small files takes longer than running them. */
const packed = {
  ...shared,
  chunkNames: 'packed/[name]-[hash]',
  // What is shorter is read sooner; names stay, for whoever reads what went wrong.
  minifyWhitespace: true,
  minifySyntax: true,
  lineLimit: 200,
  banner: {
    js: "import { createRequire as makeRequire } from 'node:module';\nconst require = makeRequire(import.meta.url);",
  },
};

/** What only a running application needs, or what is no JavaScript. */
const OUTSIDE = [
  'pg-boss',
  'piscina',
  'pino',
  'mqtt',
  'aedes',
  'sharp',
  'zxing-wasm',
  'playwright-core',
  'selfsigned',
  'umzug',
];

/** The database's packages, which `database-packages.mjs` hands out. */
const DATABASE_PACKAGES = ['sequelize', 'pg'];

/**
 * The database's packages for the command, by themselves: so that they can be kept compiled.
 * @type {import('esbuild').BuildOptions & { outfile: string }}
 */
export const databasePackages = {
  ...packed,
  splitting: false,
  format: 'cjs',
  banner: {},
  sourcemap: false,
  stdin: {
    contents: DATABASE_PACKAGES.map((name) => `exports.${name} = require('${name}');`).join('\n'),
    resolveDir: ROOT,
  },
  outdir: undefined,
  outfile: 'dist/cli/database-packages.cjs',
  external: [
    'pg-native',
    'pg-hstore',
    // Other databases, which are opened where they are named only.
    ...['db2', 'mariadb', 'mssql', 'mysql', 'oracle', 'snowflake', 'sqlite'].map(
      (dialect) => `./dialects/${dialect}`,
    ),
  ],
  // Moments are in UTC here: nobody asks for the hours of places.
  alias: { 'moment-timezone': './node_modules/moment-timezone/moment-timezone.js' },
  // The database's client looks for other runtimes by it, and Node.js loads its HTTP client to answer.
  define: { navigator: '{"userAgent":"Node.js"}' },
};

/** Whoever imports one of the database's packages has it from those that are kept compiled. */
const fromCompiled = {
  name: 'from-compiled',
  setup(build) {
    const namespace = 'compiled';
    const filter = new RegExp(`^(${DATABASE_PACKAGES.join('|')})$`);
    build.onResolve({ filter }, ({ path }) => ({ path, namespace }));
    build.onLoad({ filter, namespace }, ({ path }) => ({
      contents: `module.exports = require('./scripts/lib/database-packages.mjs').${path};`,
      resolveDir: ROOT,
    }));
  },
};

/**
 * The command, which starts often.
 * @type {import('esbuild').BuildOptions}
 */
export const command = {
  ...packed,
  entryPoints: { 'cli/main': 'src/cli/main.ts' },
  chunkNames: 'packed/cli-[name]-[hash]',
  external: OUTSIDE,
  plugins: [fromCompiled],
};

/**
 * What runs in the application. The database's packages stay outside: its pages take them from there
 * too, and what is of one copy is not known to another.
 */
export const processes = {
  ...packed,
  entryPoints: {
    'processes/web': 'src/processes/web.ts',
    'processes/worker': 'src/processes/worker.ts',
    'threads/evaluate': 'src/threads/evaluate.ts',
    'threads/mesh': 'src/threads/mesh.ts',
    'threads/package': 'src/threads/package.ts',
    'threads/photo': 'src/threads/photo.ts',
    'threads/report': 'src/threads/report.ts',
    'threads/toolpath': 'src/threads/toolpath.ts',
  },
  external: [...OUTSIDE, 'sequelize', 'pg'],
};
