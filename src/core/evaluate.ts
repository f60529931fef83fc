import { compareFamily, type PairRow } from './compare';
import { fairnessOfAll, type Fairness } from './fairness';
import {
  accuracyOfAll,
  accuracyPair,
  byPlace,
  driversOf,
  instrumentsOfAll,
  measure,
  type Accuracy,
  type Driver,
  type InstrumentUse,
  type PlaceChange,
  plateOfAll,
  printValues,
  specimenErrors,
  squarenessOfAll,
  type Measurements,
  type PlateFit,
  type Squareness,
} from './metrology';
import {
  modesOfAll,
  reliabilityOfAll,
  survivalOfAll,
  type ModeTally,
  type ReliabilitySets,
  type SurvivalRow,
} from './reliability';
import { logPrintTimes, speedOfAll, type Speed } from './speed';
import { indexStudy, type Study, type StudyIndex, type TableName } from './study';
import { costOfAll, noiseOfAll, wasteOfAll, type Cost, type Waste } from './cost';
import { gaugeOfAll, type GaugeStudy } from './gauge';
import { pooledScatter, type Scatter } from './plan';
import { functionsOfAll, laddersOfAll, type FunctionTally, type LadderLimit } from './ladders';

export interface EvaluateOptions {
  /** Intervals are two-sided 1 − alpha. */
  alpha?: number;
  /** Seed of everything that is drawn. */
  seed?: number;
  /** The contender that the others are compared with, in place of the study's own. */
  reference?: string;
}

export const DEFAULT_ALPHA = 0.05;
export const DEFAULT_SEED = 1;

/** What the study's evidence amounts to; a section whose tables are absent is null. */
export interface Results {
  study: {
    name: string;
    title: string;
    intent: string;
    reference: string | null;
    alpha: number;
    seed: number;
  };
  accuracy: Record<string, Accuracy> | null;
  pairs: {
    accuracy_mm: PairRow[] | null;
    surface: PairRow[] | null;
    ln_print_s: PairRow[] | null;
  };
  plate: Record<string, Record<string, PlateFit>> | null;
  squareness: Record<string, Record<string, Squareness>> | null;
  ladders: Record<string, Record<string, LadderLimit>> | null;
  functions: Record<string, Record<string, FunctionTally>> | null;
  speed: Record<string, Speed>;
  reliability: Record<string, ReliabilitySets>;
  modes: Record<string, ModeTally[]> | null;
  survival: Record<string, SurvivalRow[]> | null;
  waste: Record<string, Waste>;
  cost: Record<string, Record<string, Cost>>;
  noise: Record<string, Record<string, { at_1m_db: number }>> | null;
  claims: { claim_id: string; machine_id: string; finding: string | null }[] | null;
  gauge: Record<string, Record<string, GaugeStudy>> | null;
  /** Against the reference: which dimensions drive the difference, largest share first. */
  drivers: Record<string, Driver[]> | null;
  /** Against the reference, place by place of the plate, where that is what the study asks. */
  by_place: Record<string, Record<string, PlaceChange[]>> | null;
  instruments: Record<string, InstrumentUse> | null;
  fairness: Fairness[];
  /** How much prints of one contender and artefact scatter, in the units of `pairs`. */
  scatter: { accuracy_mm: Scatter | null; ln_print_s: Scatter | null };
}

/**
 * Turns a study into its results, section by section.
 *
 * @throws RangeError where the reference is no contender of the study
 */
