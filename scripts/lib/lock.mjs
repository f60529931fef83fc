import { spawn } from 'node:child_process';
import { say } from './run.mjs';

/** What `flock` ends with where somebody else holds the lock. */
const HELD = 75;

/** A process that holds a lock as long as it runs; `got` is null once it has it, else the code it ended with. */
function hold(file, flags, options) {
  const child = spawn('flock', [...flags, '-x', file, 'sh', '-c', 'echo held; exec cat'], {
    stdio: ['pipe', 'pipe', 'ignore'],
    ...options,
  });
  const got = new Promise((resolve, reject) => {
    child.stdout.once('data', () => resolve(null));
    child.once('error', reject);
    child.once('close', (code) => resolve(code ?? 1));
  });
  return { child, got };
}

/**
 * Does some work while holding a lock on a file; another process that wants it waits. The system lets
 * go of it with the process, however that ends.
 *
 * @param waiting what is said when somebody else holds it
 * @param options of the process that holds it: the user that may open the file
 */
export async function underLock(file, waiting, work, options = {}) {
  let holder = hold(file, ['-n', '-E', String(HELD)], options);
  try {
    // Somebody else holds it only where the system says so: a slow start of this process is none.
    if ((await holder.got) === HELD) {
      say(waiting);
      holder = hold(file, [], options);
      const code = await holder.got;
      if (code !== null) throw new Error(`${file} cannot be locked (${code})`);
    }
    return await work();
  } finally {
    holder = holder.child;
    const closed = new Promise((resolve) => holder.once('close', resolve));
    if (holder.exitCode === null && holder.pid) {
      holder.stdin.end();
      await closed;
    }
  }
}
