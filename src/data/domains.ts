import { createHash } from 'node:crypto';
import type { Sequelize, Transaction } from 'sequelize';
import * as z from 'zod';
import { columnsOf, TABLE_NAMES, type Column, type TableName } from '../core/model/study';
import { query } from './database';

/** A constraint of the database that holds a column to its domain. */
export interface DomainCheck {
  table: TableName;
  name: string;
  expression: string;
}

interface NumberBounds {
  minimum?: number;
  exclusiveMinimum?: number;
  maximum?: number;
  exclusiveMaximum?: number;
}

/** Ends of the numbers of a schema. Columns share few schemas: each is asked once. */
const ends = new WeakMap<z.ZodType, NumberBounds>();

function endsOf(schema: z.ZodType): NumberBounds {
  const found =
    ends.get(schema) ?? (z.toJSONSchema(schema, { unrepresentable: 'any' }) as NumberBounds);
  ends.set(schema, found);
  return found;
}

/** What a column may hold as an SQL expression, from its Zod schema; null where any text will do. */
function expressionOf(column: Column): string | null {
  const name = `"${column.name}"`;
  if (column.choices) {
    return `${name} in (${column.choices.map((word) => `'${word.replace(/'/g, "''")}'`).join(', ')})`;
  }
  if (column.cell === 'number' || column.cell === 'whole') {
    const bounds = endsOf(column.schema);
    // NaN is larger than any number to PostgreSQL: an upper end keeps it out too.
    const sides = [
      bounds.minimum !== undefined && `${name} >= ${bounds.minimum}`,
      bounds.exclusiveMinimum !== undefined && `${name} > ${bounds.exclusiveMinimum}`,
      bounds.maximum !== undefined && `${name} <= ${bounds.maximum}`,
      bounds.exclusiveMaximum !== undefined && `${name} < ${bounds.exclusiveMaximum}`,
    ].filter((side) => side !== false);
    return sides.length > 0 ? sides.join(' and ') : null;
  }
  // The pattern of ids in three parts: one with a bounded repeat takes six times as long.
  if (column.cell === 'id') {
    return `length(${name}) <= 64 and ${name} ~ '^[A-Za-z0-9]' and ${name} !~ '[^A-Za-z0-9._-]'`;
  }
  if (column.cell === 'sha256') return `${name} ~ '^[0-9a-fA-F]{64}$'`;
  // Which codes are in use is a list that changes; the shape does not.
  if (column.cell === 'currency') return `${name} ~ '^[A-Z]{3}$'`;
  return `${name} <> ''`;
}

/** A time of a row as PostgreSQL compares it. */
const moment = (column: string) => `replace(${column}, ',', '.')::timestamptz`;

const PRINT = {
  waste_g: 'waste_g <= filament_g',
  ended_at: `${moment('ended_at')} >= ${moment('started_at')}`,
};

/** Rules between two columns of a row: what the package reader says of cells holds here too. */
const BETWEEN: Partial<Record<TableName, Readonly<Record<string, string>>>> = {
  prints: PRINT,
  open_prints: PRINT,
  dimensions: { lower_tol_mm: 'lower_tol_mm <= upper_tol_mm' },
  profiles: { parent_id: 'parent_id <> profile_id' },
  checks: { lower: 'lower <= upper' },
};

/** All constraints that the Zod schemas of the tables' rows ask for. */
export function domainChecks(): DomainCheck[] {
  const checks: DomainCheck[] = [];
  const add = (table: TableName, subject: string, expression: string) => {
    const edition = createHash('sha256').update(expression).digest('hex').slice(0, 8);
    checks.push({ table, name: `domain_${subject}_${edition}`, expression });
  };
  for (const table of TABLE_NAMES) {
    for (const column of columnsOf(table)) {
      const expression = expressionOf(column);
      if (expression !== null) add(table, column.name, expression);
    }
    for (const [subject, expression] of Object.entries(BETWEEN[table] ?? {})) {
      add(table, `${subject}_fits`, expression);
    }
  }
  return checks;
}

/**
 * Brings the constraints of the database to those that the schemas ask for: what is asked for no more
 * goes, what is new comes. Rows that were stored before are left as they are.
 */
export async function syncDomains(sequelize: Sequelize, transaction: Transaction): Promise<void> {
  const run = (sql: string) => sequelize.query(sql, { transaction });
  const there = await query(
    { sequelize, transaction },
    z.strictObject({ table_name: z.string(), name: z.string() }),
    `select conrelid::regclass::text as table_name, conname as name from pg_constraint
     where contype = 'c' and conname like 'domain\\_%'`,
  );
  const wanted = domainChecks();
  const key = (table: string, name: string) => `${table}.${name}`;
  const known = new Set(there.map((one) => key(one.table_name, one.name)));
  const asked = new Set(wanted.map((one) => key(one.table, one.name)));
  for (const { table_name, name } of there) {
    if (!asked.has(key(table_name, name))) {
      await run(`alter table ${table_name} drop constraint "${name}"`);
    }
  }
  const missing = new Map<string, DomainCheck[]>();
  for (const check of wanted) {
    if (known.has(key(check.table, check.name))) continue;
    missing.set(check.table, [...(missing.get(check.table) ?? []), check]);
  }
  for (const [table, checks] of missing) {
    const added = checks.map(
      ({ name, expression }) => `add constraint "${name}" check (${expression}) not valid`,
    );
    await run(`alter table ${table} ${added.join(', ')}`);
  }
}
