import type { Server } from 'node:http';
import { clearFolders } from '../files/temporary';
import type { App } from '../server/app';
import { closeApp } from './app';

/** So long a process that is to end waits for what is under way. */
const PATIENCE_MS = 8000;
const IDLE_MS = 100;
/** So long those who are being answered may take. */
const ANSWERING_MS = 3000;

/**
 * Ends the process when it is told to, after what is under way; by force where that takes long.
 *
 * @param current the server that listens; undefined in a process that serves nobody
 */
export function endWhenTold(app: App, current: () => Server | undefined): void {
  let isEnding = false;
  const stop = () => {
    if (isEnding) return;
    isEnding = true;
    const end = (code: number) => {
      clearFolders(true);
      process.exit(code);
    };
    setTimeout(() => end(1), PATIENCE_MS).unref();
    const close = () =>
      closeApp(app).then(
        () => end(0),
        () => end(1),
      );
    const server = current();
    if (!server?.listening) {
      void close();
      return;
    }
    server.close(() => void close());
    app.broadcaster.sendHome();
    // Whoever has been answered meanwhile is waited for no longer.
    setInterval(() => server.closeIdleConnections(), IDLE_MS).unref();
    setTimeout(() => server.closeAllConnections(), ANSWERING_MS).unref();
  };
  for (const signal of ['SIGTERM', 'SIGINT', 'SIGHUP'] as const) process.on(signal, stop);
  // Started by another program, it does not outlive it.
  if (process.connected) process.on('disconnect', stop);
}

/**
 * What goes wrong and nobody waits for is logged, and does not end the process: the queue cannot say that a job
 * failed while the database is away, and gives such jobs to somebody when it is back.
 */
export function outliveStrayFaults(app: App): void {
  process.on('unhandledRejection', (error) => app.log.error(error, 'nobody waited for this'));
}

/** Ends a process that cannot start, with the reason in words. */
export function endWithWords(error: unknown): void {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
  clearFolders(true);
  process.exit(1);
}
