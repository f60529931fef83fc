import { spawn } from 'node:child_process';
import { delimiter, join } from 'node:path';
import { checkNode, DEMO_STUDIES, ensureBuilt, ensurePackages, ROOT } from './lib/project.mjs';
import { startCluster } from './lib/postgres.mjs';
import { say } from './lib/run.mjs';

/** Everything from a fresh checkout to a running application; ends cleanly on Ctrl-C. */
async function start() {
  checkNode();
  process.chdir(ROOT);
  await ensurePackages();
  const [cluster] = await Promise.all([
    process.env.DATABASE_URL ? null : startCluster('main'),
    ensureBuilt(),
  ]);
  const databaseUrl = process.env.DATABASE_URL ?? (await cluster.createDatabase('vergleich'));
  const server = spawn(
    process.execPath,
    ['--enable-source-maps', join('dist', 'processes', 'web.js')],
    {
      stdio: ['ignore', 'inherit', 'inherit'],
      env: {
        ...process.env,
        NODE_ENV: 'production',
        ASTRO_NODE_AUTOSTART: 'disabled',
        DEMO_STUDY: process.env.DEMO_STUDY ?? DEMO_STUDIES.join(delimiter),
        DATABASE_URL: databaseUrl,
      },
    },
  );
  // Ctrl-C reaches the server by itself; a SIGTERM to this process is handed on.
  process.on('SIGINT', () => {});
  process.on('SIGTERM', () => server.kill('SIGTERM'));
  const code = await new Promise((resolve) => server.on('close', (exit) => resolve(exit ?? 1)));
  await cluster?.stop();
  return code;
}

start().then(
  (code) => process.exit(code),
  (error) => {
    say(error.message);
    process.exit(1);
  },
);
