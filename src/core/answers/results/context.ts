import { measure, type Measurements } from '../../measures/metrology';
import { indexStudy, type Study, type StudyMeta, cardsOf } from '../../model/study';
import type { ToolpathFacts } from '../../toolpath';
import type { Results, SectionName } from './results';
import { SECTIONS } from './registry';
import type { SectionContext } from './section';

export interface EvaluateOptions {
  /** Intervals are two-sided 1 − alpha; 0.05 unless set. */
  alpha?: number;
  /** Seed of everything that is drawn; 1 unless set. */
  seed?: number;
  /** The contender that the others are compared with, in place of the study's own. */
  reference?: string;
  /** The name of the scorecard that is filled in, in place of the study's first. */
  card?: string;
  /** What was read in the study's sliced files, by their path; without it there is no reach. */
  toolpaths?: ReadonlyMap<string, ToolpathFacts>;
  /** Sections that are known already, and are not computed from the study again. */
  known?: Partial<Results>;
}

export const DEFAULT_ALPHA = 0.05;
export const DEFAULT_SEED = 1;

/**
 * What the sections of a study's results are computed from.
 *
 * @throws RangeError where the reference is no contender of the study, or the card none of its cards
 */
export function openContext(study: Study, options: EvaluateOptions = {}): SectionContext {
  const reference = options.reference ?? study.meta.reference;
  const index = indexStudy(study);
  if (reference !== null && !index.contenders.has(reference)) {
    throw new RangeError(`the reference ${reference} is no contender of this study`);
  }
  const card = cardNamed(study, options.card);
  const has: SectionContext['has'] = (table) => study.present.has(table);
  let measured: Measurements | null | undefined;
  const made: Partial<Results> = { ...options.known };
  const context: SectionContext = {
    index,
    reference,
    card,
    has,
    toolpaths: options.toolpaths ?? null,
    alpha: options.alpha ?? DEFAULT_ALPHA,
    seed: options.seed ?? DEFAULT_SEED,
    measurements: () => (measured ??= has('readings') ? measure(index) : null),
    resultOf: <Name extends SectionName>(name: Name): Results[Name] => {
      const known = made[name];
      if (known !== undefined) return known;
      const section: { compute(context: SectionContext): Results[Name] } = SECTIONS[name];
      const value = section.compute(context);
      made[name] = value;
      return value;
    },
  };
  return context;
}

/** The study's scorecard, or the one of a name. @throws RangeError where there is no such card */
function cardNamed({ meta }: Study, name: string | undefined): StudyMeta['scorecard'] {
  if (name === undefined) return meta.scorecard;
  const cards = cardsOf(meta);
  const found = cards.find((card) => card.name === name);
  if (found) return found;
  const names = cards.flatMap((card) => card.name ?? []);
  throw new RangeError(
    names.length === 0
      ? `there is no card ${name}: this study has no card with a name`
      : `there is no card ${name}: the cards of this study are ${names.join(', ')}`,
  );
}
