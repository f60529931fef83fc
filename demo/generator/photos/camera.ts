import sharp from 'sharp';
import { encoded, inverted, project, type Projection } from '../../../src/core/measures/image';
import type { Draws } from '../random';

/** What is photographed: light as it comes from each point of a view, linear, 0…1; mm, y upwards. */
export interface Scene {
  box: { x: number; y: number; w: number; h: number };
  /** NaN where nothing of it is; there the ground is seen. */
  light: (x: number, y: number) => number;
  ground: (x: number, y: number) => number;
}

/** How the phone was held. */
export interface Pose {
  px_per_mm: number;
  /** Turned in its plane, and tilted about its upright and its level axis, radians. */
  roll: number;
  pan: number;
  tilt: number;
}

const DISTANCE_MM = 430;
/** Light that the sensor adds, as a share of full light. */
const SENSOR_NOISE = 0.006;
const STEPS = 4096;
/** The slate of the filament and of the cloth behind it, kept near grey. */
const TINT = [0.95, 1, 1.06] as const;

export interface Photo {
  width: number;
  height: number;
  /** From the view's millimetres to pixels. */
  toPicture: Projection;
  jpeg: Buffer;
}

/** Photographs a scene as a hand would hold the phone before it. */
export async function photograph(
  draws: Draws,
  { box, light, ground }: Scene,
  pose: Pose,
  takenAt: string,
): Promise<Photo> {
  const width = Math.round(box.w * pose.px_per_mm);
  const height = Math.round(box.h * pose.px_per_mm);
  const toPicture = planeToPicture(box, pose, width, height);
  const toView = inverted(toPicture);
  const table = Uint8ClampedArray.from({ length: STEPS }, (_, at) =>
    Math.round(255 * encoded(at / (STEPS - 1))),
  );
  const data = Buffer.alloc(width * height * 3);
  for (let v = 0, at = 0; v < height; v += 1) {
    for (let u = 0; u < width; u += 1) {
      const { x, y } = project(toView, { x: u + 0.5, y: v + 0.5 });
      const own = light(x, y);
      const seen = (Number.isNaN(own) ? ground(x, y) : own) + draws.noise(SENSOR_NOISE);
      for (const tint of TINT) {
        const step = Math.max(0, Math.min(STEPS - 1, Math.round(seen * tint * (STEPS - 1))));
        data[at] = table[step] ?? 0;
        at += 1;
      }
    }
  }
  const stamp = takenAt.slice(0, 19).replaceAll('-', ':').replace('T', ' ');
  const jpeg = await sharp(data, { raw: { width, height, channels: 3 } })
    .withExif({ IFD2: { DateTimeOriginal: stamp, OffsetTimeOriginal: '+00:00' } })
    .jpeg({ quality: 80 })
    .toBuffer();
  return { width, height, toPicture, jpeg };
}

/** A pinhole before the plane of the view, its middle at the picture's middle. */
function planeToPicture(
  { x, y, w, h }: Scene['box'],
  { px_per_mm, roll, pan, tilt }: Pose,
  width: number,
  height: number,
): Projection {
  const [cr, sr] = [Math.cos(roll), Math.sin(roll)];
  const [cp, sp] = [Math.cos(pan), Math.sin(pan)];
  const [ct, st] = [Math.cos(tilt), Math.sin(tilt)];
  // Columns of the rotation for the two directions of the plane.
  const across = [cr * cp, sr * cp * ct + sp * st * cr, sp * ct] as const;
  const up = [-sr, cr * ct, st] as const;
  const focal = px_per_mm * DISTANCE_MM;
  const [mx, my] = [x + w / 2, y + h / 2];
  const rows = [
    [focal * across[0], focal * up[0], 0],
    [-focal * across[1], -focal * up[1], 0],
    [across[2], up[2], DISTANCE_MM],
  ];
  // Moved so that the middle of the box is the middle of the picture.
  const [top = [], side = [], depth = []] = rows.map(([a = 0, b = 0, c = 0]) => [
    a,
    b,
    c - a * mx - b * my,
  ]);
  const mix = (row: number[], shift: number) =>
    row.map((value, at) => value + shift * (depth[at] ?? 0));
  const matrix = [...mix(top, width / 2), ...mix(side, height / 2), ...depth];
  return matrix.map((value) => value / (matrix[8] ?? 1));
}
