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

/**
 * What starts often is packed with all it needs: looking up hundreds of small files takes longer
 * than running them. The database's packages stay outside, and are loaded by the commands that need it.
 *
 * @param isOnlyCommand whether only the command is built, and no process of the application
 */
export const packed = (isOnlyCommand) => ({
  ...shared,
  entryPoints: {
    'cli/main': 'src/cli/main.ts',
    ...(!isOnlyCommand && {
      'processes/web': 'src/processes/web.ts',
      'processes/worker': 'src/processes/worker.ts',
      'threads/evaluate': 'src/threads/evaluate.ts',
      'threads/mesh': 'src/threads/mesh.ts',
      'threads/package': 'src/threads/package.ts',
      'threads/photo': 'src/threads/photo.ts',
      'threads/report': 'src/threads/report.ts',
      'threads/toolpath': 'src/threads/toolpath.ts',
    }),
  },
  chunkNames: 'packed/[name]-[hash]',
  // What is shorter is read sooner; names stay, for whoever reads what went wrong.
  minifyWhitespace: true,
  minifySyntax: true,
  external: [
    ...['sequelize', 'pg', 'umzug', 'pg-boss', 'piscina', 'pino', 'mqtt', 'aedes'],
    ...['sharp', 'zxing-wasm', 'playwright-core', 'selfsigned'],
  ],
  banner: {
    js: "import { createRequire as makeRequire } from 'node:module';\nconst require = makeRequire(import.meta.url);",
  },
});
