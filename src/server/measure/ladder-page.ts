import { groupBy } from '../../core/model/study';
import { listSpecimenFacts, listTables, type SpecimenFacts, type Stored } from '../../data';
import type { App } from '../app';
import { sidesOfArtefacts, type DrawnSides } from './drawings';

/** A ladder of an artefact with its steps, from easy to hard. */
export interface BenchLadder {
  ladder_id: string;
  name: string;
  unit: string;
  quantity: string;
  steps: BenchStep[];
}

/** A step of a ladder, and where it lies on the part, mm. */
export interface BenchStep {
  step: number;
  value: number;
  place: readonly [number, number, number] | null;
}

/** What is tried at the bench: ladders and function checks, by artefact, and what is known so far. */
export interface LadderBenchData {
  specimens: SpecimenFacts[];
  ladders: Record<string, BenchLadder[]>;
  /** What the artefacts with ladders look like. */
  drawings: Record<string, DrawnSides>;
  /** Function checks of an artefact: those that it asks for, and others that were tried on it. */
  checks: Record<string, string[]>;
  results: Stored<'ladder_results'>[];
  functions: Stored<'function_results'>[];
}

/** Reads what is needed to try ladders. Specimens of artefacts without one are left out. */
export async function ladderBenchData(app: App, studyId: string): Promise<LadderBenchData> {
  const { db } = app;
  const [specimens, tables] = await Promise.all([
    listSpecimenFacts(db, studyId),
    listTables(db, studyId, [
      'ladders',
      'ladder_steps',
      'ladder_places',
      'ladder_results',
      'function_results',
      'function_checks',
    ]),
  ]);
  const { ladder_results: results, function_results: functions } = tables;
  const steps = groupBy(tables.ladder_steps, (row) => `${row.artefact_id}/${row.ladder_id}`);
  const places = new Map(
    tables.ladder_places.map(({ artefact_id, ladder_id, step, x_mm, y_mm, z_mm }) => [
      `${artefact_id}/${ladder_id}/${step}`,
      [x_mm, y_mm, z_mm] as const,
    ]),
  );
  const byArtefact: Record<string, BenchLadder[]> = {};
  for (const { artefact_id, ladder_id, name, unit, quantity } of tables.ladders) {
    (byArtefact[artefact_id] ??= []).push({
      ladder_id,
      name,
      unit,
      quantity,
      steps: (steps.get(`${artefact_id}/${ladder_id}`) ?? [])
        .map(({ step, value }) => ({
          step,
          value,
          place: places.get(`${artefact_id}/${ladder_id}/${step}`) ?? null,
        }))
        .sort((a, b) => a.step - b.step),
    });
  }
  const artefactOf = new Map(specimens.map((one) => [one.specimen_id, one.artefact_id]));
  const checks: Record<string, string[]> = {};
  for (const { artefact_id, check } of tables.function_checks) {
    (checks[artefact_id] ??= []).push(check);
  }
  for (const { specimen_id, check } of functions) {
    const own = (checks[artefactOf.get(specimen_id) ?? ''] ??= []);
    if (!own.includes(check)) own.push(check);
  }
  return {
    specimens: specimens.filter((one) => byArtefact[one.artefact_id] ?? checks[one.artefact_id]),
    ladders: byArtefact,
    drawings: await sidesOfArtefacts(app, studyId, new Set(Object.keys(byArtefact))),
    checks,
    results,
    functions,
  };
}
