import { spawn } from 'node:child_process';
import { randomBytes, randomInt } from 'node:crypto';
import {
  chmodSync,
  chownSync,
  existsSync,
  mkdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { atEnd } from './lifetime.mjs';
import { underLock } from './lock.mjs';
import { findPostgres, isRoot } from './needs.mjs';
import { addressIn, clusterHome, ROLE } from './own-database.mjs';
import { must, run, say } from './run.mjs';

/** The user that the server runs as: PostgreSQL refuses to run as root. */
async function serverUser() {
  if (!isRoot) return {};
  const id = async (flag) => Number((await must('id', [flag, 'postgres'], { quiet: true })).trim());
  return { uid: await id('-u'), gid: await id('-g') };
}

/** Whether anything listens at a port of this machine. */
const isFree = (port) =>
  new Promise((resolve) => {
    const server = createServer();
    server.once('error', () => resolve(false));
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)));
  });

/**
 * A port that is free, below those that the system hands out by itself: a server that is away for a
 * moment finds its port free when it comes back.
 */
async function freePort() {
  for (;;) {
    const port = randomInt(20_000, 32_000);
    if (await isFree(port)) return port;
  }
}

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** Whether there is such a process, or what is left of it. */
function isThere(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
}

/** A cluster's folder with the programs that work on it. */
class Cluster {
  constructor(name, bin, user, forTests) {
    this.home = join(clusterHome(), name);
    this.data = join(this.home, 'data');
    this.secret = join(this.home, 'password');
    this.lock = join(this.home, 'lock');
    this.users = join(this.home, 'users');
    /** There once the cluster has held its database: what is half made does not. */
    this.whole = join(this.home, 'whole');
    this.bin = bin;
    this.user = user;
    this.forTests = forTests;
    this.asServer = {
      ...user,
      cwd: '/',
      env: { PATH: `${bin}:/usr/bin:/bin`, LC_ALL: 'C.UTF-8' },
    };
  }

  postgres(command, args) {
    return must(join(this.bin, command), args, { ...this.asServer, quiet: true });
  }

  #own(path) {
    if (this.user.uid !== undefined) chownSync(path, this.user.uid, this.user.gid);
  }

  prepare() {
    mkdirSync(this.home, { recursive: true, mode: 0o755 });
    chmodSync(this.home, 0o700);
    this.#own(this.home);
    mkdirSync(this.users, { recursive: true });
    this.#own(this.users);
    if (!existsSync(this.lock)) writeFileSync(this.lock, '', { mode: 0o600 });
    this.#own(this.lock);
  }

  /** Makes the cluster beside its place, and puts it there when it is whole. */
  async initialise() {
    const draft = join(this.home, 'draft');
    rmSync(draft, { recursive: true, force: true });
    rmSync(this.whole, { force: true });
    writeFileSync(this.secret, randomBytes(24).toString('hex'), { mode: 0o600 });
    this.#own(this.secret);
    await this.postgres('initdb', [
      '-D',
      draft,
      '-U',
      ROLE,
      '--auth=scram-sha-256',
      `--pwfile=${this.secret}`,
      '-E',
      'UTF8',
      '--locale=C.UTF-8',
      '--no-instructions',
    ]);
    renameSync(draft, this.data);
  }

  /** Nobody uses what does not run: marks are left where the machine went down. */
  forgetUsers() {
    rmSync(this.users, { recursive: true, force: true });
    this.prepare();
  }

  async isRunning() {
    const { code } = await run(join(this.bin, 'pg_ctl'), ['-D', this.data, 'status'], {
      ...this.asServer,
      quiet: true,
    });
    return code === 0;
  }

  /** @param port where it listened before; any that is free without */
  async start(port = null) {
    const options = [
      'listen_addresses=127.0.0.1',
      `port=${port ?? (await freePort())}`,
      'unix_socket_directories=',
      // No query here takes as long as to compile it.
      'jit=off',
      ...(this.forTests
        ? ['fsync=off', 'full_page_writes=off', 'synchronous_commit=off', 'max_connections=200']
        : []),
    ];
    await this.postgres('pg_ctl', [
      '-D',
      this.data,
      '-l',
      join(this.home, 'log'),
      '-w',
      '-t',
      '60',
      '-o',
      options.map((option) => `-c "${option}"`).join(' '),
      'start',
    ]);
  }

  /** Kills the server at once, as running out of memory does, and starts it again where it was. */
  async crash() {
    const { port, pid } = this;
    process.kill(pid, 'SIGKILL');
    // Its lock on the data holds until the system has cleared the process away.
    for (let patience = 300; patience > 0 && isThere(pid); patience -= 1) await pause(50);
    await this.startAgain(port);
  }

  /** Starts the server again where it listened before. */
  async startAgain(port) {
    const { pid: before } = this;
    // What it had started ends a moment after it; until then its memory is not free.
    for (let attempt = 1; ; attempt += 1) {
      try {
        await this.start(port);
        return;
      } catch (error) {
        // The program that starts it can give up on a server that is there all the same.
        if (this.isReady && this.pid !== before) return;
        if (attempt >= 200) throw error;
        await pause(100);
      }
    }
  }

  #told() {
    const mark = join(this.data, 'postmaster.pid');
    return existsSync(mark) ? readFileSync(mark, 'utf8').split('\n') : [];
  }

  get pid() {
    return Number(this.#told()[0] ?? 0);
  }

  /** Whether the server has written down that it takes connections. */
  get isReady() {
    return this.#told()[7]?.trim() === 'ready';
  }

  get port() {
    return this.#told()[3];
  }

  address(database) {
    return addressIn(this.home, database);
  }

  async createDatabase(database) {
    const PGPASSWORD = readFileSync(this.secret, 'utf8').trim();
    const { code, output } = await run(
      join(this.bin, 'createdb'),
      ['-h', '127.0.0.1', '-p', this.port, '-U', ROLE, database],
      { ...this.asServer, quiet: true, env: { ...this.asServer.env, PGPASSWORD } },
    );
    if (code !== 0 && !output.includes('already exists')) throw new Error(output);
    writeFileSync(this.whole, '');
    return this.address(database);
  }

  /**
   * Puts this process down as one that uses the cluster. A small shell of its own waits for the end of
   * it, however it comes, and stops the cluster where nobody else uses it.
   *
   * @returns what lets go of it
   */
  use() {
    const mark = join(this.users, String(process.pid));
    const script = [
      ': > "$MARK"; echo used; cat > /dev/null',
      'exec flock -x "$LOCK" sh -c \'rm -f "$MARK"',
      'for one in "$USERS"/*; do [ -e "$one" ] || continue',
      'kill -0 "${one##*/}" 2> /dev/null || [ -d "/proc/${one##*/}" ] && exit 0; rm -f "$one"; done',
      'pg_ctl -D "$DATA" -m fast -w stop > /dev/null 2>&1; exit 0\'',
    ].join('\n');
    const keeper = spawn('sh', ['-c', script], {
      ...this.asServer,
      stdio: ['pipe', 'pipe', 'ignore'],
      detached: true,
      env: {
        ...this.asServer.env,
        MARK: mark,
        LOCK: this.lock,
        USERS: this.users,
        DATA: this.data,
      },
    });
    const closed = new Promise((resolve) => keeper.once('close', resolve));
    const used = new Promise((resolve, reject) => {
      keeper.stdout.once('data', resolve);
      keeper.once('error', reject);
    });
    keeper.unref();
    const stop = async () => {
      // Now it is waited for: without this the process would end before its end, with another code.
      keeper.ref();
      keeper.stdin.end();
      await closed;
    };
    return { used, stop };
  }
}

