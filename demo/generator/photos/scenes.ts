import QRCode from 'qrcode';
import { CARD, CARD_CORNERS, cardText } from '../../../src/core/measures/image';
import type { Draws } from '../random';
import type { Scene } from './camera';

export interface Ringing {
  wavelength: number;
  decay: number;
  contrast: number;
}

/** How a contender's walls, travels and first layers look. */
export interface Looks {
  /** Ringing after a corner: wavelength and reach, mm, and contrast under raking light. */
  ringing: Ringing | null;
  /** The same along y, on the flange. */
  ringingY: Ringing | null;
  /** Contrast of single layers and of bands of layers. */
  lines: number;
  bands: number;
  /** Contrast of upright bands that only raking light shows. */
  texture: number;
  /** Strings between two spires. */
  strings: number;
  /** Share of the first layer that stays open. */
  gaps: number;
}

const NO_RINGING: Ringing = { wavelength: 1, decay: 1, contrast: 0 };
const SLATE = 0.2;
const CLOTH = 0.62;
const BLACK_CARD = 0.02;
const LAYER = 0.2;
/** From one upright band to the next, mm. */
const BAND = 0.42;
/** Where they begin: behind the corner the belt is still taut from the turn, mm. */
const BANDS_FROM = -24;
/** Size of a sticker, and of its code, mm. */
const STICKER = 14;

export type Light = 'flat' | 'raking-left';

/** The light of a sticker or card's code at a point of it, 0…1 from its lower left; null beside it. */
function codeLight(text: string): (x: number, y: number) => number | null {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' });
  const { size } = modules;
  return (x, y) => {
    if (x < 0 || y < 0 || x >= 1 || y >= 1) return null;
    return modules.get(Math.floor((1 - y) * size), Math.floor(x * size)) ? 0.03 : 0.85;
  };
}

/** A sticker with its white border, its lower left at a point. */
function sticker(code: string, left: number, bottom: number): Scene['light'] {
  const light = codeLight(code);
  const border = 1.8;
  return (x, y) => {
    const [dx, dy] = [x - left, y - bottom];
    if (dx < 0 || dy < 0 || dx > STICKER || dy > STICKER) return Number.NaN;
    const side = STICKER - 2 * border;
    return light((dx - border) / side, (dy - border) / side) ?? 0.85;
  };
}

/** What is seen where something lies over something else; NaN lets through. */
const over =
  (top: Scene['light'], below: Scene['light']): Scene['light'] =>
  (x, y) => {
    const light = top(x, y);
    return Number.isNaN(light) ? below(x, y) : light;
  };

const cloth =
  (base: number): Scene['light'] =>
  (x, y) =>
    base * (1 + 0.03 * Math.sin(x / 37) + 0.02 * Math.cos(y / 29));

/** Rough or bright layers, one after another, from a part's own draws. */
function layersOf(draws: Draws, bands: number): number[] {
  let drift = 0;
  return Array.from({ length: 400 }, () => {
    drift = 0.75 * drift + draws.noise(1);
    return bands * drift;
  });
}

/** The strokes of the letters on the wall: x, z, width, height, mm. */
function strokes(): (readonly [number, number, number, number])[] {
  const scale = 8 / 6;
  const field = [
    [0, 0, 1, 6],
    [0, 5, 4, 1],
    [0, 2.5, 3, 1],
    [5, 0, 1, 6],
    [5, 5, 4, 1],
    [5, 2.5, 3, 1],
    [5, 0, 4, 1],
    [10, 0, 1, 6],
    [10, 0, 4, 1],
    [16.5, 0, 1, 6],
    [15, 5, 4, 1],
  ] as const;
  return field.map(([u, v, w, h]) => [-40 + u * scale, 26 + v * scale, w * scale, h * scale]);
}

/** The echo wall from the front, 120 × 60 mm: a flange at the left, letters, a notch at the right. */
export function wall(draws: Draws, looks: Looks, light: Light, code: string): Scene {
  const layers = layersOf(draws, looks.bands);
  const letters = strokes();
  const rake = light === 'flat' ? 0.12 : 1;
  const phase = draws.between(-0.3, 0.3);
  const uneven = draws.between(-0.0012, 0.0012);
  const isLetter = (x: number, z: number) =>
    letters.some(([u, v, w, h]) => x >= u && x < u + w && z >= v && z < v + h);
  const ripple = (x: number, z: number): number => {
    const { ringing } = looks;
    if (!ringing) return 0;
    const edges = z > 40 && z < 50 ? [-54, 43] : [-54];
    let sum = 0;
    for (const edge of edges) {
      if (x < edge) continue;
      const away = x - edge;
      sum +=
        ringing.contrast *
        Math.exp(-away / ringing.decay) *
        Math.cos((2 * Math.PI * away) / ringing.wavelength + phase);
    }
    return sum;
  };
  const part = (x: number, z: number): number => {
    if (x < -60 || x > 60 || z < 0 || z > 60) return Number.NaN;
    // Through the notch one sees the dark behind.
    if (x > 30 && x < 45 && z > 40 && z < 50) return 0.05;
    const layer = Math.floor(z / LAYER);
    let relief = 1 + uneven * x;
    relief *= 1 + looks.lines * Math.cos((2 * Math.PI * z) / LAYER) + (layers[layer] ?? 0);
    relief *= 1 + rake * ripple(x, z);
    if (x > BANDS_FROM) relief *= 1 + rake * looks.texture * Math.cos((2 * Math.PI * x) / BAND);
    if (light === 'raking-left') {
      const [here, left] = [isLetter(x, z), isLetter(x - 0.5, z)];
      if (here && !left) relief *= 1.5;
      else if (!here && isLetter(x - 0.7, z)) relief *= 0.6;
      if (x < -54) relief *= 1.25;
      else if (x < -53.2) relief *= 0.6;
    } else if (isLetter(x, z)) relief *= 1.05;
    return SLATE * relief;
  };
  return {
    box: { x: -66, y: -19, w: 132, h: 84 },
    light: over(part, sticker(code, 44, -17)),
    ground: cloth(CLOTH),
  };
}

