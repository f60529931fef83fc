import { fUpperP, mean, sum, sumOf } from '../../statistics/stats';
import { groupBy, type StudyIndex } from '../../model/study';

/** Whether an instrument in several hands is good enough for a dimension; standard deviations, mm. */
export interface GaugeStudy {
  /** Different parts that were read. */
  parts: number;
  /** People who read them. */
  operators: number;
  /** Readings of each part by each of them. */
  trials: number;
  /** p of no interaction of part and operator, by the F test. */
  interaction_p: number | null;
  /** Whether the interaction went into the error. */
  interaction_pooled: boolean;
  /** Equipment variation: repeatability. */
  ev_mm: number;
  /** Appraiser variation: reproducibility. */
  av_mm: number;
  /** Standard deviation of that interaction, mm. */
  interaction_mm: number;
  /** Repeatability and reproducibility together, mm. */
  grr_mm: number;
  /** Part variation. */
  pv_mm: number;
  /** Everything together, mm. */
  tv_mm: number;
  /** Repeatability as a share of everything, %. */
  ev_pct: number | null;
  /** Reproducibility as a share of everything, %. */
  av_pct: number | null;
  /** The interaction as a share of everything, %. */
  interaction_pct: number | null;
  /** Repeatability and reproducibility as a share of everything, %. */
  grr_pct: number | null;
  /** The parts as a share of everything, %. */
  pv_pct: number | null;
  /** Distinct categories. */
  ndc: number | null;
  /** What is not known, in words. */
  notes: string[];
}

/** Above this p the interaction is taken for noise. */
const POOLED_ABOVE = 0.25;

/** Gauge studies of every instrument and dimension that has a complete crossed block of readings. */
export function gaugeOfAll(index: StudyIndex): Record<string, Record<string, GaugeStudy>> {
  const readings = index.study.tables.readings.filter(
    (row) => row.superseded_at === null && row.instrument_id !== null && row.operator !== null,
  );
  const found: Record<string, Record<string, GaugeStudy>> = {};
  for (const [instrument, own] of groupBy(readings, (row) => row.instrument_id ?? '')) {
    // One person alone says nothing of how people differ.
    if (new Set(own.map((row) => row.operator)).size < 2) continue;
    const studies: Record<string, GaugeStudy> = {};
    const byDimension = groupBy(own, (row) => {
      const print = index.prints.get(index.specimens.get(row.specimen_id)?.print_id ?? '');
      return `${print?.artefact_id ?? ''}/${row.dimension_id}`;
    });
    for (const [key, rows] of byDimension) {
      const cells = new Map(
        [...groupBy(rows, (row) => row.specimen_id)].map(([specimen, ofPart]) => [
          specimen,
          new Map(
            [...groupBy(ofPart, (row) => row.operator ?? '')].map(([operator, values]) => [
              operator,
              values.map((row) => row.value_mm),
            ]),
          ),
        ]),
      );
      const block = completeBlock(cells);
      if (!block) continue;
      const dimension = key.slice(key.indexOf('/') + 1);
      studies[dimension in studies ? key : dimension] = gaugeStudy(block);
    }
    if (Object.keys(studies).length > 0) found[instrument] = studies;
  }
  return found;
}

type Cells = ReadonlyMap<string, ReadonlyMap<string, readonly number[]>>;

/** Readings by part, operator and trial: every part by every operator, equally often. */
export type Block = readonly (readonly (readonly number[])[])[];

/** Of more operators only all together are looked at. */
const MOST_OPERATORS = 8;

/** The largest block in which every part was read by every operator the same number of times. */
function completeBlock(cells: Cells): Block | null {
  const partsOf = new Map<string, number>();
  for (const byOperator of cells.values()) {
    for (const [operator, values] of byOperator) {
      if (values.length >= 2) partsOf.set(operator, (partsOf.get(operator) ?? 0) + 1);
    }
  }
  const operators = [...partsOf].filter(([, parts]) => parts >= 2).map(([operator]) => operator);
  const size = (block: Block) =>
    block.length * (block[0]?.length ?? 0) * (block[0]?.[0]?.length ?? 0);
  return teamsOf(operators)
    .flatMap((team) => blockOf(cells, team) ?? [])
    .reduce<Block | null>((best, one) => (best && size(best) >= size(one) ? best : one), null);
}

