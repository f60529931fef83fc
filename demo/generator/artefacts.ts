import { createHash } from 'node:crypto';
import solids from 'manifold-3d';
import { writeThreeMf } from '../../src/core/geometry/mesh';
import {
  PART_DESIGNS,
  partRows,
  realise,
  usualValues,
  type Part,
  type PartRows,
} from '../../src/core/geometry/parts';
import { fullRow, type Row } from '../../src/core/model/study';
import { uidOf } from './things';

/** A benchmark part of the demo, with its mesh as a file of the package. */
export interface DemoPart {
  artefact: Row<'artefacts'>;
  part: Part;
  mesh: { path: string; bytes: Uint8Array };
}

/** What a part's sizes are other than usual: the tiles lie on the smallest of the four plates. */
const OWN: Readonly<Record<string, Readonly<Record<string, number>>>> = {
  'tile-field': { plate_x: 190, plate_y: 185, margin: 6 },
};

/** The benchmark parts of the clip bench, as our own part maker makes them. */
export async function demoParts(): Promise<DemoPart[]> {
  const kernel = await solids();
  kernel.setup();
  return PART_DESIGNS.map((design) => {
    const part = design.make({ ...usualValues(design), ...OWN[design.key] });
    const bytes = writeThreeMf(realise(kernel, part.solid), design.name);
    const path = `meshes/${design.key}.3mf`;
    const mesh_sha256 = createHash('sha256').update(bytes).digest('hex');
    const artefact = fullRow('artefacts', {
      artefact_id: design.key,
      name: design.name,
      version: '1',
      mesh: path,
      mesh_sha256,
      notes: design.about,
      author: 'the clip bench',
      licence: 'CC BY 4.0',
      publish: 'yes',
      uid: uidOf('artefact', design.key),
    });
    return { artefact, part, mesh: { path, bytes } };
  });
}

/** The tables of some parts, with all that is looked at on them. */
export function artefacts(
  parts: readonly DemoPart[],
): PartRows & { artefacts: Row<'artefacts'>[] } {
  const rows = parts.map(({ part, artefact }) => partRows(part, artefact.artefact_id));
  const all = <Name extends keyof PartRows>(name: Name) =>
    rows.flatMap((one) => one[name] as never[]) as PartRows[Name];
  return {
    artefacts: parts.map(({ artefact }) => artefact),
    dimensions: all('dimensions'),
    dimension_places: all('dimension_places'),
    ladders: all('ladders'),
    ladder_steps: all('ladder_steps'),
    ladder_places: all('ladder_places'),
    zones: all('zones'),
    zone_places: all('zone_places'),
    copy_places: all('copy_places'),
    function_checks: all('function_checks'),
  };
}
