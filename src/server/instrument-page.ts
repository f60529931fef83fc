import type { Sections } from '../core/sections';
import type { GaugeStudy } from '../core/gauge';
import { listRows, type VersionedRow } from '../data';
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
  /** What a gauge study can be made of. */
  dimensions: VersionedRow[];
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
  const [[instrument], zeros, plans, dimensions] = await Promise.all([
    own('instruments'),
    own('zero_checks'),
    own('gauge_plans'),
    listRows(db, studyId, 'dimensions'),
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
    isStale,
  };
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
  const [plans, instruments, dimensions, specimens, readings] = await Promise.all([
    listRows(db, studyId, 'gauge_plans'),
    listRows(db, studyId, 'instruments'),
    listRows(db, studyId, 'dimensions'),
    listRows(db, studyId, 'specimens'),
    listRows(db, studyId, 'readings'),
  ]);
  const plan = plans.find((row) => row.gauge_plan_id === planId);
  const instrument = instruments.find((row) => row.instrument_id === plan?.instrument_id);
  const dimension = dimensions.find(
    (row) => row.artefact_id === plan?.artefact_id && row.dimension_id === plan?.dimension_id,
  );
  if (!plan || !instrument || !dimension) return null;
  const ids = words(plan.specimens);
  const counts: Record<string, number> = {};
  for (const row of readings) {
    const isOurs =
      row.superseded_at === null &&
      row.dimension_id === plan.dimension_id &&
      row.instrument_id === plan.instrument_id &&
      ids.includes(String(row.specimen_id));
    if (!isOurs) continue;
    const key = `${String(row.operator)} ${String(row.specimen_id)}`;
    counts[key] = (counts[key] ?? 0) + 1;
  }
  return {
    plan,
    instrument,
    dimension,
    parts: ids.map((specimen_id) => ({
      specimen_id,
      code: String(specimens.find((row) => row.specimen_id === specimen_id)?.code ?? specimen_id),
    })),
    operators: words(plan.operators),
    counts,
  };
}
