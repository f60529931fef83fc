import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import { boxOf, MOMENT_DEGREES, momentsOf, type Box, type Moments } from './moments';
import { MeshError, type Soup } from './soup';
import { surfaceOf } from './surface';
import { weld } from './weld';

export type MeshFormat = 'stl-binary' | 'stl-ascii' | 'obj' | '3mf';

/** What a mesh is, all lengths in mm. */
export interface MeshFacts {
  format: MeshFormat;
  /** The file's own unit of length; null where the format has none. */
  unit: string | null;
  /** Triangles after polygons are cut. */
  triangles: number;
  /** Corners less than 1e-4 mm apart are one. */
  vertices: number;
  bbox_mm: Box;
  /** Null where the mesh is not watertight. */
  volume_mm3: number | null;
  area_mm2: number;
  watertight: boolean;
  shells: number;
  identity: string;
  /** What is doubtful about it. */
  notes: string[];
}

/** A part of these sizes in one unit is one of an everyday size in another: inches read as mm, or mm as inches. */
const SMALL_MM = 8;
const LARGE_MM = 1000;
const INCH_MM = 25.4;

/** All facts of a mesh. @throws MeshError where it has no triangle */
export function meshFacts(soup: Soup, format: MeshFormat, unit: string | null): MeshFacts {
  if (soup.triangles === 0) throw new MeshError('has no triangle');
  const box = boxOf(soup);
  const middleAlong = (axis: 0 | 1 | 2) => (box.min[axis] + box.max[axis]) / 2;
  const moments = momentsOf(soup, [middleAlong(0), middleAlong(1), middleAlong(2)]);
  const welded = weld(soup);
  const surface = surfaceOf(welded);
  const vertices = welded.places.length / 3;
  const span = Math.max(...box.size);
  const notes = [
    ...(surface.isWatertight
      ? moments.volume < 0
        ? ['it is inside out: its triangles look inwards']
        : []
      : [`it is open: ${surface.badEdges} edges are not shared by two triangles`]),
    ...(unit === null && span < SMALL_MM
      ? [
          `it is ${span.toFixed(2)} mm across: was it drawn in inches (${(span * INCH_MM).toFixed(1)} mm)?`,
        ]
      : []),
    ...(unit === null && span > LARGE_MM
      ? [
          `it is ${span.toFixed(0)} mm across: was it made larger by 25.4 once too often ` +
            `(${(span / INCH_MM).toFixed(1)} mm)?`,
        ]
      : []),
  ];
  return {
    format,
    unit,
    triangles: soup.triangles,
    vertices,
    bbox_mm: box,
    volume_mm3: surface.isWatertight ? Math.abs(moments.volume) : null,
    area_mm2: moments.area,
    watertight: surface.isWatertight,
    shells: surface.shells,
    identity: identityOf(box, moments, soup.triangles, vertices),
    notes,
  };
}

const BOX_STEP_MM = 0.01;
const SHAPE_STEP = 5e-5;
/** Sizes are often round: shifted off the middle between two steps, they do not fall to either side. */
const SHIFT = 0.237;

const stepped = (value: number, step: number): number => Math.floor(value / step + 0.5 + SHIFT) + 0;

/** The same for the same solid in the same place, whatever its format and order of triangles. */
function identityOf(
  box: Box,
  { area, volume, moments }: Moments,
  triangles: number,
  vertices: number,
): string {
  const span = Math.max(...box.size);
  const over = (value: number, degree: number) => (span > 0 ? value / span ** degree : 0);
  const steps = [
    ...box.min.map((value) => stepped(value, BOX_STEP_MM)),
    ...box.max.map((value) => stepped(value, BOX_STEP_MM)),
    stepped(over(area, 2), SHAPE_STEP),
    stepped(over(volume, 3), SHAPE_STEP),
    ...moments.map((value, at) => stepped(over(value, 3 + (MOMENT_DEGREES[at] ?? 0)), SHAPE_STEP)),
    triangles,
    vertices,
  ];
  return bytesToHex(sha256(utf8ToBytes(steps.join(' ')))).slice(0, 32);
}
