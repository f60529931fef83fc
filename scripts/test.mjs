import { mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { atEnd, end } from './lib/lifetime.mjs';
import { checkNeeds, findChromium, installNeeds } from './lib/needs.mjs';
import { startCluster } from './lib/postgres.mjs';
import { ensureBuilt, ensurePackages, ROOT } from './lib/project.mjs';
import { run, say } from './lib/run.mjs';

const reports = join(ROOT, '.cache', 'test-reports');
const tally = { passed: 0, failed: 0 };

/** Runs a check that passes or fails as a whole. */
async function check(name, command, args, options = {}) {
  const started = Date.now();
  const { code, output } = await run(command, args, { cwd: ROOT, quiet: true, ...options });
  tally[code === 0 ? 'passed' : 'failed'] += 1;
  say(`${code === 0 ? 'passed' : 'FAILED'}  ${name}  ${seconds(started)}`);
  if (code !== 0) say(output);
}

const seconds = (started) => `${Math.round((Date.now() - started) / 1000)} s`;
const bin = (name) => join(ROOT, 'node_modules', '.bin', name);

async function runVitest(project, env) {
  const report = join(reports, `${project}.json`);
  const args = ['run', '--project', project, '--reporter=default', '--reporter=json'];
  const started = Date.now();
  const { code, output } = await run(bin('vitest'), [...args, `--outputFile=${report}`], {
    cwd: ROOT,
    quiet: true,
    env,
  });
  count(project, started, code, output, () => {
    return talliedVitest(JSON.parse(readFileSync(report, 'utf8')));
  });
}

async function runPlaywright(env) {
  const report = join(reports, 'e2e.json');
  const started = Date.now();
  const { code, output } = await run(bin('playwright'), ['test'], {
    cwd: ROOT,
    quiet: true,
    env: { ...env, E2E_JSON: report },
  });
  count('end-to-end', started, code, output, () => {
    const { stats } = JSON.parse(readFileSync(report, 'utf8'));
    // One that was skipped proves nothing.
    return { passed: stats.expected, failed: stats.unexpected + stats.flaky + stats.skipped };
  });
}

/** What a run of Vitest came to: a test that was skipped, and a file whose hook failed, are failures too. */
function talliedVitest({
  numPassedTests,
  numFailedTests,
  numPendingTests,
  numTodoTests,
  testResults,
}) {
  const broken = testResults.filter(
    ({ status, assertionResults }) =>
      status === 'failed' && assertionResults.every((one) => one.status !== 'failed'),
  );
  return {
    passed: numPassedTests,
    failed: numFailedTests + (numPendingTests ?? 0) + (numTodoTests ?? 0) + broken.length,
  };
}

/** Adds a run's tests to the tally; a run that broke counts as one more failure. */
function count(name, started, code, output, read) {
  let found = { passed: 0, failed: 0 };
  try {
    found = read();
  } catch {
    // The run ended before it could write its report.
  }
  if (code !== 0 && found.failed === 0) found = { ...found, failed: 1 };
  tally.passed += found.passed;
  tally.failed += found.failed;
  say(
    `${found.failed === 0 ? 'passed' : 'FAILED'}  ${name}: ${found.passed} of ` +
      `${found.passed + found.failed}  ${seconds(started)}`,
  );
  if (code !== 0) say(output);
}

async function test() {
  process.chdir(ROOT);
  const missing = checkNeeds({ postgres: true, chromium: true });
  await Promise.all([installNeeds(missing), ensurePackages()]);
  rmSync(reports, { recursive: true, force: true });
  mkdirSync(reports, { recursive: true });
  const cluster = await startCluster('test', { forTests: true });
  try {
    const env = {
      ...process.env,
      CHROMIUM: findChromium(),
      TEST_DATABASE_URL: await cluster.createDatabase('vergleich'),
    };
    await check('astro sync', bin('astro'), ['sync']);
    await Promise.all([
      (async () => {
        await ensureBuilt();
        await runVitest('unit', env);
      })(),
      (async () => {
        await check('format', bin('prettier'), ['--check', '.']);
        await check('import rules', bin('depcruise'), [
          '--config',
          '.dependency-cruiser.cjs',
          'src',
        ]);
        await check('dead code', bin('knip'), ['--no-progress', '--no-config-hints']);
        await check('lint of pages', bin('eslint'), ['.']);
        // All TypeScript, with its types; those of pages are another program's.
        await check('lint and types', bin('oxlint'), ['--type-aware', '--type-check', '.']);
        await check('types of pages', bin('astro'), [
          'check',
          '--minimumSeverity',
          'error',
          '--tsconfig',
          'tsconfig.pages.json',
        ]);
      })(),
    ]);
    await runVitest('integration', env);
    await runPlaywright(env);
  } finally {
    await cluster.stop();
  }
}

// However it ends, its last line says how far it came: an interruption is a failure.
let isClosed = false;
atEnd(() => {
  if (!isClosed) sayTally(1);
});

test().then(
  () => close(0),
  (error) => {
    say(error.message);
    return close(1);
  },
);

function sayTally(more) {
  isClosed = true;
  say('');
  process.stdout.write(`${tally.passed} passed, ${tally.failed + more} failed\n`);
}

/** Ends with the line that says how it went. */
function close(more) {
  sayTally(more);
  return end(tally.failed + more === 0 ? 0 : 1);
}
