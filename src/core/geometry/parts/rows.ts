import type { Tables } from '../../model/study';
import type { Part } from './part';

/** The tables that say what is looked at on a part. */
export type PartRows = Pick<
  Tables,
  | 'dimensions'
  | 'dimension_places'
  | 'ladders'
  | 'ladder_steps'
  | 'ladder_places'
  | 'zones'
  | 'zone_places'
  | 'copy_places'
  | 'function_checks'
>;

/** All that is looked at on a part, as rows of an artefact. */
export function partRows(part: Part, artefact_id: string): PartRows {
  const rows: PartRows = {
    dimensions: [],
    dimension_places: [],
    ladders: [],
    ladder_steps: [],
    ladder_places: [],
    zones: [],
    zone_places: [],
    copy_places: [],
    function_checks: [],
  };
  for (const { id, name, axis, kind, nominal_mm, limit_mm, from, to } of part.dimensions) {
    const key = { artefact_id, dimension_id: id };
    rows.dimensions.push({
      ...key,
      name,
      axis,
      kind,
      nominal_mm,
      lower_tol_mm: -limit_mm,
      upper_tol_mm: limit_mm,
    });
    rows.dimension_places.push({
      ...key,
      x1_mm: from[0],
      y1_mm: from[1],
      z1_mm: from[2],
      x2_mm: to[0],
      y2_mm: to[1],
      z2_mm: to[2],
    });
  }
  for (const { id, name, quantity, unit, steps } of part.ladders) {
    const key = { artefact_id, ladder_id: id };
    rows.ladders.push({ ...key, name, quantity, unit });
    steps.forEach(({ value, at }, index) => {
      const step = index + 1;
      rows.ladder_steps.push({ ...key, step, value });
      rows.ladder_places.push({ ...key, step, x_mm: at[0], y_mm: at[1], z_mm: at[2] });
    });
  }
  for (const { id, name, weight, view, from, to } of part.zones) {
    const key = { artefact_id, zone_id: id };
    rows.zones.push({ ...key, name, weight });
    const corners = { u1_mm: from[0], v1_mm: from[1], u2_mm: to[0], v2_mm: to[1] };
    rows.zone_places.push({ ...key, side: view, ...corners });
  }
  part.copies.forEach(([x_mm, y_mm], at) => {
    rows.copy_places.push({ artefact_id, copy: at + 1, x_mm, y_mm });
  });
  for (const check of part.checks) rows.function_checks.push({ artefact_id, check });
  return rows;
}
