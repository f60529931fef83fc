import type { Row } from '../../model/study';

export type DefectName = Row<'findings'>['defect'];

/** Light of a face at a point of it, 0…1 from the left and from the top. */
export type Look = (x: number, y: number) => number;

const BASE = 0.52;
const GROUND = 0.16;
/** By how much a defect is there, by grade: what is only found when searched for, to what is rejected. */
const STRENGTH = [0, 0.16, 0.36, 0.66, 1] as const;

/** A number between 0 and 1 that belongs to a whole number, the same each time. */
function chance(seed: number): number {
  let bits = Math.imul(seed ^ 0x9e3779b9, 0x85ebca6b);
  bits = Math.imul(bits ^ (bits >>> 13), 0xc2b2ae35);
  return ((bits ^ (bits >>> 16)) >>> 0) / 2 ** 32;
}

const places = (seed: number, count: number) =>
  Array.from({ length: count }, (_, at) => ({
    x: 0.08 + 0.84 * chance(seed + 3 * at),
    y: 0.08 + 0.84 * chance(seed + 3 * at + 1),
    size: 0.5 + chance(seed + 3 * at + 2),
  }));

const bump = (distance: number, width: number): number => Math.exp(-((distance / width) ** 2));
const step = (from: number, value: number): number => (value > from ? 1 : 0);

/** A wall of printed layers, without a fault. */
const layers: Look = (_, y) => BASE * (1 + 0.05 * Math.cos(2 * Math.PI * 44 * y));
/** A top face of lines laid side by side. */
const tracks: Look = (x, y) => BASE * (1 + 0.05 * Math.cos(2 * Math.PI * 20 * (x + y)));

/** How a face looks with a defect: s is how strong it is, 0 is not there. */
type Drawn = (s: number) => Look;

const spots =
  (face: Look, seed: number, light: number): Drawn =>
  (s) => {
    const own = places(seed, Math.round(18 * s));
    return (x, y) =>
      own.reduce(
        (sum, { x: u, y: v, size }) =>
          sum + light * bump(Math.hypot(x - u, 0.75 * (y - v)), 0.012 + 0.03 * s * size),
        face(x, y),
      );
  };

const open =
  (face: Look, seed: number, count: number): Drawn =>
  (s) => {
    const lines = Array.from({ length: count }, (_, at) => ({
      at: (at + 0.5) / count,
      from: chance(seed + at) * (1 - 0.8 * s),
      long: (0.15 + 0.85 * chance(seed + 50 + at)) * s,
      isOpen: chance(seed + 100 + at) < 0.25 + 0.75 * s,
    }));
    return (x, y) => {
      const across = (x + y) / 2;
      const along = (x - y + 1) / 2;
      for (const line of lines) {
        if (!line.isOpen || along < line.from || along > line.from + line.long) continue;
        if (Math.abs(across - line.at) < (0.1 + 0.3 * s) / count) return 0.18;
      }
      return face(x, y);
    };
  };

const droop =
  (count: number): Drawn =>
  (s) =>
  (x, y) => {
    if (y < 0.3) return layers(x, y);
    for (let line = 0; line < count; line += 1) {
      const sag = s * (0.15 + 0.45 * chance(700 + line)) * Math.sin(Math.PI * x);
      if (Math.abs(y - 0.32 - 0.05 * line * s - sag) < 0.02) return 0.6;
    }
    return y < 0.34 ? BASE : GROUND;
  };

const scars =
  (seed: number, light: number): Drawn =>
  (s) => {
    const own = places(seed, Math.round(3 + 14 * s));
    return (x, y) => {
      let seen = tracks(x, y);
      if (s === 0) return seen;
      for (const { x: u, y: v, size } of own) {
        const along = Math.abs(x - u + 0.3 * (y - v));
        if (along < 0.01 + 0.012 * s && Math.abs(y - v) < 0.06 + 0.14 * s * size) {
          seen += light * (0.25 + s);
        }
      }
      return seen;
    };
  };

