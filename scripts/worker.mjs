import { end } from './lib/lifetime.mjs';
import { ensureNeeds } from './lib/needs.mjs';
import { ensureBuilt, ensurePackages, ROOT } from './lib/project.mjs';
import { say } from './lib/run.mjs';
import { spawnProcess } from './lib/server.mjs';

/** A process that works on jobs only, on the database that others serve; resolves when it ends. */
async function work() {
  process.chdir(ROOT);
  const databaseUrl = process.env.DATABASE_URL;
  await ensureNeeds({ isServed: true });
  if (!databaseUrl) {
    throw new Error('DATABASE_URL must name the database whose jobs are to be worked on.');
  }
  await ensurePackages();
  await ensureBuilt();
  const worker = spawnProcess('worker', databaseUrl, {
    stdio: 'inherit',
    args: ['--enable-source-maps'],
  });
  return new Promise((resolve) => worker.on('close', (code) => resolve(code ?? 1)));
}

work().then(end, (error) => {
  say(error.message);
  return end(1);
});
