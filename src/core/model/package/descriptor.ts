import * as z from 'zod';
import {
  columnsOf,
  plainValue,
  tableSpec,
  vergleichSchema,
  type Column,
  type StudyMeta,
  type TableName,
  quote,
  tableOfReference,
  fieldOf,
} from '../study';
import type { FaultList } from './fault';
import { HISTORY } from './history';

export const DESCRIPTOR = 'datapackage.json';

const descriptorSchema = z.looseObject({
  name: z.string().min(1),
  title: z.string().nullish(),
  description: z.string().nullish(),
  created: z.string().nullish(),
  resources: z.array(z.looseObject({ name: z.string().nullish(), path: z.string() })),
  vergleich: vergleichSchema,
});

export type Descriptor = z.infer<typeof descriptorSchema>;

/** Reads `datapackage.json`; null and faults where it cannot be used. */
export function readDescriptor(bytes: Uint8Array, faults: FaultList): Descriptor | null {
  let json: unknown;
  try {
    json = plainValue(JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes)));
  } catch (error) {
    const isEncoding = error instanceof TypeError;
    faults.add(
      DESCRIPTOR,
      1,
      '-',
      isEncoding
        ? 'is not UTF-8: save the file as UTF-8'
        : `is not JSON: ${error instanceof Error ? error.message : 'it cannot be read'}`,
    );
    return null;
  }
  const parsed = descriptorSchema.safeParse(json);
  if (parsed.success) return parsed.data;
  for (const issue of parsed.error.issues) {
    const at = issue.path.map(String).join('.');
    const found = issue.path.reduce<unknown>((value, part) => fieldOf(value, part), json);
    const shown = found === undefined ? 'missing' : quote(JSON.stringify(found));
    faults.add(DESCRIPTOR, 1, '-', `${at || 'the file'} (${shown}): ${issue.message}`);
  }
  return null;
}

/** What the study is about, from its descriptor. */
export function metaOf(descriptor: Descriptor): StudyMeta {
  const own = descriptor.vergleich;
  return {
    name: descriptor.name,
    title: descriptor.title || descriptor.name,
    description: descriptor.description ?? null,
    created: descriptor.created ?? null,
    intent: own.intent,
    factor: own.factor ?? null,
    farm: own.farm ?? null,
    question: own.question ?? null,
    reference: own.reference,
    smallest_difference: own.smallest_difference ?? {},
    cost: own.cost ?? null,
    scorecard: own.scorecard ?? null,
    scorecards: own.scorecards ?? null,
    sweep: own.sweep ?? null,
    plan: own.plan ?? null,
    report: own.report ?? null,
  };
}

/** What a descriptor holds besides what this program knows, so that an export gives it back. */
export function descriptorExtras(
  descriptor: Descriptor,
  isTable: (path: string) => boolean,
): Record<string, unknown> {
  const known = new Set(['name', 'title', 'description', 'created', 'profile', 'vergleich']);
  const extras = Object.fromEntries(
    Object.entries(descriptor).filter(([key]) => !known.has(key) && key !== 'resources'),
  );
  const resources = descriptor.resources.filter((resource) => !isTable(resource.path));
  return resources.length > 0 ? { ...extras, resources } : extras;
}

/** The descriptor of a study with these tables. */
export function buildDescriptor(
  meta: StudyMeta,
  tables: readonly { name: TableName; extraColumns: readonly string[] }[],
  extras: Record<string, unknown>,
  hasHistory: boolean,
): Record<string, unknown> {
  const { resources: extraResources, ...rest } = extras;
  const moreResources: readonly unknown[] = Array.isArray(extraResources) ? extraResources : [];
  return {
    profile: 'tabular-data-package',
    name: meta.name,
    title: meta.title,
    ...(meta.description !== null && { description: meta.description }),
    ...(meta.created !== null && { created: meta.created }),
    ...rest,
    vergleich: {
      format: 1,
      intent: meta.intent,
      ...(meta.factor && { factor: meta.factor }),
      ...(meta.farm && { farm: meta.farm }),
      ...(meta.question !== null && { question: meta.question }),
      ...(meta.reference !== null && { reference: meta.reference }),
      smallest_difference: meta.smallest_difference,
      ...(meta.cost && { cost: meta.cost }),
      ...(meta.scorecard && { scorecard: meta.scorecard }),
      ...(meta.scorecards && { scorecards: meta.scorecards }),
      ...(meta.sweep && { sweep: meta.sweep }),
      ...(meta.plan && { plan: meta.plan }),
      ...(meta.report && { report: meta.report }),
    },
    resources: [
      ...tables.map(({ name, extraColumns }) => resourceOf(name, extraColumns)),
      ...(hasHistory ? [historyResource()] : []),
      ...moreResources,
    ],
  };
}

function historyResource(): Record<string, unknown> {
  const field = (name: string, type: string) => ({ name, type });
  return {
    ...TABULAR,
    name: 'history',
    path: HISTORY,
    schema: {
      fields: [
        { ...field('at', 'datetime'), format: 'any' },
        ...['who', 'person', 'table'].map((name) => field(name, 'string')),
        ...['key', 'before', 'after'].map((name) => field(name, 'object')),
      ],
      missingValues: [''],
    },
  };
}

/** What every table's resource says of itself. */
const TABULAR = {
  profile: 'tabular-data-resource',
  format: 'csv',
  mediatype: 'text/csv',
  encoding: 'utf-8',
};

function resourceOf(name: TableName, extraColumns: readonly string[]): Record<string, unknown> {
  const spec = tableSpec(name);
  return {
    profile: 'tabular-data-resource',
    name,
    path: `${name}.csv`,
    format: 'csv',
    mediatype: 'text/csv',
    encoding: 'utf-8',
    schema: {
      fields: [
        ...columnsOf(name).map(fieldOfColumn),
        ...extraColumns.map((column) => ({ name: column, type: 'string' })),
      ],
      primaryKey: name === 'readings' ? [...spec.key, 'superseded_at'] : [...spec.key],
      foreignKeys: (spec.references ?? []).flatMap((reference) =>
        reference.scope === 'id'
          ? [
              {
                fields: reference.column,
                reference: {
                  resource: reference.table === name ? '' : reference.table,
                  fields: tableSpec(tableOfReference(reference)).key[0],
                },
              },
            ]
          : [],
      ),
      missingValues: [''],
    },
  };
}

function fieldOfColumn(column: Column): Record<string, unknown> {
  const type =
    column.cell === 'number'
      ? { type: 'number' }
      : column.cell === 'whole'
        ? { type: 'integer' }
        : column.cell === 'time'
          ? { type: 'datetime', format: 'any' }
          : { type: 'string' };
  const constraints = {
    ...(column.required && { required: true }),
    ...(column.choices && { enum: column.choices }),
  };
  return {
    name: column.name,
    ...type,
    ...(Object.keys(constraints).length > 0 && { constraints }),
  };
}
