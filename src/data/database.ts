import { QueryTypes, type ModelStatic, type Sequelize, type Transaction } from 'sequelize';
import type { TableName } from '../core/study';
import { connect, type ConnectOptions } from './connect';
import { defineRowModels, type RowModel } from './models/rows';
import { defineStudyModel, type StudyRecord } from './models/study';

/** A connection with its models: what the repositories work on. */
export interface Database {
  sequelize: Sequelize;
  studies: ModelStatic<StudyRecord>;
  rows: Record<TableName, RowModel>;
}

/** Opens the database at an address. The caller closes it by `sequelize.close()`. */
export function openDatabase(databaseUrl: string, options?: ConnectOptions): Database {
  const sequelize = connect(databaseUrl, options);
  return { sequelize, studies: defineStudyModel(sequelize), rows: defineRowModels(sequelize) };
}

/** Runs a query with bound parameters and gives its rows. */
export function select<Found extends object>(
  db: Database,
  sql: string,
  bind: readonly unknown[],
  transaction?: Transaction,
): Promise<Found[]> {
  return db.sequelize.query<Found>(sql, {
    type: QueryTypes.SELECT,
    ...(bind.length > 0 && { bind: [...bind] }),
    ...(transaction && { transaction }),
  });
}

/** Runs a statement with bound parameters. */
export async function execute(
  db: Database,
  sql: string,
  bind: readonly unknown[],
  transaction?: Transaction,
): Promise<void> {
  await db.sequelize.query(sql, {
    ...(bind.length > 0 && { bind: [...bind] }),
    ...(transaction && { transaction }),
  });
}

/**
 * Runs a change in a transaction in which foreign keys are checked at once, so that what does not
 * fit fails where it is done and not at the commit.
 */
export function change<Result>(
  db: Database,
  work: (transaction: Transaction) => Promise<Result>,
): Promise<Result> {
  return db.sequelize.transaction(async (transaction) => {
    await execute(db, 'set constraints all immediate', [], transaction);
    return work(transaction);
  });
}
