import type { Sections } from '../core/sections';
import type { GaugeStudy } from '../core/gauge';
import { groupBy } from '../core/study';
import {
  findRow,
  listRows,
  listSpecimenFacts,
  specimenMeasurements,
  type SpecimenFacts,
  type VersionedRow,
} from '../data';
import { app } from './app';
import { resultsOf } from './results';

/** Everything that is known of an instrument in a study. */
export interface InstrumentDossier {
  instrument: VersionedRow;
  /** Looks at its zero, the oldest first. */
  zeros: VersionedRow[];
  use: NonNullable<Sections['instruments']>[string] | null;
  plans: VersionedRow[];
  /** What its gauge studies found, by dimension. */
  gauge: Record<string, GaugeStudy>;
  /** What a gauge study can be made of: dimensions, and a choice of specimens. */
  dimensions: VersionedRow[];
  specimens: { id: string; code: string; artefact: string }[];
  isStale: boolean;
}

/** Reads an instrument's dossier; null where there is none. */
export async function instrumentDossier(
  studyId: string,
  instrumentId: string,
): Promise<InstrumentDossier | null> {
  const { db } = app();
  const own = async (table: 'instruments' | 'zero_checks' | 'gauge_plans') =>
    (await listRows(db, studyId, table)).filter((row) => row.instrument_id === instrumentId);
  const [[instrument], zeros, plans, dimensions, specimens] = await Promise.all([
    own('instruments'),
    own('zero_checks'),
    own('gauge_plans'),
    listRows(db, studyId, 'dimensions'),
    listSpecimenFacts(db, studyId),
  ]);
  if (!instrument) return null;
  const { instruments, gauge, isStale } = await resultsOf({ studyId, reference: null }, [
    'instruments',
    'gauge',
  ]);
  return {
    instrument,
    zeros: zeros.sort((a, b) => Date.parse(String(a.at)) - Date.parse(String(b.at))),
    use: instruments?.[instrumentId] ?? null,
    plans,
    gauge: gauge?.[instrumentId] ?? {},
    dimensions,
    specimens: chosenSpecimens(specimens, dimensions),
    isStale,
  };
}

/** So many specimens of an artefact are enough to choose parts of a gauge study from. */
const CHOICE = 100;

/** Specimens of what is measured, spread over all there are of each artefact. */
function chosenSpecimens(
  specimens: readonly SpecimenFacts[],
  dimensions: readonly VersionedRow[],
): InstrumentDossier['specimens'] {
  const isMeasured = new Set(dimensions.map((row) => String(row.artefact_id)));
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
  plan: VersionedRow;
  instrument: VersionedRow;
  dimension: VersionedRow;
  parts: { specimen_id: string; code: string }[];
  operators: string[];
  /** How often each operator has read each part, by `operator specimen`. */
  counts: Record<string, number>;
}

const words = (text: unknown): string[] => String(text).split(/\s+/).filter(Boolean);

/** Reads a planned gauge study with what is read of it; null where there is none. */
export async function gaugeBenchData(
  studyId: string,
  planId: string,
): Promise<GaugeBenchData | null> {
  const { db } = app();
  const [plans, instruments, dimensions] = await Promise.all([
    listRows(db, studyId, 'gauge_plans'),
    listRows(db, studyId, 'instruments'),
    listRows(db, studyId, 'dimensions'),
  ]);
  const plan = plans.find((row) => row.gauge_plan_id === planId);
  const instrument = instruments.find((row) => row.instrument_id === plan?.instrument_id);
  const dimension = dimensions.find(
    (row) => row.artefact_id === plan?.artefact_id && row.dimension_id === plan?.dimension_id,
  );
  if (!plan || !instrument || !dimension) return null;
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
        const key = `${String(row.operator)} ${specimen_id}`;
        counts[key] = (counts[key] ?? 0) + 1;
      }
      return { specimen_id, code: String(code ?? specimen_id) };
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
