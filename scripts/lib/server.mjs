import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { join } from 'node:path';
import { track } from './lifetime.mjs';

/** Starts a built process (`web`, `worker`) on a database; it ends with this script, however that ends. */
export const spawnProcess = (name, databaseUrl, { stdio, args = [], env = {} }) =>
  track(
    spawn(
      process.execPath,
      [
        '--max-semi-space-size=8',
        '--max-old-space-size=1024',
        ...args,
        join('dist', 'processes', `${name}.js`),
      ],
      {
        // It also ends when this script has been killed and can no longer stop it.
        stdio: ['ignore', stdio, 'inherit', 'ipc'],
        detached: true,
        env: {
          // With an arena for each thread, and thresholds that grow with what was large once, glibc
          // keeps some 400 MB of what threads have let go of; and V8 lets its heap grow to a share
          // of what it may have.
          MALLOC_ARENA_MAX: '2',
          MALLOC_MMAP_THRESHOLD_: '262144',
          MALLOC_TRIM_THRESHOLD_: '262144',
          ...process.env,
          NODE_ENV: 'production',
          ASTRO_NODE_AUTOSTART: 'disabled',
          ...env,
          DATABASE_URL: databaseUrl,
        },
      },
    ),
  );

/** Starts the built application on a database. */
export const spawnServer = (databaseUrl, options) => spawnProcess('web', databaseUrl, options);

/** Starts the built application quietly on any free port; gives its address and how to end it. */
export async function serveQuietly(databaseUrl, env = {}) {
  const child = spawnServer(databaseUrl, {
    stdio: 'ignore',
    env: { ...env, PORT: '0', MQTT_PORT: '0' },
  });
  const [{ port }] = await once(child, 'message');
  const stop = async () => {
    child.kill('SIGTERM');
    await once(child, 'exit');
  };
  return { base: `http://127.0.0.1:${port}`, stop };
}