/** All operators first, then every smaller group of at least two. */
function teamsOf(operators: readonly string[]): string[][] {
  if (operators.length < 2) return [];
  if (operators.length > MOST_OPERATORS) return [[...operators]];
  return Array.from({ length: 2 ** operators.length }, (_, mask) =>
    operators.filter((_, at) => (mask >> at) & 1),
  )
    .filter((team) => team.length >= 2)
    .sort((a, b) => b.length - a.length);
}

/** The parts that a group of operators has read equally often; most parts first. */
function blockOf(cells: Cells, operators: readonly string[]): Block[] | null {
  const complete = [...cells.values()].flatMap((byOperator) => {
    const values = operators.map((operator) => byOperator.get(operator) ?? []);
    const trials = values[0]?.length ?? 0;
    return trials >= 2 && values.every((one) => one.length === trials) ? [{ trials, values }] : [];
  });
  const groups = [...groupBy(complete, (part) => part.trials).values()];
  groups.sort((a, b) => b.length - a.length || (b[0]?.trials ?? 0) - (a[0]?.trials ?? 0));
  const [largest] = groups;
  return largest && largest.length >= 2 ? [largest.map((part) => part.values)] : null;
}

/**
 * Crossed analysis of variance of a gauge study; the interaction goes into the error where its p is
 * over 0.25, and a variance below 0 counts as 0.
 *
 * @see Automotive Industry Action Group, Measurement Systems Analysis, 4th edition, 2010, III.B
 */
function gaugeStudy(block: Block): GaugeStudy {
  const p = block.length;
  const o = block[0]?.length ?? 0;
  const r = block[0]?.[0]?.length ?? 0;
  const all = mean(block.flat(2));
  const partMeans = block.map((part) => mean(part.flat()));
  const operatorMeans = Array.from({ length: o }, (_, at) =>
    mean(block.flatMap((part) => part[at] ?? [])),
  );
  const square = (values: readonly number[]) => sumOf(values, (value) => (value - all) ** 2);
  const ssParts = o * r * square(partMeans);
  const ssOperators = p * r * square(operatorMeans);
  const ssCells = r * square(block.flatMap((part) => part.map((trials) => mean(trials))));
  const ssInteraction = Math.max(0, ssCells - ssParts - ssOperators);
  const ssError = sum(
    block.flatMap((part) =>
      part.map((trials) => {
        const centre = mean(trials);
        return sumOf(trials, (value) => (value - centre) ** 2);
      }),
    ),
  );
  const dfInteraction = (p - 1) * (o - 1);
  const dfError = p * o * (r - 1);
  const msInteraction = ssInteraction / dfInteraction;
  const msError = ssError / dfError;
  const scale = Math.max(...block.flat(2).map(Math.abs)) * 1e-12;
  const isExact = msError <= scale ** 2;
  const interaction_p = isExact
    ? msInteraction <= scale ** 2
      ? 1
      : 0
    : fUpperP(msInteraction / msError, dfInteraction, dfError);
  const pooled = interaction_p > POOLED_ABOVE;
  const error = pooled ? (ssInteraction + ssError) / (dfInteraction + dfError) : msError;
  const against = pooled ? error : msInteraction;
  const root = (variance: number) => Math.sqrt(Math.max(0, variance));
  const ev_mm = root(error);
  const interaction_mm = pooled ? 0 : root((msInteraction - msError) / r);
  const av_mm = root((ssOperators / (o - 1) - against) / (p * r));
  const pv_mm = root((ssParts / (p - 1) - against) / (o * r));
  const grr_mm = Math.hypot(ev_mm, av_mm, interaction_mm);
  const tv_mm = Math.hypot(grr_mm, pv_mm);
  const share = (part: number) => (tv_mm > 0 ? (100 * part) / tv_mm : null);
  return {
    parts: p,
    operators: o,
    trials: r,
    interaction_p,
    interaction_pooled: pooled,
    ev_mm,
    av_mm,
    interaction_mm,
    grr_mm,
    pv_mm,
    tv_mm,
    ev_pct: share(ev_mm),
    av_pct: share(av_mm),
    interaction_pct: share(interaction_mm),
    grr_pct: share(grr_mm),
    pv_pct: share(pv_mm),
    ndc: grr_mm > 0 ? Math.floor((1.41 * pv_mm) / grr_mm) : null,
    notes: grr_mm > 0 ? [] : ['the readings do not vary: no categories to be told apart'],
  };
}
