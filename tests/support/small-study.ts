import {
  emptyTables,
  TABLES,
  type Row,
  type Study,
  type TableName,
} from '../../src/core/model/study';

type Given = { [Name in TableName]?: Record<string, unknown>[] };

/** A study from rows that name only what matters; the rest is not known. */
export function smallStudy(given: Given, meta: Partial<Study['meta']> = {}): Study {
  const tables = emptyTables();
  for (const [name, rows] of Object.entries(given)) {
    const { row } = TABLES[name as TableName];
    (tables as Record<string, unknown[]>)[name] = rows.map((each) => row.parse(each));
  }
  return {
    meta: {
      name: 'small',
      title: 'Small',
      description: null,
      created: null,
      intent: 'machines',
      question: null,
      reference: 'R',
      smallest_difference: {},
      cost: null,
      scorecard: null,
      ...meta,
    },
    tables,
    present: new Set(Object.keys(given) as TableName[]),
  };
}

/** Two contenders R and C on a machine each, one material, one artefact `part`. */
export const TWO_SIDES: Given = {
  machines: [
    { machine_id: 'mr', name: 'Reference machine' },
    { machine_id: 'mc', name: 'Other machine' },
  ],
  profiles: [{ profile_id: 'p', name: 'Stock', kind: 'stock' }],
  materials: [{ material_id: 'pla', type: 'PLA' }],
  contenders: [
    { contender_id: 'R', label: 'R', machine_id: 'mr', profile_id: 'p' },
    { contender_id: 'C', label: 'C', machine_id: 'mc', profile_id: 'p' },
  ],
  artefacts: [{ artefact_id: 'part', name: 'Part' }],
};

/** A print with what matters to a test. */
export const print = (
  print_id: string,
  contender_id: string,
  more: Partial<Row<'prints'>> = {},
): Record<string, unknown> => ({
  print_id,
  contender_id,
  artefact_id: 'part',
  material_id: 'pla',
  repeat: 1,
  outcome: 'success',
  ...more,
});
