import {
  DataTypes,
  type Model,
  type ModelAttributes,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';
import { columnsOf, tableSpec, type AnyRow, type TableName } from '../../core/model/study';

/** A stored row of a study's table: its columns, and what the database adds. */
export type StoredRow = AnyRow & {
  study_id: string;
  extras: Record<string, string> | null;
  row_version: number;
};

export type RowModel = ModelStatic<Model<StoredRow>>;

const TYPES = {
  number: DataTypes.DOUBLE,
  whole: DataTypes.INTEGER,
} as const;

/** The models of a study's tables, bound to a connection: each is made when it is asked for. */
export type RowModels = (table: TableName) => RowModel;

export function rowModels(sequelize: Sequelize): RowModels {
  const made = new Map<TableName, RowModel>();
  return (table) => {
    const model = made.get(table) ?? defineRowModel(sequelize, table);
    made.set(table, model);
    return model;
  };
}

function defineRowModel(sequelize: Sequelize, table: TableName): RowModel {
  const key = new Set(tableSpec(table).key);
  const hasOwnId = table === 'readings';
  const attributes: ModelAttributes = {
    study_id: { type: DataTypes.UUID, primaryKey: true },
    ...(hasOwnId && { reading_id: { type: DataTypes.UUID, primaryKey: true } }),
  };
  for (const column of columnsOf(table)) {
    attributes[column.name] = {
      type: column.cell in TYPES ? TYPES[column.cell as keyof typeof TYPES] : DataTypes.TEXT,
      allowNull: !column.required,
      primaryKey: !hasOwnId && key.has(column.name),
    };
  }
  // Rows that may repeat are told apart by the order in which they came.
  if (key.size === 0) {
    attributes.ordinal = { type: DataTypes.BIGINT, primaryKey: true, autoIncrement: true };
  }
  attributes.extras = { type: DataTypes.JSONB };
  attributes.row_version = { type: DataTypes.INTEGER, allowNull: false, defaultValue: 1 };
  return sequelize.define(table, attributes, {
    tableName: table,
    timestamps: false,
  });
}
