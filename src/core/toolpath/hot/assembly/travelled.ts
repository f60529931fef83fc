// What the moves amount to besides their time, as `travelled.ts` of the reader has it.

// @ts-ignore: decorator
@external('reader', 'layerOpened')
declare function layerOpened(top: f64): void;
// @ts-ignore: decorator
@external('reader', 'notedTop')
declare function notedTop(top: f64): void;
// @ts-ignore: decorator
@external('reader', 'accelerationSeen')
declare function accelerationSeen(acceleration: f64): void;

const LAYER_STEP_MM: f64 = 0.005;
const MOST_LAYERS: i32 = 1_000_000;

export let travel: f64 = 0;
export let extruded: f64 = 0;
export let retractions: i32 = 0;
export let retracted: f64 = 0;
export let purged: f64 = 0;
export let hasMotion: bool = false;
export let minX: f64 = Infinity;
export let minY: f64 = Infinity;
export let minZ: f64 = Infinity;
export let maxX: f64 = -Infinity;
export let maxY: f64 = -Infinity;
export let maxZ: f64 = -Infinity;
/** The present tool's running sum of E, and the highest that it was. */
export let runSum: f64 = 0;
export let runHighest: f64 = 0;
/** Layers by motion alone so far. */
export let layers: i32 = 0;
/** Whether something moved since it was last asked. */
let hasMoved: bool = false;

/** What the moves are for, by the file's own word; the two roles that are no part of what is printed. */
export let role: i32 = 0;
export let layerNoted: i32 = -1;
let adhesion: i32 = -1;
let prime: i32 = -1;
let isTopWanted: bool = false;

let isRetracted: bool = false;
let hasChangedTool: bool = false;
let top: f64 = 0;
let topBefore: f64 = 0;
let lastSeen: f64 = NaN;

export function setRoles(adhesionRole: i32, primeRole: i32): void {
  adhesion = adhesionRole;
  prime = primeRole;
}

/** @param wantsTop whether the layer's top is to be told with its first move that extrudes in the plane */
export function setNotes(itsRole: i32, itsLayer: i32, wantsTop: bool): void {
  role = itsRole;
  layerNoted = itsLayer;
  isTopWanted = wantsTop;
}

/** Whether something moved since this was last asked. */
export function takeMoved(): bool {
  const moved = hasMoved;
  hasMoved = false;
  return moved;
}

/** Goes on with another tool, whose sums stood so. */
export function setTool(sum: f64, highest: f64): void {
  hasChangedTool = true;
  runSum = sum;
  runHighest = highest;
}

/** E moving, with a move or alone. */
export function bookFilament(e: f64): void {
  hasMotion = true;
  runSum += e;
  if (runSum > runHighest) runHighest = runSum;
  if (e > 0) {
    isRetracted = false;
    return;
  }
  if (!isRetracted) retractions += 1;
  isRetracted = true;
  retracted -= e;
}

/** A retraction whose length nobody has stated: it counts, and moves nothing. */
export function bookRetract(isBack: bool): void {
  if (isBack && !isRetracted) retractions += 1;
  isRetracted = isBack;
}

/** Widens the box to hold a point of extruded material. */
export function widenBox(x: f64, y: f64, z: f64): void {
  if (x < minX) minX = x;
  if (y < minY) minY = y;
  if (z < minZ) minZ = z;
  if (x > maxX) maxX = x;
  if (y > maxY) maxY = y;
  if (z > maxZ) maxZ = z;
}

/** A move of X, Y, Z, perhaps with E. */
export function bookMove(
  fx: f64,
  fy: f64,
  fz: f64,
  tx: f64,
  ty: f64,
  tz: f64,
  length: f64,
  e: f64,
  isXy: bool,
  acceleration: f64,
): void {
  hasMotion = true;
  hasMoved = true;
  if (e !== 0) bookFilament(e);
  if (e <= 0) {
    travel += length;
    return;
  }
  extruded += length;
  if (acceleration !== lastSeen) {
    lastSeen = acceleration;
    accelerationSeen(acceleration);
  }
  if (role === prime && hasChangedTool) purged += e;
  if (isXy) openLayer(fz, tz);
  if (role === adhesion || role === prime) return;
  widenBox(fx, fy, fz);
  widenBox(tx, ty, tz);
}

function openLayer(from: f64, to: f64): void {
  if (isTopWanted) {
    isTopWanted = false;
    notedTop(to);
  }
  if (layers >= MOST_LAYERS) return;
  if (layers === 0) open(to);
  else if (abs(to - from) < 1e-9) {
    if (abs(to - top) > LAYER_STEP_MM) open(to);
  } else if (to > top + 1e-9) {
    // A climbing wall: a new layer as high as the one before.
    open(top + max<f64>(top - (layers > 1 ? topBefore : 0), LAYER_STEP_MM));
  }
}

function open(at: f64): void {
  topBefore = top;
  top = at;
  layers += 1;
  layerOpened(at);
}
