import { evaluate } from '../core/answers/results';
import type { EvaluateOptions, Results } from '../core/answers/results';
import type { Study } from '../core/model/study';
import { InputError } from './input-error';
import { readStudy } from './read-study';
import { renderResults } from './render-results';

export interface EvaluateFlags {
  json?: boolean;
  alpha?: number;
  seed?: number;
  /** Name of the scorecard that is filled in, in place of the study's first. */
  card?: string;
  /** Whether the sliced files are read to their ends, for claim, command and reach. */
  reach?: boolean;
  /** Whether each warning is named, in place of once for those of one kind. */
  all?: boolean;
}

/** `vergleich evaluate`: the results of a package, for people or as JSON. */
export async function runEvaluate(path: string, flags: EvaluateFlags): Promise<void> {
  const { study, toolpaths } = await readStudy(
    path,
    flags.reach ? 'toolpaths' : 'settings',
    flags.all,
  );
  const results = evaluated(study, {
    ...(toolpaths && { toolpaths }),
    ...(flags.alpha !== undefined && { alpha: flags.alpha }),
    ...(flags.seed !== undefined && { seed: flags.seed }),
    ...(flags.card !== undefined && { card: flags.card }),
  });
  const text = flags.json ? `${JSON.stringify(results)}\n` : renderResults(study, results);
  await new Promise<void>((resolve, reject) => {
    process.stdout.write(text, (error) => (error ? reject(error) : resolve()));
  });
}

/** The results; a card that is none is told as an input that is wrong. */
function evaluated(study: Study, options: EvaluateOptions): Results {
  try {
    return evaluate(study, options);
  } catch (error) {
    throw error instanceof RangeError
      ? new InputError(`${study.meta.name}: ${error.message}`)
      : error;
  }
}