/** The echo wall's flange from the left, 20 × 60 mm: it runs along y, away from its corner. */
export function flange(draws: Draws, looks: Looks, code: string): Scene {
  const layers = layersOf(draws, looks.bands);
  const phase = draws.between(-0.3, 0.3);
  const part = (y: number, z: number): number => {
    if (Math.abs(y) > 10 || z < 0 || z > 60) return Number.NaN;
    const away = y + 10;
    const { wavelength, decay, contrast } = looks.ringingY ?? NO_RINGING;
    const ripple =
      contrast * Math.exp(-away / decay) * Math.cos((2 * Math.PI * away) / wavelength + phase);
    let relief = 1 + looks.lines * Math.cos((2 * Math.PI * z) / LAYER);
    relief *= 1 + (layers[Math.floor(z / LAYER)] ?? 0);
    return SLATE * relief * (1 + ripple);
  };
  return {
    box: { x: -16, y: -19, w: 32, h: 84 },
    light: over(part, sticker(code, -7, -17)),
    ground: cloth(CLOTH),
  };
}

/** The spire pair from the front before a black card. */
export function spires(draws: Draws, looks: Looks, code: string): Scene {
  const strands = Array.from({ length: looks.strings }, () => ({
    z: draws.between(6, 46),
    sag: draws.between(0, 1.6),
    half: draws.between(0.05, 0.14),
    light: draws.between(0.16, 0.42),
  }));
  const radius = (z: number) => 5 - (3.8 * (z - 1.5)) / 48.5;
  const part = (x: number, z: number): number => {
    if (Math.abs(x) <= 25 && z >= 0 && z <= 2) return 0.4 * (1 + 0.05 * Math.cos(10 * Math.PI * z));
    const away = Math.abs(Math.abs(x) - 17.5);
    if (z > 2 && z <= 50 && away <= radius(z)) {
      const round = Math.sqrt(1 - (away / (radius(z) + 0.01)) ** 2);
      return (0.15 + 0.35 * round) * (1 + looks.lines * Math.cos((2 * Math.PI * z) / LAYER));
    }
    if (Math.abs(x) > 17.5 || z <= 2) return Number.NaN;
    for (const { z: height, sag, half, light } of strands) {
      const at = height - sag * (1 - (x / 17.5) ** 2);
      if (Math.abs(z - at) < half) return light;
    }
    return Number.NaN;
  };
  return {
    box: { x: -31, y: -18, w: 62, h: 73 },
    light: over(part, sticker(code, 12, -16)),
    ground: cloth(BLACK_CARD),
  };
}

/** A tile's first layer, 40 × 40 mm, seen from below. */
export function firstLayer(draws: Draws, looks: Looks, code: string): Scene {
  const width = 0.45;
  const tracks = Array.from({ length: 260 }, () => ({
    open: draws.chance(Math.min(1, 6 * looks.gaps)),
    from: draws.between(-32, 10),
    long: draws.between(6, 26),
    wide: draws.between(0.5, 1),
    light: 1 + draws.noise(0.02),
  }));
  const part = (x: number, y: number): number => {
    if (Math.abs(x) > 20 || Math.abs(y) > 20) return Number.NaN;
    const [along, across] = [(x + y) / Math.SQRT2, (x - y) / Math.SQRT2];
    const track = Math.floor(across / width + 130);
    const own = tracks[track];
    const within = across / width + 130 - track;
    if (!own) return 0.24;
    const isOpen = own.open && along > own.from && along < own.from + own.long;
    if (isOpen && within < own.wide * Math.min(0.8, 14 * looks.gaps)) return 0.07;
    return 0.24 * own.light * (1 + 0.04 * Math.cos(2 * Math.PI * within));
  };
  return {
    box: { x: -24, y: -39, w: 48, h: 63 },
    light: over(part, sticker(code, 6, -37)),
    ground: cloth(CLOTH),
  };
}

/** Something small laid into the bracket of the scale card, its lower left at the bracket. */
export function onCard(part: Scene, inner: { x: number; y: number }): Scene {
  const codes = CARD_CORNERS.map((corner) => ({ corner, light: codeLight(cardText(corner)) }));
  const { width, height, code, inset, zero } = CARD;
  const [left, bottom] = [inner.x - zero.x, inner.y - zero.y];
  const card = (x: number, y: number): number => {
    const [cx, cy] = [x - left, y - bottom];
    if (cx < 0 || cy < 0 || cx > width || cy > height) return Number.NaN;
    for (const { corner, light } of codes) {
      const dx = cx - (corner.endsWith('L') ? inset : width - inset - code);
      const dy = cy - (corner.startsWith('T') ? height - inset - code : inset);
      const seen = light(dx / code, dy / code);
      if (seen !== null) return seen;
    }
    return 0.8;
  };
  return {
    box: { x: left - 8, y: bottom - 8, w: width + 16, h: height + 16 },
    light: over(part.light, card),
    ground: cloth(0.3),
  };
}
