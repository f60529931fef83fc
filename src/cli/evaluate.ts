import { evaluate } from '../core/evaluate';
import { readStudy } from './read-study';
import { renderResults } from './render-results';

export interface EvaluateFlags {
  json?: boolean;
  alpha?: number;
  seed?: number;
  /** Whether the sliced files are read to their ends, for claim, command and reach. */
  reach?: boolean;
}

/** `vergleich evaluate`: the results of a package, for people or as JSON. */
export async function runEvaluate(path: string, flags: EvaluateFlags): Promise<void> {
  const { study, toolpaths } = await readStudy(path, flags.reach ? 'toolpaths' : 'settings');
  const results = evaluate(study, {
    ...(toolpaths && { toolpaths }),
    ...(flags.alpha !== undefined && { alpha: flags.alpha }),
    ...(flags.seed !== undefined && { seed: flags.seed }),
  });
  const text = flags.json ? `${JSON.stringify(results)}\n` : renderResults(study, results);
  await new Promise<void>((resolve, reject) => {
    process.stdout.write(text, (error) => (error ? reject(error) : resolve()));
  });
}
