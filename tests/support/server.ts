import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { delimiter, join } from 'node:path';

/** The built application as a process of its own, with what it says of itself when it listens. */
export interface Server {
  child: ChildProcess;
  port: number;
  url: string;
  /** Address of the bench link. */
  link: string;
  /** Path of the link that makes the owner, where nobody owns it yet and its doors are to be open. */
  enter: string | null;
}

/**
 * Starts the built application on a database.
 *
 * @param studies packages that are put into an empty database
 * @param port 0 for any that is free; so is `linkPort`
 * @param env what else its environment says
 * @param isHeard whether what it writes to stderr is the test’s to read, as `child.stderr`
 */
export function startServer(
  databaseUrl: string,
  {
    studies = [] as readonly string[],
    port = 0,
    linkPort = 0,
    env = {} as Record<string, string>,
    isHeard = false,
  } = {},
): Promise<Server> {
  const child = spawn(process.execPath, [join('dist', 'processes', 'web.js')], {
    stdio: ['ignore', 'ignore', isHeard ? 'pipe' : 'inherit', 'ipc'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      ASTRO_NODE_AUTOSTART: 'disabled',
      DATABASE_URL: databaseUrl,
      DEMO_STUDY: studies.join(delimiter),
      HOST: '127.0.0.1',
      PORT: String(port),
      MQTT_PORT: String(linkPort),
      ...env,
    },
  });
  return new Promise((resolve, reject) => {
    child.once('message', (message) => {
      const {
        port: at,
        link,
        scheme,
        enter,
      } = message as { port: number; link: string; scheme: string; enter: string | null };
      resolve({ child, port: at, link, enter, url: `${scheme}://127.0.0.1:${at}` });
    });
    child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
  });
}

/** Starts a process that works on the jobs of a database only. */
export async function startWorker(
  databaseUrl: string,
  env: Record<string, string> = {},
): Promise<ChildProcess> {
  const child = spawn(process.execPath, [join('dist', 'processes', 'worker.js')], {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    env: { ...process.env, NODE_ENV: 'production', DATABASE_URL: databaseUrl, ...env },
  });
  await Promise.race([
    once(child, 'message'),
    once(child, 'exit').then(() => Promise.reject(new Error('the worker ended'))),
  ]);
  return child;
}

/** Kills the process at once, as a power cut does. */
export const kill = (child: ChildProcess): Promise<void> =>
  new Promise((resolve) => {
    if (child.exitCode !== null || child.signalCode !== null) return resolve();
    child.once('exit', () => resolve());
    child.kill('SIGKILL');
  });
