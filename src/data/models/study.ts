import {
  DataTypes,
  Model,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';
import type { StudyMeta } from '../../core/model/study';

/** The record of a study: its question and settings, its revision and version. */
export class StudyRecord extends Model<
  InferAttributes<StudyRecord>,
  InferCreationAttributes<StudyRecord>
> {
  declare study_id: string;
  declare name: string;
  declare title: string;
  declare description: string | null;
  declare created: string | null;
  declare intent: StudyMeta['intent'];
  declare factor: CreationOptional<StudyMeta['factor']>;
  declare farm: CreationOptional<StudyMeta['farm']>;
  declare question: string | null;
  declare reference: string | null;
  declare smallest_difference: StudyMeta['smallest_difference'];
  declare cost: StudyMeta['cost'];
  declare scorecard: StudyMeta['scorecard'];
  declare scorecards: CreationOptional<StudyMeta['scorecards']>;
  declare sweep: CreationOptional<StudyMeta['sweep']>;
  declare plan: CreationOptional<StudyMeta['plan']>;
  declare report: CreationOptional<StudyMeta['report']>;
  /** Whether the bench link writes into this study. */
  declare is_linked: CreationOptional<boolean>;
  declare package_extras: CreationOptional<Record<string, unknown>>;
  declare present: CreationOptional<string[]>;
  /** Raised by every write to the study; a bigint, and so a text. */
  declare revision: CreationOptional<string>;
  /** By what the study is made of: the revision in which it was changed last. */
  declare touched: CreationOptional<Record<string, number>>;
  /** Raised by every write to this record. */
  declare version: CreationOptional<number>;
  declare created_at: CreationOptional<Date>;
  declare updated_at: CreationOptional<Date>;
  declare deleted_at: CreationOptional<Date | null>;
  /** When it was put aside: an archived study is neither on the desk nor in the first list. */
  declare archived_at: CreationOptional<Date | null>;
  declare labels: CreationOptional<string[]>;
}

/** The model of the studies, bound to a connection. */
export function defineStudyModel(sequelize: Sequelize): ModelStatic<StudyRecord> {
  // Sequelize writes into each definition: every attribute needs one of its own.
  const text = () => ({ type: DataTypes.TEXT, allowNull: false });
  const maybeText = () => ({ type: DataTypes.TEXT });
  return class extends StudyRecord {}.init(
    {
      study_id: { type: DataTypes.UUID, primaryKey: true },
      name: text(),
      title: text(),
      description: maybeText(),
      created: maybeText(),
      intent: text(),
      factor: maybeText(),
      farm: { type: DataTypes.JSON },
      question: maybeText(),
      reference: maybeText(),
      smallest_difference: { type: DataTypes.JSON, allowNull: false },
      cost: { type: DataTypes.JSON },
      scorecard: { type: DataTypes.JSON },
      scorecards: { type: DataTypes.JSON },
      sweep: { type: DataTypes.JSON },
      plan: { type: DataTypes.JSON },
      report: { type: DataTypes.JSON },
      is_linked: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
      package_extras: { type: DataTypes.JSON, allowNull: false, defaultValue: {} },
      present: { type: DataTypes.ARRAY(DataTypes.TEXT), allowNull: false, defaultValue: [] },
      revision: { type: DataTypes.BIGINT, allowNull: false, defaultValue: 1 },
      touched: { type: DataTypes.JSONB, allowNull: false, defaultValue: {} },
      version: { type: DataTypes.INTEGER, allowNull: false, defaultValue: 1 },
      created_at: { type: DataTypes.DATE, defaultValue: DataTypes.NOW },
      updated_at: { type: DataTypes.DATE, defaultValue: DataTypes.NOW },
      deleted_at: { type: DataTypes.DATE },
      archived_at: { type: DataTypes.DATE },
      labels: { type: DataTypes.ARRAY(DataTypes.TEXT), allowNull: false, defaultValue: [] },
    },
    { sequelize, modelName: 'study', tableName: 'studies', timestamps: false },
  );
}
