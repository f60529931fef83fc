import { QueryTypes, type ModelStatic, type Sequelize, type Transaction } from 'sequelize';
import * as z from 'zod';
import { plainValue } from '../core/model/study';
import { connect, type ConnectOptions } from './connect';
import { rowModels, type RowModels } from './models/rows';
import { defineStudyModel, type StudyRecord } from './models/study';

/**
 * A connection with its models: what the repositories work on. Within a transaction it carries it,
 * so that whatever is asked of it is asked there.
 */
export interface Database {
  sequelize: Sequelize;
  studies: ModelStatic<StudyRecord>;
  rows: RowModels;
  transaction?: Transaction;
}

/** Opens the database at an address. The caller closes it by `sequelize.close()`. */
export function openDatabase(databaseUrl: string, options?: ConnectOptions): Database {
  const sequelize = connect(databaseUrl, options);
  return { sequelize, studies: defineStudyModel(sequelize), rows: rowModels(sequelize) };
}

/** What a query is told of the transaction that it runs in. */
export const within = (db: Pick<Database, 'transaction'>): { transaction?: Transaction } =>
  db.transaction ? { transaction: db.transaction } : {};

/** A row of which only its being there is asked. */
export const someRow = z.looseObject({});

/** Where statements are run: a connection, within its transaction where there is one. */
export type Door = Pick<Database, 'sequelize' | 'transaction'>;

/** Whether what the database gives is held against what it is said to be: in tests and in development. */
const isChecking = process.env.CHECK_ROWS === '1';

/**
 * Runs a query with bound parameters and gives its rows: the one way for SQL that a model cannot say.
 *
 * @param schema what each row is; it checks and changes nothing
 * @throws ZodError where rows are checked and one is another
 */
export async function query<Schema extends z.ZodType<object>>(
  db: Door,
  schema: Schema,
  sql: string,
  bind: readonly unknown[] = [],
): Promise<z.output<Schema>[]> {
  const rows = await db.sequelize.query<z.output<Schema>>(sql, {
    type: QueryTypes.SELECT,
    ...(bind.length > 0 && { bind: [...bind] }),
    ...within(db),
  });
  if (isChecking) for (const row of rows) schema.parse(row);
  return rows;
}

/** Runs a statement with bound parameters. */
export async function execute(db: Door, sql: string, bind: readonly unknown[] = []): Promise<void> {
  await db.sequelize.query(sql, {
    ...(bind.length > 0 && { bind: [...bind] }),
    ...within(db),
  });
}

/** A value as JSON that PostgreSQL takes: characters that it cannot hold are replaced. */
export const asJson = (value: unknown): string => JSON.stringify(plainValue(value));

/** Columns of moments as SQL that gives them as ISO 8601 texts, in UTC. */
export const moments = (...columns: readonly string[]): string =>
  columns
    .map((column) => {
      const [name] = column.split('.').slice(-1);
      return `to_char(${column} at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') as ${name}`;
    })
    .join(', ');

/** Whether the database answers within so many milliseconds. */
export async function isReachable(db: Database, withinMs: number): Promise<boolean> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<boolean>((resolve) => {
    timer = setTimeout(() => resolve(false), withinMs);
  });
  const answer = query(db, someRow, 'select 1').then(
    () => true,
    () => false,
  );
  return Promise.race([answer, late]).finally(() => clearTimeout(timer));
}

/** A name that this database keeps, and that no other one has. */
export async function databaseName(db: Database): Promise<string> {
  const [found] = await query(
    db,
    z.strictObject({ name: z.string() }),
    `select substr(md5(d.oid::text || (select min(ran_at)::text from migrations)), 1, 12) as name
     from pg_database d where datname = current_database()`,
  );
  return found?.name ?? '';
}
