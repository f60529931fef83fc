import { randomInt } from 'node:crypto';
import { join } from 'node:path';
import { end } from './lib/lifetime.mjs';
import { ensureNeeds } from './lib/needs.mjs';
import { ensurePackages, ROOT } from './lib/project.mjs';
import { run, say } from './lib/run.mjs';

// Property tests on cases that were never drawn before, or again on those of a seed that failed.
process.chdir(ROOT);
await ensureNeeds({});
await ensurePackages();
const seed = process.argv[2] ?? String(randomInt(2 ** 31));
say(`Seed ${seed}. The same cases again: npm run test:explore -- ${seed}`);
const { code } = await run(
  join(ROOT, 'node_modules', '.bin', 'vitest'),
  ['run', '--project', 'unit'],
  { cwd: ROOT, env: { ...process.env, PROPERTY_SEED: seed } },
);
await end(code);
