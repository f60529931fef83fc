import { setTimeout } from 'node:timers/promises';
import {
  DEFAULT_ALPHA,
  DEFAULT_SEED,
  hangsOnReference,
  needsOf,
  partNames,
  sectionOfPart,
  usesOf,
  type EvaluateOptions,
  type EvaluateTask,
  type PartName,
  type ResultParts,
  type Results,
  type SectionName,
  type StudyPart,
  SECTION_NAMES,
} from '../../core/answers/results';
import { isOneOf, isTableName, type SentStudy, type TableName } from '../../core/model/study';
import {
  findResults,
  findRow,
  findStudy,
  loadSentStudy,
  slicedFacts,
  storeResults,
  type KeptResult,
  type StudyRecord,
  type WantedResult,
} from '../../data';
import { afterwards, type App } from '../app';

/** Which results are asked for. */
export interface ResultsRequest {
  studyId: string;
  /** The contender that the others are compared with; null for the study's own reference. */
  reference: string | null;
}

export type Requested<Name extends PartName> = Pick<ResultParts, Name> & {
  /** Which of these are of an older revision, while newer ones are being made. */
  stale: readonly Name[];
  revision: string;
};

/** How long a page waits for fresh results before it shows older ones. */
const PATIENCE_MS = 600;

/** The revision from which on a section's result is as the study stands. */
export function freshFrom(record: Pick<StudyRecord, 'touched'>, section: SectionName): number {
  const turns = [...needsOf(section)].map((part) => record.touched[part] ?? 0);
  return Math.max(1, ...turns);
}

const parametersOf = (app: App, section: SectionName, reference: string | null): string =>
  JSON.stringify({
    edition: app.edition,
    alpha: DEFAULT_ALPHA,
    seed: DEFAULT_SEED,
    ...(hangsOnReference(section) && { reference }),
  });

/**
 * The results of a study, part by part: those that are kept where nothing that they hang on has
 * changed since, else made anew off the main thread. Where that takes long and older ones are kept,
 * the older ones are given and marked.
 */
export async function resultsOf<Name extends PartName>(
  app: App,
  { studyId, reference: asked }: ResultsRequest,
  names: readonly Name[],
): Promise<Requested<Name>> {
  const { db, log } = app;
  const record = await findStudy(db, studyId);
  if (asked !== null) await findRow(db, studyId, 'contenders', { contender_id: asked });
  const reference = asked ?? record.reference;
  const wanted = names.map((part) => ({
    part,
    parameters: parametersOf(app, sectionOfPart(part), reference),
    least: freshFrom(record, sectionOfPart(part)),
  }));
  // Older ones come without their values: these are read only where nothing newer comes in time.
  const values = new Map((await keptResults(app, studyId, wanted)).map((one) => [one.part, one]));
  const isAsked = (part: string) => isOneOf(names, part);
  const isFresh = (part: PartName) =>
    (values.get(part)?.revision ?? 0) >= freshFrom(record, sectionOfPart(part));
  const staleParts = names.filter((part) => !isFresh(part));
  if (staleParts.length > 0) {
    const stale = [...new Set(staleParts.map(sectionOfPart))];
    const fresh = make(app, studyId, reference, stale);
    const takeIn = (made: readonly MadeResult[]) => {
      for (const one of made) if (isAsked(one.part)) values.set(one.part, opened(one));
    };
    if (staleParts.every((part) => values.has(part))) {
      const made = await Promise.race([fresh, setTimeout(PATIENCE_MS, null, { ref: false })]);
      if (made) takeIn(made);
      else {
        fresh.catch((error: unknown) => log.error(error, 'evaluation failed'));
        const older = wanted.filter(({ part }) => staleParts.includes(part));
        const kept = await keptResults(
          app,
          studyId,
          older.map((one) => ({ ...one, least: null })),
        );
        for (const one of kept) values.set(one.part, one);
      }
    } else takeIn(await fresh);
  }
  const stillStale = names.filter((part) => !isFresh(part));
  const oldest = Math.min(...names.map((part) => values.get(part)?.revision ?? 0));
  return {
    ...(Object.fromEntries(names.map((part) => [part, values.get(part)?.value])) as Pick<
      ResultParts,
      Name
    >),
    stale: stillStale,
    revision: stillStale.length > 0 ? String(oldest) : record.revision,
  };
}

/** What is being made, by study, section and parameters: once, however many ask for it. */
const running = new Map<string, Promise<MadeResult[]>>();

/** Makes sections of a study's results as it stands now. */
async function make(
  app: App,
  studyId: string,
  reference: string | null,
  sections: readonly SectionName[],
): Promise<MadeResult[]> {
  const keyOf = (section: SectionName) =>
    `${studyId} ${section} ${parametersOf(app, section, reference)}`;
  const missing = sections.filter((section) => !running.has(keyOf(section)));
  if (missing.length > 0) {
    const work = compute(app, studyId, reference, missing).finally(() => {
      for (const section of missing) running.delete(keyOf(section));
    });
    for (const section of missing) running.set(keyOf(section), work);
  }
  const works = new Set(sections.flatMap((section) => running.get(keyOf(section)) ?? []));
  return (await Promise.all(works)).flat();
}

