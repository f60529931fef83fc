import * as z from 'zod';
import { ALLOWANCES, AXES, DIMENSION_KINDS, DRAWN_SIDES, LADDER_QUANTITIES } from '../catalogues';
import {
  anyNumber,
  choice,
  count,
  id,
  maybe,
  MOST_COPIES,
  MOST_STEPS,
  nonNegative,
  path,
  positive,
  sha256,
  text,
  time,
  uid,
} from '../values';

/** A benchmark part. */
export const artefactRow = () =>
  z.object({
    artefact_id: id(),
    name: text(),
    version: maybe(text()),
    mesh: maybe(path()),
    mesh_sha256: maybe(sha256()),
    author: maybe(text()),
    licence: maybe(text()),
    source: maybe(text()),
    /** Whether its mesh may be given on. */
    publish: maybe(choice(['yes', 'no'])),
    supports: maybe(choice(ALLOWANCES)),
    adhesion: maybe(choice(ALLOWANCES)),
    orientation: maybe(text()),
    notes: maybe(text()),
    uid: maybe(uid()),
  });

/** A length on an artefact, with the signed limits of its deviation. */
export const dimensionRow = () =>
  z.object({
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
export const squareRow = () =>
  z.object({
    artefact_id: id(),
    square_id: id(),
    side_a: id(),
    side_b: id(),
    diagonal_1: id(),
    diagonal_2: id(),
  });

/** An ordered row of steps from easy to hard. */
export const ladderRow = () =>
  z.object({
    artefact_id: id(),
    ladder_id: id(),
    name: text(),
    quantity: choice(LADDER_QUANTITIES),
    unit: text(),
  });

/** One step of a ladder; step 1 is the easiest. */
export const ladderStepRow = () =>
  z.object({
    artefact_id: id(),
    ladder_id: id(),
    step: count(MOST_STEPS),
    value: anyNumber(),
  });

/** A named area of an artefact that is inspected for surface defects. */
export const zoneRow = () =>
  z.object({
    artefact_id: id(),
    zone_id: id(),
    name: text(),
    weight: maybe(nonNegative()),
  });

/** The two places between which a dimension is measured, on the artefact's mesh. */
export const dimensionPlaceRow = () =>
  z.object({
    artefact_id: id(),
    dimension_id: id(),
    x1_mm: anyNumber(),
    y1_mm: anyNumber(),
    z1_mm: anyNumber(),
    x2_mm: anyNumber(),
    y2_mm: anyNumber(),
    z2_mm: anyNumber(),
  });

/** A dimension that is no longer measured; its readings stay, and leave the results. */
export const retiredDimensionRow = () =>
  z.object({
    artefact_id: id(),
    dimension_id: id(),
    at: maybe(time()),
    reason: maybe(text()),
  });

/** Where a step of a ladder is, on the artefact's mesh. */
export const ladderPlaceRow = () =>
  z.object({
    artefact_id: id(),
    ladder_id: id(),
    step: count(MOST_STEPS),
    x_mm: anyNumber(),
    y_mm: anyNumber(),
    z_mm: anyNumber(),
  });

/** A zone as a rectangle on one side of the artefact: u to the right and v upwards on the sheet. */
export const zonePlaceRow = () =>
  z.object({
    artefact_id: id(),
    zone_id: id(),
    side: choice(DRAWN_SIDES),
    u1_mm: anyNumber(),
    v1_mm: anyNumber(),
    u2_mm: anyNumber(),
    v2_mm: anyNumber(),
  });

/** Where a copy lies that the mesh itself places, from the middle of the plate. */
export const copyPlaceRow = () =>
  z.object({
    artefact_id: id(),
    copy: count(MOST_COPIES),
    x_mm: anyNumber(),
    y_mm: anyNumber(),
  });

/** A trial of the part's job that every specimen is to be put to. */
export const functionCheckRow = () =>
  z.object({
    artefact_id: id(),
    check: text(),
  });
