// Sums of planned moves, as `tally.ts` of the reader has them: the same terms in the same order.
import { addPoint, addSpread } from './distribution';

// @ts-ignore: decorator
@external('reader', 'layerIsOver')
declare function layerIsOver(which: i32, layer: i32, time: f64, extruding: f64, filament: f64): void;

/** Bins to a mm/s. */
const SPEED_BINS: f64 = 10;
const FILAMENT_BINS: f64 = 500;
const FILAMENT_COMMANDED: i32 = 0;
const FILAMENT_REACHED: i32 = 1;
const FIRST_OF_ROLES: i32 = 2;
const MOST_ROLES: i32 = 24;

export const BOUND_AXIS: i32 = 1;
export const BOUND_CORNER: i32 = 2;

export let moving: f64 = 0;
export let constant: f64 = 0;
export let heldCommand: f64 = 0;
export let heldAxis: f64 = 0;
export let heldAcceleration: f64 = 0;
export let heldCorner: f64 = 0;
export let commandedMax: f64 = 0;
export let reachedMax: f64 = 0;
export let filamentCommandedMax: f64 = 0;
export let filamentReachedMax: f64 = 0;
export let extrudingXy: f64 = 0;
export let atCommanded: f64 = 0;
export let atClaim: f64 = 0;
/** Roles that extruded in the plane, in the order in which they were met. */
export let roleCount: i32 = 0;

let claim: f64 = NaN;
const byRole = memory.data(8 * 24, 16);
const speedsByRole = memory.data(8 * 24, 16);
const order = memory.data(4 * 24, 16);
const isMet = memory.data(4 * 24, 16);

/** @param speed the claimed speed in mm/s; NaN without one */
export function setClaim(speed: f64): void {
  claim = speed;
}

export function timeOfRole(role: i32): f64 {
  return load<f64>(byRole + (<usize>role << 3));
}

/** Time of a role's moves that extrude in the plane. */
export function planeTimeOfRole(role: i32): f64 {
  return load<f64>(speedsByRole + (<usize>role << 3));
}

export function roleAt(place: i32): i32 {
  return load<i32>(order + (<usize>place << 2));
}

// Time and filament of the present layer: by the file's own word (0) and by motion alone (1).
let layer0: i32 = 0;
let time0: f64 = 0;
let extruding0: f64 = 0;
let filament0: f64 = 0;
let layer1: i32 = 0;
let time1: f64 = 0;
let extruding1: f64 = 0;
let filament1: f64 = 0;

/** Tells what the present layers hold, and begins anew. */
export function endLayers(): void {
  layerIsOver(0, layer0, time0, extruding0, filament0);
  layerIsOver(1, layer1, time1, extruding1, filament1);
  time0 = extruding0 = filament0 = 0;
  time1 = extruding1 = filament1 = 0;
}

// @ts-ignore: decorator
@inline
function spread(which: i32, perUnit: f64, entry: f64, exit: f64, peak: f64, rise: f64, cruise: f64, fall: f64): void {
  if (rise > 0) addSpread(which, perUnit, entry, peak, rise);
  if (cruise > 0) addPoint(which, perUnit, peak, cruise);
  if (fall > 0) addSpread(which, perUnit, exit, peak, fall);
}

// @ts-ignore: decorator
@inline
function timeAbove(speed: f64, entry: f64, exit: f64, peak: f64, acceleration: f64, cruise: f64): f64 {
  if (peak < speed * (1 - 1e-9)) return 0;
  let rise = peak - (entry > speed ? entry : speed);
  let fall = peak - (exit > speed ? exit : speed);
  if (rise < 0) rise = 0;
  if (fall < 0) fall = 0;
  return (rise + fall) / acceleration + cruise;
}

/** Books a block whose speeds are final. */
export function book(
  length: f64,
  nominal: f64,
  acceleration: f64,
  commanded: f64,
  perMm: f64,
  entry: f64,
  exit: f64,
  entryHeld: bool,
  exitHeld: bool,
  bound: i32,
  role: i32,
  layerNoted: i32,
  layerMoved: i32,
  extrudes: bool,
  extrudesXy: bool,
): void {
  const up = (nominal * nominal - entry * entry) / (2 * acceleration);
  const down = (nominal * nominal - exit * exit) / (2 * acceleration);
  let peak = nominal;
  let cruise: f64 = 0;
  if (up + down < length) cruise = (length - up - down) / nominal;
  else {
    peak = sqrt((entry * entry + exit * exit) / 2 + acceleration * length);
    peak = min(nominal, max(max(peak, entry), exit));
  }
  const rise = (peak - entry) / acceleration;
  const fall = (peak - exit) / acceleration;
  const time = rise + cruise + fall;
  moving += time;
  constant += length / nominal;
  const own = byRole + (<usize>role << 3);
  store<f64>(own, load<f64>(own) + time);
  const extruding = extrudes ? time : 0;
  const filament = extrudes ? perMm * length : 0;
  // What precedes the first layer is booked to it.
  const noted = max<i32>(0, layerNoted);
  if (noted !== layer0) {
    layerIsOver(0, layer0, time0, extruding0, filament0);
    layer0 = noted;
    time0 = extruding0 = filament0 = 0;
  }
  time0 += time;
  extruding0 += extruding;
  filament0 += filament;
  const moved = max<i32>(0, layerMoved);
  if (moved !== layer1) {
    layerIsOver(1, layer1, time1, extruding1, filament1);
    layer1 = moved;
    time1 = extruding1 = filament1 = 0;
  }
  time1 += time;
  extruding1 += extruding;
  filament1 += filament;
  if (!extrudes) return;
  if (entryHeld) heldCorner += rise;
  else heldAcceleration += rise;
  if (exitHeld) heldCorner += fall;
  else heldAcceleration += fall;
  if (bound === BOUND_AXIS) heldAxis += cruise;
  else if (bound === BOUND_CORNER) heldCorner += cruise;
  else heldCommand += cruise;
  addPoint(FILAMENT_COMMANDED, FILAMENT_BINS, commanded * perMm, time);
  if (commanded * perMm > filamentCommandedMax) filamentCommandedMax = commanded * perMm;
  if (peak * perMm > filamentReachedMax) filamentReachedMax = peak * perMm;
  spread(FILAMENT_REACHED, FILAMENT_BINS, entry * perMm, exit * perMm, peak * perMm, rise, cruise, fall);
  if (!extrudesXy) return;
  const met = isMet + (<usize>role << 2);
  if (load<i32>(met) === 0) {
    store<i32>(met, 1);
    store<i32>(order + (<usize>roleCount << 2), role);
    roleCount += 1;
  }
  const inPlane = speedsByRole + (<usize>role << 3);
  store<f64>(inPlane, load<f64>(inPlane) + time);
  const which = FIRST_OF_ROLES + 2 * role;
  addPoint(which, SPEED_BINS, commanded, time);
  if (commanded > commandedMax) commandedMax = commanded;
  if (peak > reachedMax) reachedMax = peak;
  spread(which + 1, SPEED_BINS, entry, exit, peak, rise, cruise, fall);
  extrudingXy += time;
  atCommanded += timeAbove(0.95 * commanded, entry, exit, peak, acceleration, cruise);
  if (claim === claim) atClaim += timeAbove(0.95 * claim, entry, exit, peak, acceleration, cruise);
}