async function compute(
  app: App,
  studyId: string,
  reference: string | null,
  sections: readonly SectionName[],
): Promise<MadeResult[]> {
  const { threads } = app;
  const known = await knownFor(app, studyId, reference, sections);
  const loaded = await loadFor(app, studyId, reference, sections, known.values);
  const { study, options } = loaded;
  // What was known is of its own revision: the result is no newer than that.
  const revision = Math.min(known.revision, Number(loaded.revision));
  const task: EvaluateTask = { study, options, sections };
  const outcome = await threads.run(task);
  if (!('parts' in outcome)) throw new Error('the thread made no sections');
  const { parts } = outcome;
  const made = sections.flatMap((section) =>
    partNames(section).map((part) => ({
      part,
      parameters: parametersOf(app, section, reference),
      revision,
      value: parts[part] ?? 'null',
    })),
  );
  keep(app, studyId, made);
  return made;
}

/** A result as it was made: JSON text, which is taken apart where it is asked for. */
type MadeResult = Omit<KeptResult, 'value'> & { value: string };

const opened = (made: MadeResult): KeptResult => ({
  ...made,
  value: JSON.parse(made.value),
});

/** What was made and is on its way to where it is kept: nobody waits for that. */
const underWay = new Map<string, MadeResult>();

const placeOf = (studyId: string, { part, parameters }: Pick<KeptResult, 'part' | 'parameters'>) =>
  `${studyId} ${part} ${parameters}`;

/** Keeps results, after the answer; what cannot be kept is made again the next time. */
function keep(app: App, studyId: string, made: readonly MadeResult[]): void {
  for (const one of made) underWay.set(placeOf(studyId, one), one);
  afterwards(app, () =>
    storeResults(app.db, studyId, made).finally(() => {
      for (const one of made) {
        const place = placeOf(studyId, one);
        if (underWay.get(place) === one) underWay.delete(place);
      }
    }),
  );
}

/** Results that are kept, or are about to be. */
async function keptResults(
  app: App,
  studyId: string,
  wanted: readonly WantedResult[],
): Promise<KeptResult[]> {
  const made = wanted.flatMap((one) => underWay.get(placeOf(studyId, one)) ?? []);
  const kept = new Map((await findResults(app.db, studyId, wanted)).map((one) => [one.part, one]));
  for (const one of made) {
    if ((kept.get(one.part)?.revision ?? 0) < one.revision) kept.set(one.part, opened(one));
  }
  return [...kept.values()];
}

const isTable = (part: StudyPart): part is TableName => isTableName(part);

/** The kept results, as the study stands now, of sections that others are computed from. */
async function knownFor(
  app: App,
  studyId: string,
  reference: string | null,
  sections: readonly SectionName[],
): Promise<{ values: Partial<Results>; revision: number }> {
  const { db } = app;
  // A section that is kept in several parts is not kept as it was made.
  const used = [...new Set(sections.flatMap(usesOf))].filter(
    (section) => !sections.includes(section) && partNames(section).length === 1,
  );
  if (used.length === 0) return { values: {}, revision: Infinity };
  const record = await findStudy(db, studyId);
  const wanted = used.map((part) => ({
    part,
    parameters: parametersOf(app, part, reference),
    least: freshFrom(record, part),
  }));
  const kept = await keptResults(app, studyId, wanted);
  const fresh = kept.filter(
    ({ part, revision }) => isOneOf(used, part) && revision >= freshFrom(record, part),
  );
  return {
    values: Object.fromEntries(fresh.map(({ part, value }) => [part, value])),
    revision: Number(record.revision),
  };
}

/** Reads as much of a study as some sections hang on, beside what is known. */
async function loadFor(
  app: App,
  studyId: string,
  reference: string | null,
  sections: readonly SectionName[],
  known: Partial<Results>,
): Promise<{ study: SentStudy; revision: string; options: EvaluateOptions }> {
  const { db } = app;
  const isKnown = new Set(SECTION_NAMES.filter((name) => name in known));
  const needs = new Set(sections.flatMap((section) => [...needsOf(section, isKnown)]));
  const tables = [...needs].filter(isTable);
  const { study, revision } = await loadSentStudy(db, studyId, tables);
  const files = sections.includes('reach') ? await slicedFacts(db, studyId) : [];
  const toolpaths = new Map(files.flatMap(({ path, facts }) => (facts ? [[path, facts]] : [])));
  return {
    study,
    revision,
    options: {
      alpha: DEFAULT_ALPHA,
      seed: DEFAULT_SEED,
      toolpaths,
      known,
      ...(reference !== null && { reference }),
    },
  };
}
