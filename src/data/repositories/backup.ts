import * as z from 'zod';
import { Transaction } from 'sequelize';
import { execute, query, someRow, type Database } from '../database';

/** What a table held: how many rows, and a hash that hangs on all of them and not on their order. */
export interface TableSum {
  rows: number;
  sha256: string;
}

/**
 * Tables whose rows are not kept: results are made anew, and whoever was signed in signs in anew.
 */
export const NOT_KEPT: readonly string[] = [
  'results',
  'sessions',
  'access_links',
  'sign_in_tries',
  // What became of backups changes while one is made, and answers are kept for a day.
  'backups',
  'backup_checks',
  'kept_answers',
];

const quoted = (name: string): string => `"${name.replaceAll('"', '""')}"`;

const keptTablesRow = z.strictObject({ name: z.string() });

/** Names of the application's tables, without those whose rows are not kept. */
async function keptTables(db: Database): Promise<string[]> {
  const found = await query(
    db,
    keptTablesRow,
    `select table_name as name from information_schema.tables
     where table_schema = 'public' and table_type = 'BASE TABLE' order by 1`,
  );
  return found.map(({ name }) => name).filter((name) => !NOT_KEPT.includes(name));
}

const sumTablesRow = z.strictObject({ rows: z.string(), sha256: z.string() });

/** What every kept table holds. */
export async function sumTables(db: Database): Promise<Record<string, TableSum>> {
  // The text of a row is the same on every server.
  for (const setting of [
    "timezone to 'UTC'",
    "datestyle to 'ISO'",
    "bytea_output to 'hex'",
    'extra_float_digits to 1',
  ]) {
    await execute(db, `set local ${setting}`);
  }
  const sums: Record<string, TableSum> = {};
  for (const table of await keptTables(db)) {
    const [found] = await query(
      db,
      sumTablesRow,
      `select count(*) as rows,
         encode(sha256(convert_to(coalesce(string_agg(h, '' order by h), ''), 'UTF8')), 'hex') as sha256
       from (select encode(sha256(convert_to(t::text, 'UTF8')), 'hex') as h from ${quoted(table)} t) each`,
    );
    sums[table] = { rows: Number(found?.rows ?? 0), sha256: found?.sha256 ?? '' };
  }
  return sums;
}

/** Has the planner know what is in all tables: a database that was filled by others learns it a minute later only. */
export const countTables = (db: Database): Promise<void> => execute(db, 'analyze');

const asItStandsRow = z.strictObject({ id: z.string() });

/** Does some work on the database as it stands at one moment, whatever is written meanwhile. */
export const asItStands = <Result>(
  db: Database,
  work: (bound: Database, snapshot: string) => Promise<Result>,
): Promise<Result> =>
  db.sequelize.transaction(
    { isolationLevel: Transaction.ISOLATION_LEVELS.REPEATABLE_READ },
    async (transaction) => {
      const bound = { ...db, transaction };
      const [found] = await query(bound, asItStandsRow, 'select pg_export_snapshot() as id');
      return work(bound, found?.id ?? '');
    },
  );

/** Whether a database has no table at all. */
export async function isEmptyDatabase(db: Database): Promise<boolean> {
  const found = await query(
    db,
    someRow,
    `select 1 from information_schema.tables where table_schema not in ('pg_catalog', 'information_schema') limit 1`,
  );
  return found.length === 0;
}

/** Takes a database of the same server away, where there is one of that name. */
export const dropDatabase = (db: Database, name: string): Promise<void> =>
  execute(db, `drop database if exists ${quoted(name)} with (force)`);

/** Makes an empty database on the same server, in place of one of that name. */
export async function makeDatabase(db: Database, name: string): Promise<void> {
  await dropDatabase(db, name);
  await execute(db, `create database ${quoted(name)}`);
}

/** Takes everything out of a database: what was restored into it is not what was backed up. */
export const emptyDatabase = (db: Database): Promise<void> =>
  execute(db, 'drop schema public cascade; create schema public');

const migrationsOfRow = z.strictObject({ found: z.boolean() });

/** Names of the migrations that a database has behind it; none where it is not of this application. */
export async function migrationsOf(db: Database): Promise<string[]> {
  const [own] = await query(
    db,
    migrationsOfRow,
    `select to_regclass('public.migrations') is not null as found`,
  );
  if (!own?.found) return [];
  const rows = await query(db, keptTablesRow, 'select name from migrations order by name');
  return rows.map(({ name }) => name);
}

const damagedContentsRow = z.strictObject({ sha256: z.string() });

/** Stored contents that are not what their hash says, by their hashes. */
export async function damagedContents(db: Database): Promise<string[]> {
  const rows = await query(
    db,
    damagedContentsRow,
    `select f.sha256 from stored_files f
     left join lateral (
       select string_agg(data, ''::bytea order by sequence) as whole
       from file_chunks c where c.sha256 = f.sha256
     ) w on true
     where encode(sha256(coalesce(whole, ''::bytea)), 'hex') <> f.sha256
        or length(coalesce(whole, ''::bytea)) <> f.bytes
     order by 1`,
  );
  return rows.map(({ sha256 }) => sha256);
}

const brokenConstraintsRow = z.strictObject({ owner: z.string(), name: z.string() });

/**
 * Constraints that some rows break, with what the database says of it. Those that were given to tables with
 * rows already in them hold for new rows only: here the older ones are tried too.
 */
export async function brokenConstraints(db: Database): Promise<string[]> {
  const loose = await query(
    db,
    brokenConstraintsRow,
    `select conrelid::regclass::text as owner, conname as name from pg_constraint
     where not convalidated order by 1, 2`,
  );
  const broken: string[] = [];
  for (const { owner, name } of loose) {
    try {
      await execute(db, `alter table ${owner} validate constraint ${quoted(name)}`);
    } catch (error) {
      broken.push(`${owner}: ${error instanceof Error ? error.message : name}`);
    }
  }
  return broken;
}
