import { recordOf } from '../../model/study';
import { drawableOf, drawFrom, type Drawing } from './drawing';
import { meshFacts, type MeshFacts } from './facts';
import { measuringPlaces, type MeasuringPlaces } from './places';
import { readMesh } from './read';
import type { Soup } from './soup';
import { VIEW_NAMES, VIEWS, type ViewName } from './view';

/** What is shown and asked of an artefact's mesh: its facts, its six sides, where it can be measured. */
export interface MeshSheet {
  facts: MeshFacts;
  sides: Record<ViewName, Drawing>;
  places: MeasuringPlaces;
}

/** @throws MeshError */
export function sheetOf(bytes: Uint8Array, name: string): MeshSheet {
  const { soup, format, unit } = readMesh(bytes, name);
  return sheetOfSoup(soup, format, unit);
}

/** @throws MeshError */
export function sheetOfSoup(
  soup: Soup,
  format: MeshFacts['format'],
  unit: string | null,
): MeshSheet {
  // What is too fine to be drawn is refused before anything else is computed of it.
  const drawable = drawableOf(soup);
  const facts = meshFacts(soup, format, unit);
  const sides = recordOf(VIEW_NAMES, (name) => drawFrom(drawable, VIEWS[name]));
  return { facts, sides, places: measuringPlaces(drawable) };
}
