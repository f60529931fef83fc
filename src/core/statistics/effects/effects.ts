import { compareFamily, type PairRow } from '../compare';
import { oneSideInterval, unknownInterval, type Interval, type PrintValues } from '../stats';
import {
  groupBy,
  partsOfStratum,
  type Contender,
  type Factor,
  type StudyIndex,
} from '../../model/study';
import { typeTwo, type Effect, type Observation, type Term } from './type-two';

/** How much of a response the machine explains, and how much the factor that machines are crossed with. */
export interface Effects {
  /** What machines are crossed with. */
  factor: Factor;
  /** Prints that take part; null without an analysis. */
  n: number | null;
  /**
   * Terms of the analysis of variance; null without one. The artefact is there where there are several
   * strata; `profile` is the factor, whatever it is.
   */
  terms: {
    artefact?: Term;
    machine: Effect;
    profile: Effect;
    'machine:profile': Effect;
  } | null;
  residual: { df: number; ss: number } | null;
  /** By tuned contender: what it gains against its stock one, in the response's own unit; more is better. */
  gains: Record<string, Interval> | null;
  /** By tuned contender: against its stock one in the unit of the study's pairs, with its verdict. */
  verdicts: Record<string, PairRow | null>;
  /** The levels of the factor, in the order in which they are drawn. */
  levels: readonly string[];
  /** By machine and level: the response, over prints by the one-side rule. */
  cells: Record<string, Record<string, Interval>>;
  /** The machines that take part in the analysis. */
  analysed: readonly string[];
  /** What the design cannot tell, in words. */
  notes: string[];
}

/** What the effects of a response are computed from. */
export interface Response {
  /** The response of each print of a contender, by stratum. */
  valuesOf: (contenderId: string) => PrintValues;
  /** Whether more is better, so that a gain is tuned less stock. */
  isLargerBetter: boolean;
  /** The verdict of a tuned contender against its stock one; null where there is none. */
  verdictOf: (tuned: string, stock: string) => PairRow | null;
}

/** The values of one machine at one level. */
interface Cell {
  machine: string;
  level: string;
  contenders: ReadonlySet<string>;
  /** By block. */
  values: ReadonlyMap<string, readonly number[]>;
}

/**
 * The analysis of variance of a response over machines × the study's factor, strata as a block, and what
 * tuning gains on each machine by the two-side rule.
 *
 * @param alpha intervals of the gains are two-sided 1 − alpha
 */
export function effectsOf(index: StudyIndex, response: Response, alpha: number): Effects {
  const { intent, factor: asked } = index.study.meta;
  const factor = (intent === 'crossed' ? asked : null) ?? 'kind';
  const notes: string[] = [];
  const cells = cellsOf(index, response, factor, notes);
  const { analysed, levels } = completeOf(cells, factor, notes);
  const gained = factor === 'kind' ? gainsOf(index, response, alpha, notes) : null;
  const found = {
    factor,
    gains: gained?.gains ?? null,
    verdicts: gained?.verdicts ?? {},
    levels: inOrder([...new Set(cells.map(({ level }) => level))], factor),
    cells: Object.fromEntries(
      [...groupBy(cells, ({ machine }) => machine)].map(([machine, own]) => [
        machine,
        Object.fromEntries(own.map(({ level, values }) => [level, oneSideInterval(values, alpha)])),
      ]),
    ),
  };
  if (analysed.length < 2 || levels.length < 2) {
    notes.push('fewer than two machines are there at two levels or more: no analysis');
    return { ...found, n: null, terms: null, residual: null, analysed: [], notes };
  }
  const observations = cells
    .filter(({ machine, level }) => analysed.includes(machine) && levels.includes(level))
    .flatMap(({ machine, level, values }) =>
      [...values].flatMap(([artefact, all]) =>
        all.map((value): Observation => ({ machine, profile: level, artefact, value })),
      ),
    );
  const { n, artefact, machine, profile, interaction, residual } = typeTwo(observations);
  if (residual.df === 0) notes.push('no print is repeated: there is no scatter to judge by');
  else if (residual.ss === 0) notes.push('prints do not scatter at all: no test');
  const terms = { ...(artefact && { artefact }), machine, profile, 'machine:profile': interaction };
  return { ...found, n, terms, residual, analysed, notes };
}

/** What is known of a contender's profile by the factor; of a material, its prints tell. */
function levelOf(index: StudyIndex, { profile_id }: Contender, factor: Factor): string | null {
  const profile = index.profiles.get(profile_id);
  return factor === 'material' ? null : (profile?.[factor] ?? null);
}

