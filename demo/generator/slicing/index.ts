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

export type { Sliced } from './slice';