export function evaluate(study: Study, options: EvaluateOptions = {}): Results {
  const alpha = options.alpha ?? DEFAULT_ALPHA;
  const reference = options.reference ?? study.meta.reference;
  const seed = options.seed ?? DEFAULT_SEED;
  const index = indexStudy(study);
  if (reference !== null && !index.contenders.has(reference)) {
    throw new RangeError(`the reference ${reference} is no contender of this study`);
  }
  const has = (table: TableName) => study.present.has(table);
  const measurements = has('readings') ? measure(index) : null;
  const pairs = {
    accuracy_mm: measurements && accuracyPairs(index, measurements, reference, alpha),
    surface: null,
    ln_print_s: timePairs(index, reference, alpha),
  };
  return {
    study: {
      name: study.meta.name,
      title: study.meta.title,
      intent: study.meta.intent,
      reference,
      alpha,
      seed,
    },
    accuracy: measurements && accuracyOfAll(index, measurements, alpha),
    pairs,
    plate: measurements && plateOfAll(index, measurements),
    squareness: measurements && has('squares') ? squarenessOfAll(index, measurements, alpha) : null,
    ladders: has('ladders') && has('ladder_results') ? laddersOfAll(index) : null,
    functions: has('function_results') ? functionsOfAll(index) : null,
    speed: speedOfAll(
      index,
      reference,
      (contender) =>
        pairs.ln_print_s.find((row) => row.contender === contender)?.difference ?? null,
      alpha,
    ),
    reliability: reliabilityOfAll(index, alpha),
    modes: has('incidents') ? modesOfAll(index) : null,
    survival: has('incidents') ? survivalOfAll(index, alpha) : null,
    waste: wasteOfAll(index),
    cost: costOfAll(index, alpha, seed),
    noise: has('noise') ? noiseOfAll(index) : null,
    claims: has('claims')
      ? study.tables.claims.map(({ claim_id, machine_id, finding }) => ({
          claim_id,
          machine_id,
          finding,
        }))
      : null,
    gauge: has('readings') ? gaugeOfAll(index) : null,
    drivers: measurements && against(index, reference, (id, to) => driversOf(measurements, id, to)),
    by_place:
      measurements && study.meta.intent === 'before-after'
        ? against(index, reference, (id, to) => byPlace(measurements, id, to))
        : null,
    instruments: measurements && instrumentsOfAll(index, measurements),
    fairness: fairnessOfAll(index, reference),
    scatter: {
      accuracy_mm:
        measurements &&
        pooledScatter(
          contenderIds(index).map((contender) =>
            printValues(
              specimenErrors(measurements.cellsOfContender.get(contender) ?? []),
              'mae_mm',
            ),
          ),
        ),
      ln_print_s: pooledScatter(
        contenderIds(index).map((contender) => logPrintTimes(index, contender)),
      ),
    },
  };
}

const contenderIds = (index: StudyIndex): string[] =>
  index.study.tables.contenders.map((row) => row.contender_id);

const othersThan = (index: StudyIndex, reference: string): string[] =>
  contenderIds(index).filter((contender) => contender !== reference);

/** Something of every contender but the reference, compared with it. */
const against = <Found>(
  index: StudyIndex,
  reference: string | null,
  find: (contender: string, reference: string) => Found,
): Record<string, Found> =>
  reference === null
    ? {}
    : Object.fromEntries(othersThan(index, reference).map((id) => [id, find(id, reference)]));

function accuracyPairs(
  index: StudyIndex,
  measurements: Measurements,
  reference: string | null,
  alpha: number,
): PairRow[] {
  if (reference === null) return [];
  return compareFamily(
    othersThan(index, reference).map((contender) => ({
      contender,
      ...accuracyPair(measurements, contender, reference),
    })),
    {
      reference,
      alpha,
      delta: index.study.meta.smallest_difference.accuracy_mm ?? null,
      isLargerBetter: false,
    },
  );
}

function timePairs(index: StudyIndex, reference: string | null, alpha: number): PairRow[] {
  if (reference === null) return [];
  const share = index.study.meta.smallest_difference.time_pct ?? null;
  const referenceValues = logPrintTimes(index, reference);
  return compareFamily(
    othersThan(index, reference).map((contender) => ({
      contender,
      contenderValues: logPrintTimes(index, contender),
      referenceValues,
    })),
    {
      reference,
      alpha,
      delta: share === null ? null : Math.log(1 + share / 100),
      isLargerBetter: false,
    },
  );
}