function cellsOf(
  index: StudyIndex,
  { valuesOf }: Response,
  factor: Factor,
  notes: string[],
): Cell[] {
  const unknown = new Set<string>();
  const values = index.study.tables.contenders.flatMap((row) => {
    const own = [...valuesOf(row.contender_id)];
    const level = levelOf(index, row, factor);
    return own.flatMap(([stratum, all]) => {
      const { artefact_id, type } = partsOfStratum(stratum);
      const at = factor === 'material' ? type : level;
      if (at === null) {
        unknown.add(row.profile_id);
        return [];
      }
      const block = factor === 'material' ? artefact_id : stratum;
      return [{ machine: row.machine_id, level: at, contender: row.contender_id, block, all }];
    });
  });
  for (const profile of unknown) notes.push(`${profile} is left out: its ${factor} is not known`);
  const groups = [...groupBy(values, ({ machine, level }) => JSON.stringify([machine, level]))];
  const cells = groups.map(([, own]): Cell => {
    const [first] = own;
    const blocks = groupBy(own, ({ block }) => block);
    return {
      machine: first?.machine ?? '',
      level: first?.level ?? '',
      contenders: new Set(own.map(({ contender }) => contender)),
      values: new Map([...blocks].map(([block, all]) => [block, all.flatMap((one) => one.all)])),
    };
  });
  for (const { machine, level, contenders } of cells) {
    if (contenders.size > 1) {
      notes.push(`${machine}: ${[...contenders].sort().join(', ')} are taken together as ${level}`);
    }
  }
  return cells.sort((a, b) => (a.machine < b.machine ? -1 : a.machine > b.machine ? 1 : 0));
}

/** The levels that two machines or more have, and the machines that have all of these. */
function completeOf(
  cells: readonly Cell[],
  factor: Factor,
  notes: string[],
): { analysed: string[]; levels: string[] } {
  const levels = [...groupBy(cells, ({ level }) => level)].flatMap(([level, own]) => {
    if (own.length >= 2) return [level];
    notes.push(`${factor} ${level} is left out: fewer than two machines have it`);
    return [];
  });
  const analysed = [...groupBy(cells, ({ machine }) => machine)].flatMap(([machine, own]) => {
    const missing = levels.filter((level) => !own.some((cell) => cell.level === level));
    if (missing.length === 0 && levels.length > 0) return [machine];
    if (levels.length > 0) {
      const of = inOrder(missing, factor).map((one) =>
        factor === 'kind' ? `a ${one} profile` : one,
      );
      notes.push(`${machine} is left out: no print of ${of.join(' or ')}`);
    }
    return [];
  });
  return { analysed, levels: inOrder(levels, factor) };
}

/** Stock before tuned; all others by name. */
const inOrder = (levels: readonly string[], factor: Factor): string[] =>
  factor === 'kind' ? ['stock', 'tuned'].filter((one) => levels.includes(one)) : [...levels].sort();

/** What each tuned contender gains against the stock one that its profile comes from. */
function gainsOf(
  index: StudyIndex,
  response: Response,
  alpha: number,
  notes: string[],
): Pick<Effects, 'verdicts'> & { gains: Record<string, Interval> } {
  const { contenders } = index.study.tables;
  const kindOf = (row: Contender) => index.profiles.get(row.profile_id)?.kind;
  const gains: Record<string, Interval> = {};
  const verdicts: Effects['verdicts'] = {};
  for (const tuned of contenders.filter((row) => kindOf(row) === 'tuned')) {
    const own = response.valuesOf(tuned.contender_id);
    if (own.size === 0) continue;
    const stock = stockOf(index, tuned);
    if (!stock) {
      const why = 'no stock contender of its machine is the one that its profile comes from';
      notes.push(`${tuned.contender_id} has no gain: ${why}`);
      gains[tuned.contender_id] = unknownInterval(why);
      verdicts[tuned.contender_id] = null;
      continue;
    }
    const gain = gainOf(response.valuesOf(stock.contender_id), own, response.isLargerBetter, alpha);
    gains[tuned.contender_id] = gain;
    verdicts[tuned.contender_id] = response.verdictOf(tuned.contender_id, stock.contender_id);
  }
  return { gains, verdicts };
}

/** The stock contender of the same machine with the profile's parent; else the only stock one there. */
function stockOf(index: StudyIndex, tuned: Contender): Contender | null {
  const parent = index.profiles.get(tuned.profile_id)?.parent_id ?? null;
  const own = index.study.tables.contenders.filter(
    (row) =>
      row.machine_id === tuned.machine_id && index.profiles.get(row.profile_id)?.kind === 'stock',
  );
  const ofParent = own.find((row) => row.profile_id === parent);
  return ofParent ?? (own.length === 1 ? (own[0] ?? null) : null);
}

function gainOf(
  stock: PrintValues,
  tuned: PrintValues,
  isLargerBetter: boolean,
  alpha: number,
): Interval {
  const [better, other] = isLargerBetter ? [tuned, stock] : [stock, tuned];
  const [row] = compareFamily(
    [{ contender: 'own', contenderValues: better, referenceValues: other }],
    { reference: 'other', alpha, delta: null, isLargerBetter: true },
  );
  return (
    row?.difference ??
    unknownInterval('stock and tuned have no artefact in the same material in common')
  );
}
