import { delimiter } from 'node:path';
import { parseArgs } from 'node:util';
import { end } from './lib/lifetime.mjs';
import { checkNeeds, installNeeds } from './lib/needs.mjs';
import { MAIN } from './lib/own-database.mjs';
import { startCluster } from './lib/postgres.mjs';
import { DEMO_STUDIES, ensureBuilt, ensurePackages, ROOT } from './lib/project.mjs';
import { say } from './lib/run.mjs';
import { spawnServer } from './lib/server.mjs';

/** What stands behind `npm start --`, as the server takes it from its environment. */
function askedFor() {
  const { values } = parseArgs({
    options: { open: { type: 'boolean' }, 'plain-http': { type: 'boolean' } },
  });
  const isBeyond = !/^(?:|localhost|127(?:\.\d{1,3}){3}|::1)$/.test(process.env.HOST ?? '');
  return {
    ...((values.open || isBeyond) && { OPEN_DOORS: '1' }),
    ...(values['plain-http'] && { PLAIN_HTTP: '1' }),
  };
}

/** Everything from a fresh checkout to a running application; resolves when that ends. */
async function start() {
  process.chdir(ROOT);
  const asked = askedFor();
  const given = process.env.DATABASE_URL;
  const missing = checkNeeds({ postgres: !given, isServed: true });
  await Promise.all([installNeeds(missing), ensurePackages()]);
  const [cluster] = await Promise.all([given ? null : startCluster(MAIN.cluster), ensureBuilt()]);
  const databaseUrl = given ?? (await cluster.createDatabase(MAIN.database));
  const server = spawnServer(databaseUrl, {
    stdio: 'inherit',
    args: ['--enable-source-maps'],
    env: {
      DEMO_STUDY: process.env.DEMO_STUDY ?? DEMO_STUDIES.join(delimiter),
      DEMO_REPORTS: '1',
      ...(cluster && { KEEP_DIR: cluster.home }),
      ...asked,
    },
  });
  return new Promise((resolve) => server.on('close', (code) => resolve(code ?? 1)));
}

start().then(end, (error) => {
  say(error.message);
  return end(1);
});
