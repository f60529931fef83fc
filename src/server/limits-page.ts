import { listRows } from '../data';
import { app } from './app';

/** The names of a study's ladders and artefacts. */
export async function limitNames(studyId: string): Promise<{
  ladders: { key: string; name: string; artefact: string }[];
  artefacts: Record<string, string>;
}> {
  const [ladders, rows] = await Promise.all([
    listRows(app().db, studyId, 'ladders'),
    listRows(app().db, studyId, 'artefacts'),
  ]);
  const artefacts = Object.fromEntries(
    rows.map((row) => [String(row.artefact_id), String(row.name)]),
  );
  return {
    ladders: ladders.map((row) => ({
      key: `${String(row.artefact_id)}/${String(row.ladder_id)}`,
      name: String(row.name),
      artefact: artefacts[String(row.artefact_id)] ?? '',
    })),
    artefacts,
  };
}
