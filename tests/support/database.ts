import { createHash, randomUUID } from 'node:crypto';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { basename, delimiter, join } from 'node:path';
import { migrate, openDatabase, SteadyClient, type Database } from '../../src/data';
import { domainChecks } from '../../src/data/domains';
import { MIGRATIONS } from '../../src/data/migrations';
import { kill, startServer } from './server';

/** The address of the test cluster's server, without a database. */
function clusterUrl(): URL {
  const url = process.env.TEST_DATABASE_URL;
  if (!url) throw new Error('TEST_DATABASE_URL must name the test cluster: run npm test');
  return new URL(url);
}

/** A database of a test's own. */
export interface FreshDatabase {
  url: string;
  db: Database;
  drop: () => Promise<void>;
}

const addressOf = (name: string): string => {
  const url = clusterUrl();
  url.pathname = `/${name}`;
  return url.href;
};

/** Does some work on the cluster's own database, on one connection: a lock that it takes is held to the end. */
async function asAdmin<Result>(
  work: (ask: <Row>(sql: string) => Promise<Row[]>) => Promise<Result>,
): Promise<Result> {
  const client = new SteadyClient({ connectionString: clusterUrl().href });
  await client.connect();
  try {
    return await work(async <Row>(sql: string) => (await client.query(sql)).rows as Row[]);
  } finally {
    await client.end();
  }
}

/**
 * A database of its own, migrated; dropped by `drop`.
 *
 * @param studies demo studies that are in it, with all that follows from them done already
 * @param name what it is called; one of that name which an earlier run has left goes
 */
export async function freshDatabase(
  studies: readonly string[] = [],
  name = `test_${randomUUID().replaceAll('-', '')}`,
): Promise<FreshDatabase> {
  const template = await templateOf(studies);
  await asAdmin(async (ask) => {
    await ask(`drop database if exists ${name} with (force)`);
    await ask(copyOf(template, name));
  });
  const db = openDatabase(addressOf(name));
  return {
    url: addressOf(name),
    db,
    drop: async () => {
      await db.sequelize.close();
      await asAdmin((ask) => ask(`drop database ${name} with (force)`));
    },
  };
}

/** SQL that copies a database whole: its files, which is faster than to write down what is in them. */
const copyOf = (template: string, name: string): string =>
  `create database ${name} template ${template} strategy file_copy`;

/** What the tables of every database come from: with another schema it is another database. */
const SCHEMA = JSON.stringify([MIGRATIONS, domainChecks()]);

/** A hash of what is in some studies, and of the tables that they come into: of another content is another database. */
function contentOf(studies: readonly string[]): string {
  const hash = createHash('sha256').update(SCHEMA);
  for (const study of studies) {
    const files = readdirSync(study, { recursive: true, encoding: 'utf8' }).sort();
    hash.update(basename(study));
    for (const file of files) {
      const path = join(study, file);
      if (file.endsWith('.csv') || file.endsWith('.json'))
        hash.update(file).update(readFileSync(path));
      else hash.update(`${file} ${statSync(path).size}`);
    }
  }
  return hash.digest('hex');
}

const known = new Map<string, Promise<string>>();

/** The name of the database that others with these studies are copied from. */
function templateOf(studies: readonly string[]): Promise<string> {
  const key = studies.join(delimiter);
  const found = known.get(key) ?? makeTemplate(studies);
  known.set(key, found);
  return found;
}

/**
 * Makes the database that others are copied from, unless it is there: it is migrated, and what is printed and
 * photographed in its studies is read, once for all tests of a run. Each study comes into a copy of what holds
 * those before it.
 */
async function makeTemplate(studies: readonly string[]): Promise<string> {
  const name = `template_${contentOf(studies).slice(0, 12)}`;
  const before = studies.length > 0 ? await templateOf(studies.slice(0, -1)) : 'template1';
  return asAdmin(async (ask) => {
    // One makes it, whoever else wants it waits; the lock goes with the connection.
    await ask(`select pg_advisory_lock(hashtext('${name}'))`);
    const there = await ask(`select from pg_database where datname = '${name}'`);
    if (there.length > 0) return name;
    const making = `${name}_making`;
    await ask(`drop database if exists ${making} with (force)`);
    await ask(copyOf(before, making));
    if (studies.length === 0) {
      const { sequelize } = openDatabase(addressOf(making), { connections: 1 });
      await migrate(sequelize);
      await sequelize.close();
    } else {
      const server = await startServer(addressOf(making), { studies });
      await allDone(server.url, addressOf(making));
      await kill(server.child);
    }
    // Its connections end a moment after it.
    await ask(
      `select pg_terminate_backend(pid, 5000) from pg_stat_activity where datname = '${making}'`,
    );
    await ask(`alter database ${making} rename to ${name}`);
    return name;
  });
}

/** Waits until nothing is left to be read, laid flat or computed. */
async function allDone(url: string, databaseUrl: string): Promise<void> {
  const db = openDatabase(databaseUrl, { connections: 1 });
  const left = async () => {
    const [[row]] = (await db.sequelize.query(
      `select count(*)::int as n from jobs.job
       where state < 'completed' and name in ('sliced-file', 'photo', 'report')`,
    )) as unknown as [[{ n: number }]];
    return row.n;
  };
  while ((await left()) > 0) await new Promise((resolve) => setTimeout(resolve, 100));
  const studies = (await (await fetch(`${url}/api/v1/studies`)).json()) as { study_id: string }[];
  for (const { study_id } of studies) {
    await (await fetch(`${url}/api/v1/studies/${study_id}/results`)).arrayBuffer();
  }
  await db.sequelize.close();
}
