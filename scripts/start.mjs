import { spawn } from 'node:child_process';
import { delimiter, join } from 'node:path';
import { end, track } from './lib/lifetime.mjs';
import { ensureNeeds } from './lib/needs.mjs';
import { startCluster } from './lib/postgres.mjs';
import { DEMO_STUDIES, ensureBuilt, ensurePackages, ROOT } from './lib/project.mjs';
import { say } from './lib/run.mjs';

/** Everything from a fresh checkout to a running application; resolves when that ends. */
async function start() {
  process.chdir(ROOT);
  const given = process.env.DATABASE_URL;
  await ensureNeeds({ postgres: !given, isServed: true });
  await ensurePackages();
  const [cluster] = await Promise.all([given ? null : startCluster('main'), ensureBuilt()]);
  const databaseUrl = given ?? (await cluster.createDatabase('vergleich'));
  const server = track(
    spawn(process.execPath, ['--enable-source-maps', join('dist', 'processes', 'web.js')], {
      // It ends by itself when this script is gone and cannot tell it any more.
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
      detached: true,
      env: {
        ...process.env,
        NODE_ENV: 'production',
        ASTRO_NODE_AUTOSTART: 'disabled',
        DEMO_STUDY: process.env.DEMO_STUDY ?? DEMO_STUDIES.join(delimiter),
        DATABASE_URL: databaseUrl,
      },
    }),
  );
  return new Promise((resolve) => server.on('close', (code) => resolve(code ?? 1)));
}

start().then(end, (error) => {
  say(error.message);
  return end(1);
});
