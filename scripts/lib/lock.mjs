import { spawn } from 'node:child_process';
import { say } from './run.mjs';

/**
 * Does some work while holding a lock on a file; another process that wants it waits. The system lets
 * go of it with the process, however that ends.
 *
 * @param waiting what is said when somebody else holds it
 * @param options of the process that holds it: the user that may open the file
 */
export async function underLock(file, waiting, work, options = {}) {
  const holder = spawn('flock', ['-x', file, 'sh', '-c', 'echo held; exec cat'], {
    stdio: ['pipe', 'pipe', 'ignore'],
    ...options,
  });
  const timer = setTimeout(() => say(waiting), 1000);
  try {
    await new Promise((resolve, reject) => {
      holder.stdout.once('data', resolve);
      holder.once('error', reject);
      holder.once('close', (code) => reject(new Error(`${file} cannot be locked (${code})`)));
    });
    clearTimeout(timer);
    return await work();
  } finally {
    clearTimeout(timer);
    const closed = new Promise((resolve) => holder.once('close', resolve));
    if (holder.exitCode === null && holder.pid) {
      holder.stdin.end();
      await closed;
    }
  }
}
