import { listRows, listSpecimenFacts, type SpecimenFacts, type VersionedRow } from '../data';
import { app } from './app';

/** A ladder of an artefact with its steps, from easy to hard. */
export interface BenchLadder {
  ladder_id: string;
  name: string;
  unit: string;
  steps: { step: number; value: number }[];
}

/** What is tried at the bench: ladders and function checks, by artefact, and what is known so far. */
export interface LadderBenchData {
  specimens: SpecimenFacts[];
  ladders: Record<string, BenchLadder[]>;
  /** Function checks of an artefact: those that it asks for, and others that were tried on it. */
  checks: Record<string, string[]>;
  results: VersionedRow[];
  functions: VersionedRow[];
}

/** Reads what is needed to try ladders. Specimens of artefacts without one are left out. */
export async function ladderBenchData(studyId: string): Promise<LadderBenchData> {
  const { db } = app();
  const [specimens, ladders, steps, results, functions, asked] = await Promise.all([
    listSpecimenFacts(db, studyId),
    listRows(db, studyId, 'ladders'),
    listRows(db, studyId, 'ladder_steps'),
    listRows(db, studyId, 'ladder_results'),
    listRows(db, studyId, 'function_results'),
    listRows(db, studyId, 'function_checks'),
  ]);
  const byArtefact: Record<string, BenchLadder[]> = {};
  for (const row of ladders) {
    (byArtefact[String(row.artefact_id)] ??= []).push({
      ladder_id: String(row.ladder_id),
      name: String(row.name),
      unit: String(row.unit),
      steps: steps
        .filter((one) => one.artefact_id === row.artefact_id && one.ladder_id === row.ladder_id)
        .map((one) => ({ step: Number(one.step), value: Number(one.value) }))
        .sort((a, b) => a.step - b.step),
    });
  }
  const artefactOf = new Map(specimens.map((one) => [one.specimen_id, one.artefact_id]));
  const checks: Record<string, string[]> = {};
  for (const row of asked) (checks[String(row.artefact_id)] ??= []).push(String(row.check));
  for (const row of functions) {
    const own = (checks[artefactOf.get(String(row.specimen_id)) ?? ''] ??= []);
    if (!own.includes(String(row.check))) own.push(String(row.check));
  }
  return {
    specimens: specimens.filter((one) => byArtefact[one.artefact_id] ?? checks[one.artefact_id]),
    ladders: byArtefact,
    checks,
    results,
    functions,
  };
}
