import {
  lotStocks,
  runOrder,
  USUAL_ORDER,
  type LotStock,
  type OrderOptions,
  type PlannedPrint,
  expectedMass,
} from '../../core/answers/plan';
import type { PairRow } from '../../core/statistics/compare';
import type { ResultParts } from '../../core/answers/results';
import { contenderMarks, type ContenderMark, type Print, type Row } from '../../core/model/study';
import { listRows, listSlicedFiles, loadStudy, type SlicedSummary, type Stored } from '../../data';
import type { App } from '../app';
import { planWarnings } from './warnings';
import { resultsOf } from '../results/results';

/** A planned print with what became of it. */
export interface OrderedPrint extends PlannedPrint {
  state: 'due' | 'open' | 'done';
}

/** A repeat of an artefact with a contender. */
type Place = Pick<Print, 'contender_id' | 'artefact_id' | 'repeat'>;

/** What the plan shows. */
export interface PlanData {
  planned: Stored<'planned'>[];
  materials: { id: string; name: string }[];
  artefacts: { id: string; name: string }[];
  files: SlicedSummary[];
  warnings: Record<string, string>;
  order: OrderedPrint[];
  options: OrderOptions;
  stocks: LotStock[];
  spools: Stored<'spools'>[];
  scatter: ResultParts['scatter'];
  /** What is not settled yet: figure by figure, the comparisons against the reference. */
  unsettled: { quantity: PairQuantity; rows: PairRow[] }[];
}

const QUANTITIES = ['accuracy_mm', 'surface', 'ln_print_s'] as const;

type PairQuantity = (typeof QUANTITIES)[number];

const MATERIAL_WORDS = ['maker', 'type', 'colour', 'lot'] as const;

/** A lot of material as people say it. */
export const materialName = (row: Record<string, unknown>): string =>
  MATERIAL_WORDS.map((word) => row[word])
    .filter(Boolean)
    .join(' ');

/** Reads what the plan of a study shows. */
export async function planData(app: App, studyId: string): Promise<PlanData> {
  const { db } = app;
  const [{ study }, planned, spools, files, warnings, { scatter, pairs }] = await Promise.all([
    loadStudy(db, studyId, [
      'planned',
      'prints',
      'open_prints',
      'materials',
      'artefacts',
      'spools',
    ]),
    listRows(db, studyId, 'planned'),
    listRows(db, studyId, 'spools'),
    listSlicedFiles(db, studyId),
    planWarnings(app, studyId),
    resultsOf(app, { studyId, reference: null }, ['scatter', 'pairs']),
  ]);
  const { tables, meta } = study;
  const options = meta.plan ?? USUAL_ORDER;
  const byFile = new Map(files.map((file) => [file.path, file.filament_g]));
  const grams = expectedMass(tables.prints, tables.planned, byFile);
  return {
    planned,
    materials: tables.materials.map((row) => ({ id: row.material_id, name: materialName(row) })),
    artefacts: tables.artefacts.map((row) => ({ id: row.artefact_id, name: row.name })),
    files,
    warnings,
    order: orderedPrints(tables.planned, tables.prints, tables.open_prints, options),
    options,
    spools,
    stocks: lotStocks(tables, (contender, artefact) => grams(contender, artefact)),
    scatter,
    unsettled: QUANTITIES.flatMap((quantity) => {
      const rows = (pairs[quantity] ?? []).filter((row) => row.verdict === 'unsettled');
      return rows.length > 0 ? [{ quantity, rows }] : [];
    }),
  };
}

/** The run order, each print with whether it is made, running or due. */
export function orderedPrints(
  planned: readonly Row<'planned'>[],
  prints: readonly Place[],
  openPrints: readonly Place[],
  options: OrderOptions,
): OrderedPrint[] {
  const key = (row: Place) => `${row.contender_id} ${row.artefact_id} ${row.repeat}`;
  const done = new Set(prints.map(key));
  const open = new Set(openPrints.map(key));
  return runOrder(planned, options).map((print) => ({
    ...print,
    state: done.has(key(print)) ? 'done' : open.has(key(print)) ? 'open' : 'due',
  }));
}

/** What the run sheet and the stickers show. */
export async function sheetData(
  app: App,
  studyId: string,
): Promise<{ order: OrderedPrint[]; marks: ContenderMark[]; data: PlanData }> {
  const data = await planData(app, studyId);
  const { study } = await loadStudy(app.db, studyId, ['contenders', 'machines', 'profiles']);
  const { contenders, machines, profiles } = study.tables;
  return { order: data.order, marks: contenderMarks(contenders, machines, profiles), data };
}
