import { instant, quote, type AnyRow, type TableName } from '../study';
import type { FaultList } from './fault';
import type { LoadedRow, LoadedTable } from './loaded-table';
import { cellOf, type Lookup } from './references';

/** What a row says that cannot be: the column at fault and the reason. */
export interface Breach {
  column: string;
  message: string;
}

type Rule = (row: LoadedRow, lookup: Lookup) => Breach | null;

/** A rule between the cells of one row. */
type RowRule = (row: Pick<LoadedRow, 'values'>) => Breach | null;

const numberOf = (row: Pick<LoadedRow, 'values'>, column: string): number | undefined => {
  const value = cellOf(row, column);
  return typeof value === 'number' ? value : undefined;
};

const notAbove =
  (smaller: string, larger: string): RowRule =>
  (row) => {
    const low = numberOf(row, smaller);
    const high = numberOf(row, larger);
    if (low === undefined || high === undefined || low <= high) return null;
    return { column: smaller, message: `${quote(String(low))} is above ${larger} (${high})` };
  };

const endsAfterItStarts: RowRule = (row) => {
  const started = cellOf(row, 'started_at');
  const ended = cellOf(row, 'ended_at');
  if (started === undefined || ended === undefined) return null;
  if (instant(String(ended)) >= instant(String(started))) return null;
  return {
    column: 'ended_at',
    message: `${quote(String(ended))} is before started_at (${String(started)})`,
  };
};

const isNotItsOwnParent: RowRule = (row) => {
  const parent = cellOf(row, 'parent_id');
  if (parent === undefined || parent !== cellOf(row, 'profile_id')) return null;
  return { column: 'parent_id', message: `${quote(String(parent))} is the profile itself` };
};

const happensOnThePrintsMachine: Rule = (row, lookup) => {
  const machine = cellOf(row, 'machine_id');
  const printId = cellOf(row, 'print_id');
  const print = lookup.row('prints', printId) ?? lookup.row('open_prints', printId);
  const contender = lookup.row('contenders', cellOf(print, 'contender_id'));
  const printedOn = cellOf(contender, 'machine_id');
  if (machine === undefined || printedOn === undefined || machine === printedOn) return null;
  return {
    column: 'machine_id',
    message:
      `${quote(String(machine))} is not the machine of print ${quote(String(printId))}, which is ` +
      `${quote(String(printedOn))}`,
  };
};

const guessNamesATarget: RowRule = (row) => {
  if (cellOf(row, 'kind') !== 'guess' || row.values.target !== null) return null;
  return { column: 'target', message: 'is empty, and a guess panel must name its target' };
};

const ballotFitsItsPanel: Rule = (row, lookup) => {
  const kind = cellOf(lookup.row('panels', cellOf(row, 'panel_id')), 'kind');
  if (kind === undefined) return null;
  const third = cellOf(row, 'item_3');
  const vote = cellOf(row, 'choice');
  const contenders = ['item_1', 'item_2', 'item_3'].map((item) =>
    lookup.contenderOfSpecimen(cellOf(row, item)),
  );
  if (kind === 'triangle') {
    if (vote === 'tie') return { column: 'choice', message: '"tie" is only for paired panels' };
    if (third === undefined) {
      return { column: 'item_3', message: 'is empty, and a triangle needs three items' };
    }
    if (contenders.includes(undefined) || new Set(contenders).size === 2) return null;
    return {
      column: '-',
      message:
        'a triangle needs two items of one contender and one of another, not ' +
        `${contenders.map((c) => quote(c ?? '')).join(', ')}`,
    };
  }
  if (third !== undefined) {
    return {
      column: 'item_3',
      message: `${quote(String(third))} must be empty in a ${String(kind)} ballot`,
    };
  }
  if (kind === 'guess' && vote === 'tie') {
    return { column: 'choice', message: '"tie" is only for paired panels' };
  }
  if (vote === '3') {
    return { column: 'choice', message: `"3" names no item of a ${String(kind)} ballot` };
  }
  if (kind === 'paired' && contenders[0] !== undefined && contenders[0] === contenders[1]) {
    return {
      column: '-',
      message: `both items are of contender ${quote(contenders[0])}: a paired ballot needs two`,
    };
  }
  return null;
};

const printRules = [notAbove('waste_g', 'filament_g'), endsAfterItStarts];

const ROW_RULES: Partial<Record<TableName, readonly RowRule[]>> = {
  profiles: [isNotItsOwnParent],
  dimensions: [notAbove('lower_tol_mm', 'upper_tol_mm')],
  prints: printRules,
  open_prints: printRules,
  panels: [guessNamesATarget],
  checks: [notAbove('lower', 'upper')],
};

/** With intent materials: what a contender is printed in. */
const contenderIsOfAMaterial: Rule = (row, lookup) => {
  if (lookup.intent !== 'materials' || row.values.material_id !== null) return null;
  return {
    column: 'material_id',
    message: 'is empty, and the intent "materials" needs the material of every contender',
  };
};

const printIsInItsContendersMaterial: Rule = (row, lookup) => {
  if (lookup.intent !== 'materials') return null;
  const own = cellOf(row, 'material_id');
  const wanted = cellOf(lookup.row('contenders', cellOf(row, 'contender_id')), 'material_id');
  if (own === undefined || wanted === undefined || own === wanted) return null;
  return {
    column: 'material_id',
    message: `${quote(String(own))} is not the material of its contender, which is ${quote(String(wanted))}`,
  };
};

const RULES: Partial<Record<TableName, readonly Rule[]>> = {
  ...ROW_RULES,
  contenders: [contenderIsOfAMaterial],
  prints: [...printRules, printIsInItsContendersMaterial],
  incidents: [happensOnThePrintsMachine],
  ballots: [ballotFitsItsPanel],
};

/** What cannot be between the cells of a row of a table: the columns at fault and the reasons. */
export const breachesOf = (table: TableName, row: AnyRow): Breach[] =>
  (ROW_RULES[table] ?? []).flatMap((rule) => rule({ values: row }) ?? []);

/** Checks what must hold between the cells of a row, and between a row and those it names. */
export function checkRules(lookup: Lookup, faults: FaultList): void {
  for (const table of lookup.tables.values()) {
    for (const rule of RULES[table.name] ?? []) {
      for (const row of table.rows) report(table, row, rule(row, lookup), faults);
    }
  }
}

function report(
  table: LoadedTable,
  row: LoadedRow,
  breach: Breach | null,
  faults: FaultList,
): void {
  if (breach) faults.add(table.file, row.line, breach.column, breach.message);
}
