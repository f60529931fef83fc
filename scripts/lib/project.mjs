import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync, mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { underLock } from './lock.mjs';
import { must, saying } from './run.mjs';

/** The project's folder. */
export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..', '..');

const stamp = join(ROOT, 'node_modules', '.installed-from');
const hashOf = (text) => createHash('sha256').update(text).digest('hex');

/** A short name for this checkout, so that two checkouts keep their data apart. */
export const checkoutName = hashOf(ROOT).slice(0, 10);

/** Two starts at once must not install or build into each other. */
function underProjectLock(work) {
  const cache = join(ROOT, '.cache');
  mkdirSync(cache, { recursive: true });
  return underLock(join(cache, 'lock'), 'Another start installs or builds; waiting for it …', work);
}

/** Installs the npm packages when they are missing or the lock file has changed. */
export const ensurePackages = () => underProjectLock(installPackages);

async function installPackages() {
  const wanted = hashOf(readFileSync(join(ROOT, 'package-lock.json')));
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  await saying('Installing packages', () =>
    must('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: ROOT, quiet: true }),
  );
  writeFileSync(stamp, wanted);
}

function* filesUnder(path) {
  if (!existsSync(path)) return;
  if (!statSync(path).isDirectory()) {
    yield path;
    return;
  }
  for (const name of readdirSync(path).sort()) yield* filesUnder(join(path, name));
}

const builtFrom = join(ROOT, 'dist', '.built-from');

const sourceHash = () => {
  const hash = createHash('sha256');
  const sources = [
    'src',
    'astro.config.mjs',
    'package-lock.json',
    'scripts/build.mjs',
    'scripts/lib',
    'tsconfig.json',
    'package.json',
  ];
  for (const file of sources.flatMap((source) => [...filesUnder(join(ROOT, source))])) {
    hash.update(file).update(readFileSync(file));
  }
  return hash.digest('hex');
};

/** Builds the application when its sources have changed since the last build. */
export const ensureBuilt = () => underProjectLock(build);

async function build() {
  const wanted = sourceHash();
  if (existsSync(builtFrom) && readFileSync(builtFrom, 'utf8') === wanted) return;
  await saying('Building', () => must('node', ['scripts/build.mjs'], { cwd: ROOT, quiet: true }));
  mkdirSync(dirname(builtFrom), { recursive: true });
  writeFileSync(builtFrom, wanted);
}

/** The demo studies' folders; the last one is listed first. */
export const DEMO_STUDIES = [
  'spoke-keys',
  'gannet-update',
  'gannet-speeds',
  'winter-stock',
  'clip-bench',
].map((name) => join(ROOT, 'demo', name));
