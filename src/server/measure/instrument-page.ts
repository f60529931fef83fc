import type { GaugeStudy } from '../../core/measures/gauge';
import type { ResultParts } from '../../core/answers/results';
import { groupBy, instant } from '../../core/model/study';
import {
  findRow,
  listRows,
  listRowsBy,
  listSpecimenFacts,
  rowOrNull,
  specimenMeasurements,
  type SpecimenFacts,
  type Stored,
} from '../../data';
import type { App } from '../app';
import { resultsOf } from '../results/results';

/** Everything that is known of an instrument in a study. */
export interface InstrumentDossier {
  instrument: Stored<'instruments'>;
  /** Looks at its zero, the oldest first. */
  zeros: Stored<'zero_checks'>[];
  use: NonNullable<ResultParts['instruments']>[string] | null;
  plans: Stored<'gauge_plans'>[];
  /** What its gauge studies found, by dimension. */
  gauge: Record<string, GaugeStudy>;
  /** What a gauge study can be made of: dimensions, and a choice of specimens. */
  dimensions: Stored<'dimensions'>[];
  specimens: { id: string; code: string; artefact: string }[];
  /** The parts of the results that are being made anew. */
  stale: readonly string[];
}

/** Reads an instrument's dossier; null where there is none. */
export async function instrumentDossier(
  app: App,
  studyId: string,
  instrumentId: string,
): Promise<InstrumentDossier | null> {
  const { db } = app;
  const [instrument, zeros, plans, dimensions, specimens] = await Promise.all([
    rowOrNull(db, studyId, 'instruments', { instrument_id: instrumentId }),
    listRowsBy(db, studyId, 'zero_checks', 'instrument_id', instrumentId),
    listRowsBy(db, studyId, 'gauge_plans', 'instrument_id', instrumentId),
    listRows(db, studyId, 'dimensions'),
    listSpecimenFacts(db, studyId),
  ]);
  if (!instrument) return null;
  const { instruments, gauge, stale } = await resultsOf(app, { studyId, reference: null }, [
    'instruments',
    'gauge',
  ]);
  return {
    instrument,
    zeros: zeros.sort((a, b) => instant(a.at) - instant(b.at)),
    use: instruments?.[instrumentId] ?? null,
    plans,
    gauge: gauge?.[instrumentId] ?? {},
    dimensions,
    specimens: chosenSpecimens(specimens, dimensions),
    stale,
  };
}

/** So many specimens of an artefact are enough to choose parts of a gauge study from. */
const CHOICE = 100;

/** Specimens of what is measured, spread over all there are of each artefact. */
function chosenSpecimens(
  specimens: readonly SpecimenFacts[],
  dimensions: readonly Stored<'dimensions'>[],
): InstrumentDossier['specimens'] {
  const isMeasured = new Set(dimensions.map((row) => row.artefact_id));
  return [...groupBy(specimens, (one) => one.artefact_id)].flatMap(([artefact, own]) => {
    if (!isMeasured.has(artefact)) return [];
    const step = Math.max(1, own.length / CHOICE);
    return Array.from(
      { length: Math.min(CHOICE, own.length) },
      (_, at) => own[Math.floor(at * step)],
    )
      .filter((one) => one !== undefined)
      .map(({ specimen_id, code }) => ({ id: specimen_id, code: code ?? specimen_id, artefact }));
  });
}

/** What a gauge study's entry needs. */
export interface GaugeBenchData {
  plan: Stored<'gauge_plans'>;
  instrument: Stored<'instruments'>;
  dimension: Stored<'dimensions'>;
  parts: { specimen_id: string; code: string }[];
  operators: string[];
  /** How often each operator has read each part, by `operator specimen`. */
  counts: Record<string, number>;
}

const words = (text: string): string[] => text.split(/\s+/).filter(Boolean);

/** Reads a planned gauge study with what is read of it; null where there is none. */
export async function gaugeBenchData(
  app: App,
  studyId: string,
  planId: string,
): Promise<GaugeBenchData | null> {
  const { db } = app;
  const plan = await rowOrNull(db, studyId, 'gauge_plans', { gauge_plan_id: planId });
  if (!plan) return null;
  const { instrument_id, artefact_id, dimension_id } = plan;
  const [instrument, dimension] = await Promise.all([
    rowOrNull(db, studyId, 'instruments', { instrument_id }),
    rowOrNull(db, studyId, 'dimensions', { artefact_id, dimension_id }),
  ]);
  if (!instrument || !dimension) return null;
  const counts: Record<string, number> = {};
  const parts = await Promise.all(
    words(plan.specimens).map(async (specimen_id) => {
      const [{ readings }, { code }] = await Promise.all([
        specimenMeasurements(db, studyId, specimen_id),
        findRow(db, studyId, 'specimens', { specimen_id }),
      ]);
      for (const row of readings) {
        const isOurs =
          row.dimension_id === plan.dimension_id && row.instrument_id === plan.instrument_id;
        if (!isOurs) continue;
        const key = `${row.operator} ${specimen_id}`;
        counts[key] = (counts[key] ?? 0) + 1;
      }
      return { specimen_id, code: code ?? specimen_id };
    }),
  );
  return {
    plan,
    instrument,
    dimension,
    parts,
    operators: words(plan.operators),
    counts,
  };
}
