import { DEFAULT_ALPHA, DEFAULT_SEED } from '../core/evaluate';
import type { SectionName, Sections } from '../core/sections';
import { findResults, findRow, findStudy, keepResults, loadStudy } from '../data';
import { app } from './app';

/** Which results are asked for. */
export interface ResultsRequest {
  studyId: string;
  /** The contender that the others are compared with. */
  reference: string | null;
}

export type Requested<Name extends SectionName> = Pick<Sections, Name> & {
  /** Whether these are of an older revision, while newer ones are being made. */
  isStale: boolean;
  revision: string;
};

/** How long a page waits for fresh results before it shows older ones. */
const PATIENCE_MS = 600;

const running = new Map<string, Promise<void>>();

const parametersOf = (reference: string | null): string =>
  JSON.stringify({ alpha: DEFAULT_ALPHA, seed: DEFAULT_SEED, reference, edition: app().edition });

/**
 * The results of a study, section by section: those that are kept where they are of the study's
 * present revision, else made anew off the main thread. Where that takes long and older ones are
 * kept, the older ones are given and marked.
 */
export async function resultsOf<Name extends SectionName>(
  request: ResultsRequest,
  names: readonly Name[],
): Promise<Requested<Name>> {
  const { revision } = await findStudy(app().db, request.studyId);
  if (request.reference !== null) {
    await findRow(app().db, request.studyId, 'contenders', { contender_id: request.reference });
  }
  const kept = await readKept(request, names);
  if (kept?.revision === revision) return { ...kept.sections, revision, isStale: false };
  const fresh = refresh(request);
  if (kept) {
    const timer = new Promise<'late'>((resolve) => {
      setTimeout(resolve, PATIENCE_MS, 'late').unref();
    });
    if ((await Promise.race([fresh, timer])) === 'late') {
      fresh.catch((error: unknown) => app().log.error(error, 'evaluation failed'));
      return { ...kept.sections, revision: kept.revision, isStale: true };
    }
  } else await fresh;
  const made = await readKept(request, names);
  if (!made) throw new Error('the results that were just made are not there');
  return { ...made.sections, revision: made.revision, isStale: false };
}

async function readKept<Name extends SectionName>(
  { studyId, reference }: ResultsRequest,
  names: readonly Name[],
): Promise<{ sections: Pick<Sections, Name>; revision: string } | null> {
  const found = await findResults(app().db, studyId, parametersOf(reference), names);
  const revisions = new Set(found.map((result) => result.revision));
  const [revision] = revisions;
  if (found.length !== names.length || revisions.size !== 1 || revision === undefined) return null;
  const entries = found.map((result) => [result.section, result.value]);
  return { sections: Object.fromEntries(entries) as Pick<Sections, Name>, revision };
}

/** Makes the results of a study's present revision, once however many ask for them. */
function refresh(request: ResultsRequest): Promise<void> {
  const key = `${request.studyId} ${parametersOf(request.reference)}`;
  const already = running.get(key);
  if (already) return already;
  const work = make(request).finally(() => running.delete(key));
  running.set(key, work);
  return work;
}

async function make({ studyId, reference }: ResultsRequest): Promise<void> {
  const { db, threads } = app();
  const { study, revision } = await loadStudy(db, studyId);
  const options = { alpha: DEFAULT_ALPHA, seed: DEFAULT_SEED, ...(reference && { reference }) };
  const sections = (await threads.run({ study, options })) as Record<SectionName, string>;
  await keepResults(db, studyId, parametersOf(reference), revision, sections);
}
