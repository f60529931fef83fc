import { spawn, type ChildProcess } from 'node:child_process';
import { delimiter, join } from 'node:path';

/** The built application as a process of its own, with what it says of itself when it listens. */
export interface Server {
  child: ChildProcess;
  port: number;
  url: string;
  /** Address of the bench link. */
  link: string;
}

/**
 * Starts the built application on a database.
 *
 * @param studies packages that are put into an empty database
 * @param port 0 for any that is free; so is `linkPort`
 */
export function startServer(
  databaseUrl: string,
  { studies = [] as readonly string[], port = 0, linkPort = 0 } = {},
): Promise<Server> {
  const child = spawn(process.execPath, [join('dist', 'processes', 'web.js')], {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      ASTRO_NODE_AUTOSTART: 'disabled',
      DATABASE_URL: databaseUrl,
      DEMO_STUDY: studies.join(delimiter),
      HOST: '127.0.0.1',
      PORT: String(port),
      MQTT_PORT: String(linkPort),
    },
  });
  return new Promise((resolve, reject) => {
    child.once('message', (message) => {
      const announced = message as { port: number; link: string };
      resolve({ child, ...announced, url: `http://127.0.0.1:${announced.port}` });
    });
    child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)));
  });
}

/** Kills the process at once, as a power cut does. */
export const kill = (child: ChildProcess): Promise<void> =>
  new Promise((resolve) => {
    if (child.exitCode !== null || child.signalCode !== null) return resolve();
    child.once('exit', () => resolve());
    child.kill('SIGKILL');
  });