const LOOKS: Record<DefectName, Drawn> = {
  ringing: (s) => (x, y) =>
    x < 0.16
      ? 0.66 * layers(x, y)
      : layers(x, y) *
        (1 + 0.42 * s * Math.exp(-(x - 0.16) / 0.3) * Math.cos((2 * Math.PI * (x - 0.16)) / 0.1)),
  'layer-banding': (s) => (x, y) =>
    layers(x, y) * (1 + 0.6 * s * (chance(300 + Math.floor(y * 22)) - 0.5)),
  'vertical-banding': (s) => (x, y) => layers(x, y) * (1 + 0.4 * s * Math.cos(2 * Math.PI * 9 * x)),
  'fine-diagonal-texture': (s) => (x, y) =>
    layers(x, y) * (1 + 0.32 * s * Math.cos(2 * Math.PI * 24 * (x + 0.75 * y))),
  stringing: (s) => {
    const strands = Array.from({ length: Math.round(1 + 15 * s) }, (_, at) => ({
      y: 0.12 + 0.7 * chance(400 + at),
      sag: 0.08 * chance(440 + at),
    }));
    return (x, y) => {
      const half = 0.09 + 0.1 * y;
      if (Math.min(Math.abs(x - 0.15), Math.abs(x - 0.85)) < half) return layers(x, y);
      if (s === 0) return GROUND;
      const isStrand = strands.some(
        ({ y: at, sag }) => Math.abs(y - at - sag * (1 - (2 * x - 1) ** 2)) < 0.006 + 0.008 * s,
      );
      return isStrand ? 0.62 : GROUND;
    };
  },
  blobs: spots(layers, 500, 0.34),
  pillowing: (s) => (x, y) =>
    tracks(x, y) * (1 + 0.5 * s * Math.cos(2 * Math.PI * 5 * x) * Math.cos(2 * Math.PI * 4 * y)),
  'layer-shift': (s) => (x, y) => {
    const edge = 0.22 + 0.22 * s * step(0.45, 1 - y);
    return x < edge || x > edge + 0.56 ? GROUND : layers(x, y);
  },
  warping: (s) => (x, y) => {
    const floor = 0.86 - 0.34 * s * (2 * x - 1) ** 2;
    if (y > 0.88) return 0.3;
    return y < 0.3 || x < 0.06 || x > 0.94 || y > floor ? GROUND : layers(x, y);
  },
  'elephant-foot': (s) => (x, y) => {
    const out = 0.14 * s * bump(y - 0.9, 0.09);
    return y < 0.1 || y > 0.9 || x < 0.24 - out || x > 0.76 + out ? GROUND : layers(x, y);
  },
  'overhang-droop': droop(3),
  'bridge-sag': droop(4),
  'under-extrusion': (s) => (x, y) => {
    const own = chance(600 + Math.floor(y * 44));
    const gap = chance(9000 + Math.floor(y * 44) * 60 + Math.floor(x * 12));
    return own < 0.2 + 0.6 * s && gap < 0.75 * s ? 0.22 : layers(x, y);
  },
  'over-extrusion': (s) => (x, y) =>
    tracks(x, y) +
    0.42 * s * bump(((x + y) * 10) % 1, 0.3) * (chance(Math.floor((x - y + 1) * 20)) - 0.3),
  gaps: open(tracks, 800, 14),
  'first-layer-gaps': open(tracks, 860, 16),
  'infill-show-through': (s) => (x, y) => {
    const near = Math.min(((x + y) * 4) % 1, ((x - y + 1) * 4) % 1);
    return layers(x, y) * (1 - 0.36 * s * bump(near - 0.5, 0.1));
  },
  seam: (s) => (x, y) =>
    layers(x, y) +
    0.4 * s * bump(x - 0.5 - 0.012 * s * (chance(Math.floor(y * 44)) - 0.5), 0.012 + 0.02 * s),
  scarring: scars(900, -0.3),
  'support-scars': scars(940, 0.3),
  'rough-underside': (s) => (x, y) =>
    tracks(x, y) + 0.7 * s * (chance(Math.floor(x * 34) + 97 * Math.floor(y * 26)) - 0.5),
  delamination: (s) => (x, y) => {
    const crack = 0.5 + 0.03 * Math.sin(9 * x);
    return s > 0 && x > 1 - s && Math.abs(y - crack) < 0.012 + 0.06 * s * x ? 0.08 : layers(x, y);
  },
  'text-lost': (s) => (x, y) => {
    const strokes = [
      [0.2, 0.2, 0.08, 0.6],
      [0.2, 0.2, 0.26, 0.1],
      [0.2, 0.46, 0.2, 0.1],
      [0.6, 0.2, 0.08, 0.6],
      [0.6, 0.7, 0.24, 0.1],
    ] as const;
    const soft = 0.012 + 0.1 * s;
    const inside = strokes.reduce((most, [u, v, w, h]) => {
      const [dx, dy] = [Math.abs(x - u - w / 2) - w / 2, Math.abs(y - v - h / 2) - h / 2];
      const away = Math.max(dx, dy);
      return Math.max(most, 1 / (1 + Math.exp(away / (soft / 3))));
    }, 0);
    return layers(x, y) * (1 + (0.5 - 0.38 * s) * inside);
  },
  'colour-bleed': (s) => (x, y) =>
    x > 0.5 - 0.34 * s * chance(Math.floor(y * 16) + 70) ? 0.24 : layers(x, y),
  'burn-marks': spots(layers, 970, -0.36),
};

/**
 * A rendered face that shows a defect by a grade, so that inspectors mean the same by it. Every
 * grade shows more of it than the one before; it is drawn by rules and taken from no part.
 */
export function defectLook(defect: DefectName, grade: number): Look {
  const strength = STRENGTH[Math.max(0, Math.min(4, Math.round(grade)))] ?? 0;
  const look = LOOKS[defect](strength);
  return (x, y) => Math.max(0, Math.min(1, look(x, y)));
}
