// What a script has started ends with it, however it ends: by itself, by a signal, with its parent.

const PATIENCE_MS = 10_000;
const children = new Set();
const endings = [];
let ending = null;

/** Has a child process, and all that it starts, end with this script. It leads a group of its own. */
export function track(child) {
  children.add(child);
  child.once('close', () => children.delete(child));
  return child;
}

/** Has something done at the end, the last that was asked for first. */
export const atEnd = (work) => endings.push(work);

const signalGroup = (child, signal) => {
  try {
    process.kill(-child.pid, signal);
  } catch {
    // It has ended already.
  }
};

async function endChildren() {
  const running = [...children];
  const ended = Promise.all(
    running.map((child) => new Promise((resolve) => child.once('close', resolve))),
  );
  for (const child of running) signalGroup(child, 'SIGTERM');
  const timer = setTimeout(() => {
    for (const child of running) signalGroup(child, 'SIGKILL');
  }, PATIENCE_MS);
  await ended;
  clearTimeout(timer);
}

/** Ends what was started, and then the script. */
export function end(code) {
  ending ??= (async () => {
    await endChildren();
    for (const work of endings.reverse()) {
      try {
        await work();
      } catch (error) {
        process.stderr.write(`${error.message}\n`);
        code ||= 1;
      }
    }
    process.exit(code);
  })();
  return ending;
}

const SIGNALS = { SIGHUP: 1, SIGINT: 2, SIGTERM: 15 };
for (const [signal, number] of Object.entries(SIGNALS)) {
  process.on(signal, () => void end(128 + number));
}

// `npm start` that is killed takes this script with it.
if (process.env.npm_lifecycle_event) {
  const parent = process.ppid;
  setInterval(() => process.ppid !== parent && void end(128 + 15), 500).unref();
}
