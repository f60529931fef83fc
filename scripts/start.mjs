import { delimiter } from 'node:path';
import { end } from './lib/lifetime.mjs';
import { ensureNeeds } from './lib/needs.mjs';
import { startCluster } from './lib/postgres.mjs';
import { DEMO_STUDIES, ensureBuilt, ensurePackages, ROOT } from './lib/project.mjs';
import { say } from './lib/run.mjs';
import { spawnServer } from './lib/server.mjs';

/** Everything from a fresh checkout to a running application; resolves when that ends. */
async function start() {
  process.chdir(ROOT);
  const given = process.env.DATABASE_URL;
  await ensureNeeds({ postgres: !given, isServed: true });
  await ensurePackages();
  const [cluster] = await Promise.all([given ? null : startCluster('main'), ensureBuilt()]);
  const databaseUrl = given ?? (await cluster.createDatabase('vergleich'));
  const server = spawnServer(databaseUrl, {
    stdio: 'inherit',
    args: ['--enable-source-maps'],
    env: { DEMO_STUDY: process.env.DEMO_STUDY ?? DEMO_STUDIES.join(delimiter) },
  });
  return new Promise((resolve) => server.on('close', (code) => resolve(code ?? 1)));
}

start().then(end, (error) => {
  say(error.message);
  return end(1);
});
