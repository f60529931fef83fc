import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync, mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { must, say } from './run.mjs';

/** The project's folder. */
export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '..', '..');

const stamp = join(ROOT, 'node_modules', '.installed-from');
const hashOf = (text) => createHash('sha256').update(text).digest('hex');

/** A short name for this checkout, so that two checkouts keep their data apart. */
export const checkoutName = hashOf(ROOT).slice(0, 10);

/** Whether this process may install Debian packages. */
export const isRoot = process.getuid?.() === 0;

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    throw new Error(
      `Node ${process.versions.node} is too old: Vergleich needs Node 20.19 or newer.`,
    );
  }
}

/** Installs the npm packages when they are missing or the lock file has changed. */
export async function ensurePackages() {
  const wanted = hashOf(readFileSync(join(ROOT, 'package-lock.json')));
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  say('Installing packages (about a minute) …');
  await must('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: ROOT });
  writeFileSync(stamp, wanted);
}

/** Installs Debian packages; as an ordinary user it says what to do instead. */
export async function installDebian(packages, why) {
  if (!isRoot) {
    throw new Error(`${why} Install it with: sudo apt-get install ${packages.join(' ')}`);
  }
  say(`${why} Installing Debian's ${packages.join(', ')} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  await must('apt-get', ['update', '-qq'], { quiet: true, env });
  await must('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...packages], {
    quiet: true,
    env,
  });
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
    'tsconfig.json',
  ];
  for (const file of sources.flatMap((source) => [...filesUnder(join(ROOT, source))])) {
    hash.update(file).update(readFileSync(file));
  }
  return hash.digest('hex');
};

/** Builds the application when its sources have changed since the last build. */
export async function ensureBuilt() {
  const wanted = sourceHash();
  if (existsSync(builtFrom) && readFileSync(builtFrom, 'utf8') === wanted) return;
  say('Building …');
  await must('node', ['scripts/build.mjs'], { cwd: ROOT, quiet: true });
  mkdirSync(dirname(builtFrom), { recursive: true });
  writeFileSync(builtFrom, wanted);
}

/** The demo studies' folders; the last one is listed first. */
export const DEMO_STUDIES = ['gannet-update', 'clip-bench'].map((name) => join(ROOT, 'demo', name));
