import { z } from 'zod';
import { AXES, DIMENSION_KINDS, LADDER_QUANTITIES } from '../catalogues';
import {
  anyNumber,
  choice,
  count,
  id,
  maybe,
  nonNegative,
  path,
  positive,
  sha256,
  text,
} from '../values';

/** A benchmark part. */
export const artefactRow = z.object({
  artefact_id: id(),
  name: text(),
  version: maybe(text()),
  mesh: maybe(path()),
  mesh_sha256: maybe(sha256()),
  notes: maybe(text()),
});

/** A length on an artefact, with the signed limits of its deviation. */
export const dimensionRow = z.object({
  artefact_id: id(),
  dimension_id: id(),
  name: text(),
  axis: choice(AXES),
  kind: choice(DIMENSION_KINDS),
  nominal_mm: positive(),
  lower_tol_mm: maybe(anyNumber()),
  upper_tol_mm: maybe(anyNumber()),
});

/** Two sides and two diagonals that tell whether an artefact is square. */
export const squareRow = z.object({
  artefact_id: id(),
  square_id: id(),
  side_a: id(),
  side_b: id(),
  diagonal_1: id(),
  diagonal_2: id(),
});

/** An ordered row of steps from easy to hard. */
export const ladderRow = z.object({
  artefact_id: id(),
  ladder_id: id(),
  name: text(),
  quantity: choice(LADDER_QUANTITIES),
  unit: text(),
});

/** One step of a ladder; step 1 is the easiest. */
export const ladderStepRow = z.object({
  artefact_id: id(),
  ladder_id: id(),
  step: count(),
  value: anyNumber(),
});

/** A named area of an artefact that is inspected for surface defects. */
export const zoneRow = z.object({
  artefact_id: id(),
  zone_id: id(),
  name: text(),
  weight: maybe(nonNegative()),
});
