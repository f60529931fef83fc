import { PARTS } from './parts';
import { RECIPES } from './recipes';
import { slice, type Sliced } from './slice';

/** Every sliced file of the clip bench, by `contender artefact`. */
export function slicedFiles(): Map<string, Sliced> {
  return new Map(
    RECIPES.flatMap((recipe) =>
      Object.keys(PARTS).map((artefact) => [
        `${recipe.contender} ${artefact}`,
        slice(artefact, recipe),
      ]),
    ),
  );
}

/** Files of the Gannet's own profile with other speeds of the outer wall, by `contender artefact`. */
export function slicedAtSpeeds(
  speeds: readonly { contender: string; speed: number }[],
  artefacts: readonly string[],
): Map<string, Sliced> {
  const own = RECIPES.find((recipe) => recipe.contender === 'B-tuned');
  if (!own) throw new Error('there is no tuned profile of the Gannet');
  return new Map(
    speeds.flatMap(({ contender, speed }) =>
      artefacts.map((artefact) => {
        const profile = `Gannet, outer wall ${speed}`;
        return [
          `${contender} ${artefact}`,
          slice(artefact, { ...own, contender, profile, outer: speed }),
        ];
      }),
    ),
  );
}

export type { Sliced } from './slice';