/**
 * Starts this checkout's own PostgreSQL cluster on loopback, or joins it where it runs already. It is
 * stopped when the last process that uses it ends.
 *
 * @param name which cluster: each has a folder of its own
 * @param forTests without waiting for the disk: quick, and nothing to rely on
 * @returns how its databases are made, and how it is let go of
 */
export async function startCluster(name, { forTests = false } = {}) {
  const cluster = new Cluster(name, findPostgres(), await serverUser(), forTests);
  cluster.prepare();
  const waiting = 'Another start is making the database ready; waiting for it …';
  const stop = await underLock(
    cluster.lock,
    waiting,
    async () => {
      if (!existsSync(join(cluster.data, 'PG_VERSION'))) {
        rmSync(cluster.data, { recursive: true, force: true });
        await cluster.initialise();
      }
      const isRunning = await cluster.isRunning();
      if (!isRunning) cluster.forgetUsers();
      const { used, stop } = cluster.use();
      await used;
      if (!isRunning) await startOrRenew(cluster);
      return stop;
    },
    cluster.user,
  );
  let stopping = null;
  const watching = forTests ? null : keepRunning(cluster, waiting);
  const stopOnce = () => {
    clearInterval(watching);
    return (stopping ??= stop());
  };
  atEnd(stopOnce);
  return {
    createDatabase: (database) => cluster.createDatabase(database),
    crash: () => cluster.crash(),
    stop: stopOnce,
  };
}

const LOOK_EVERY_MS = 2000;

/** Starts the server again where it was, when it has died; of several that use it one does. */
function keepRunning(cluster, waiting) {
  let { port } = cluster;
  let isBusy = false;
  const look = async () => {
    if (await cluster.isRunning()) {
      ({ port } = cluster);
      return;
    }
    await underLock(
      cluster.lock,
      waiting,
      async () => {
        if (await cluster.isRunning()) return;
        say('The database server has died; starting it again …');
        await cluster.startAgain(port);
      },
      cluster.user,
    );
  };
  return setInterval(() => {
    if (isBusy) return;
    isBusy = true;
    look()
      .catch((error) => say(`The database server could not be started again: ${error.message}`))
      .finally(() => (isBusy = false));
  }, LOOK_EVERY_MS).unref();
}

/** Starts a cluster; one that was half made when its making was killed is put aside and made anew. */
async function startOrRenew(cluster) {
  try {
    await cluster.start();
    if (existsSync(cluster.whole)) return;
    await cluster.createDatabase('vergleich');
  } catch (error) {
    if (existsSync(cluster.whole)) throw error;
    await run(join(cluster.bin, 'pg_ctl'), ['-D', cluster.data, '-m', 'immediate', 'stop'], {
      ...cluster.asServer,
      quiet: true,
    });
    const aside = `${cluster.data}-half-made-${Date.now()}`;
    say(`The database's folder was left half made; it is put aside as ${aside} and made anew.`);
    renameSync(cluster.data, aside);
    await cluster.initialise();
    await cluster.start();
    await cluster.createDatabase('vergleich');
  }
}
