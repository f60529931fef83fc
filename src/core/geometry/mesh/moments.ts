import type { Soup } from './soup';

export interface Box {
  min: [number, number, number];
  max: [number, number, number];
  size: [number, number, number];
}

/** The box that just holds a mesh. */
export function boxOf({ corners }: Soup): Box {
  const min: [number, number, number] = [Infinity, Infinity, Infinity];
  const max: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (let at = 0; at < corners.length; at += 3) {
    for (let axis = 0; axis < 3; axis += 1) {
      const value = corners[at + axis] ?? 0;
      if (value < (min[axis] ?? 0)) min[axis] = value;
      if (value > (max[axis] ?? 0)) max[axis] = value;
    }
  }
  return { min, max, size: [max[0] - min[0], max[1] - min[1], max[2] - min[2]] };
}

/** Area, signed volume and the volume's moments of degree 1 to 3 about a point. */
export interface Moments {
  area: number;
  volume: number;
  /** By degree of x, y and z: all with 1 ≤ i + j + k ≤ 3, in one fixed order. */
  moments: number[];
}

const EXPONENTS: readonly (readonly [number, number, number])[] = [1, 2, 3].flatMap((degree) =>
  Array.from({ length: degree + 1 }, (_, i) =>
    Array.from({ length: degree - i + 1 }, (_, j) => [i, j, degree - i - j] as const),
  ).flat(),
);

/**
 * Integrates over the tetrahedra between a point and each triangle, by a rule with five places that
 * is exact to degree 3.
 *
 * @see Keast, Moderate-degree tetrahedral quadrature formulas, 1986 (also Zienkiewicz)
 */
export function momentsOf({ corners }: Soup, about: readonly [number, number, number]): Moments {
  const [ox, oy, oz] = about;
  let area = 0;
  let volume = 0;
  const sums = new Float64Array(EXPONENTS.length);
  const point = new Float64Array(3);
  const add = (weight: number) => {
    const [x, y, z] = [point[0] ?? 0, point[1] ?? 0, point[2] ?? 0];
    const [xx, yy, zz] = [x * x, y * y, z * z];
    // The order of EXPONENTS, written out: this is where the time goes.
    sums[0]! += weight * z;
    sums[1]! += weight * y;
    sums[2]! += weight * x;
    sums[3]! += weight * zz;
    sums[4]! += weight * y * z;
    sums[5]! += weight * yy;
    sums[6]! += weight * x * z;
    sums[7]! += weight * x * y;
    sums[8]! += weight * xx;
    sums[9]! += weight * zz * z;
    sums[10]! += weight * y * zz;
    sums[11]! += weight * yy * z;
    sums[12]! += weight * yy * y;
    sums[13]! += weight * x * zz;
    sums[14]! += weight * x * y * z;
    sums[15]! += weight * x * yy;
    sums[16]! += weight * xx * z;
    sums[17]! += weight * xx * y;
    sums[18]! += weight * xx * x;
  };
  for (let at = 0; at < corners.length; at += 9) {
    const ax = (corners[at] ?? 0) - ox;
    const ay = (corners[at + 1] ?? 0) - oy;
    const az = (corners[at + 2] ?? 0) - oz;
    const bx = (corners[at + 3] ?? 0) - ox;
    const by = (corners[at + 4] ?? 0) - oy;
    const bz = (corners[at + 5] ?? 0) - oz;
    const cx = (corners[at + 6] ?? 0) - ox;
    const cy = (corners[at + 7] ?? 0) - oy;
    const cz = (corners[at + 8] ?? 0) - oz;
    const nx = (by - ay) * (cz - az) - (bz - az) * (cy - ay);
    const ny = (bz - az) * (cx - ax) - (bx - ax) * (cz - az);
    const nz = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
    area += Math.sqrt(nx * nx + ny * ny + nz * nz) / 2;
    const part = (ax * nx + ay * ny + az * nz) / 6;
    volume += part;
    const [sx, sy, sz] = [ax + bx + cx, ay + by + cy, az + bz + cz];
    point[0] = sx / 4;
    point[1] = sy / 4;
    point[2] = sz / 4;
    add(-0.8 * part);
    const weight = 0.45 * part;
    point[0] = sx / 6;
    point[1] = sy / 6;
    point[2] = sz / 6;
    add(weight);
    point[0] = sx / 6 + ax / 3;
    point[1] = sy / 6 + ay / 3;
    point[2] = sz / 6 + az / 3;
    add(weight);
    point[0] = sx / 6 + bx / 3;
    point[1] = sy / 6 + by / 3;
    point[2] = sz / 6 + bz / 3;
    add(weight);
    point[0] = sx / 6 + cx / 3;
    point[1] = sy / 6 + cy / 3;
    point[2] = sz / 6 + cz / 3;
    add(weight);
  }
  return { area, volume, moments: [...sums] };
}

/** The degree of each moment. */
export const MOMENT_DEGREES: readonly number[] = EXPONENTS.map(([i, j, k]) => i + j + k);
