// Makes moves of lines and arcs, as `motion.ts` of the reader has it.
import { addBlock, BOUND_SHIFT, EXTRUDES, EXTRUDES_XY, rest } from './queue';
import { BOUND_AXIS, BOUND_CORNER } from './tally';
import {
  accelerationE,
  accelerationX,
  accelerationY,
  accelerationZ,
  printing,
  retracting,
  speedE,
  speedX,
  speedY,
  speedZ,
  travelling,
} from './limits';
import { bookFilament, bookMove, layerNoted, layers, role, widenBox } from './travelled';

// @ts-ignore: decorator
@external('reader', 'atan2')
declare function atan2(y: f64, x: f64): f64;
// @ts-ignore: decorator
@external('reader', 'cos')
declare function cos(x: f64): f64;
// @ts-ignore: decorator
@external('reader', 'sin')
declare function sin(x: f64): f64;
// @ts-ignore: decorator
@external('reader', 'hypot')
declare function hypot(x: f64, y: f64): f64;

/** Bits of the words that a move has. */
export const HAS_X: i32 = 1;
export const HAS_Y: i32 = 2;
export const HAS_Z: i32 = 4;
export const HAS_E: i32 = 8;
export const HAS_F: i32 = 16;
export const HAS_I: i32 = 32;
export const HAS_J: i32 = 64;
export const HAS_R: i32 = 128;

/** An axis that moves less than this share of the way bounds nothing. */
const NO_SHARE: f64 = 1e-12;
const SHORT_RADIUS_MM: f64 = 0.001;
const UNEQUAL_MM: f64 = 0.05;
const PI: f64 = 3.141592653589793;

let px: f64 = 0;
let py: f64 = 0;
let pz: f64 = 0;
let ox: f64 = 0;
let oy: f64 = 0;
let oz: f64 = 0;
let tx: f64 = 0;
let ty: f64 = 0;
let tz: f64 = 0;
let position: f64 = 0;
let isAbsolute: bool = true;
let isAbsoluteE: bool = true;
let unit: f64 = 1;
let feed: f64 = 25;
let feedFactor: f64 = 1;
let flowFactor: f64 = 1;
let travelRole: i32 = 0;
let retractRole: i32 = 0;

export function setMoveRoles(travel: i32, retract: i32): void {
  travelRole = travel;
  retractRole = retract;
}

export function setModes(absolute: bool, absoluteE: bool, mmPerUnit: f64): void {
  isAbsolute = absolute;
  isAbsoluteE = absoluteE;
  unit = mmPerUnit;
}

export function setFactors(ofFeed: f64, ofFlow: f64): void {
  feedFactor = ofFeed;
  flowFactor = ofFlow;
}

/** @param axes bits of the axes that become 0 */
export function home(axes: i32): void {
  rest();
  if ((axes & HAS_X) !== 0) px = ox = 0;
  if ((axes & HAS_Y) !== 0) py = oy = 0;
  if ((axes & HAS_Z) !== 0) pz = oz = 0;
}

/** Gives the present position other coordinates. */
export function shift(has: i32, x: f64, y: f64, z: f64, e: f64): void {
  if ((has & HAS_X) !== 0) ox = px - x * unit;
  if ((has & HAS_Y) !== 0) oy = py - y * unit;
  if ((has & HAS_Z) !== 0) oz = pz - z * unit;
  if ((has & HAS_E) !== 0) position = e * unit;
}

/** Takes feed and target from a move's words; returns the length of E, flow factor and all. */
// @ts-ignore: decorator
@inline
function aim(has: i32, x: f64, y: f64, z: f64, e: f64, f: f64): f64 {
  if ((has & HAS_F) !== 0 && f > 0) feed = (f * unit) / 60;
  tx = px;
  ty = py;
  tz = pz;
  if ((has & HAS_X) !== 0) tx = isAbsolute ? x * unit + ox : px + x * unit;
  if ((has & HAS_Y) !== 0) ty = isAbsolute ? y * unit + oy : py + y * unit;
  if ((has & HAS_Z) !== 0) tz = isAbsolute ? z * unit + oz : pz + z * unit;
  if ((has & HAS_E) === 0) return 0;
  const value = e * unit;
  const change = isAbsoluteE ? value - position : value;
  position = isAbsoluteE ? value : position + value;
  // Differences of absolute values carry rounding that is no extrusion.
  return abs(change) < 1e-9 ? 0 : change * flowFactor;
}

/** A straight move, or one of E alone. */
export function line(has: i32, x: f64, y: f64, z: f64, e: f64, f: f64): void {
  const filament = aim(has, x, y, z, e, f);
  const dx = tx - px;
  const dy = ty - py;
  const dz = tz - pz;
  const length = sqrt(dx * dx + dy * dy + dz * dz);
  if (length < 1e-9) {
    if (filament !== 0) moveFilament(filament, feed * feedFactor);
    return;
  }
  const ux = dx / length;
  const uy = dy / length;
  const uz = dz / length;
  move(length, filament, dx !== 0 || dy !== 0, ux, uy, uz, ux, uy, uz, 0);
  px = tx;
  py = ty;
  pz = tz;
}

let arcI: f64 = 0;
let arcJ: f64 = 0;

/** Finds the centre of an arc by its radius; false where there is no such arc. */
function centreByRadius(isClockwise: bool, r: f64): bool {
  const dx = tx - px;
  const dy = ty - py;
  const chord = hypot(dx, dy);
  const size = abs(r);
  if (chord < 1e-9 || !(size > 0) || chord / 2 > size + SHORT_RADIUS_MM) return false;
  // A radius a little too short is the half circle.
  const height = sqrt(max<f64>(0, size * size - (chord / 2) * (chord / 2)));
  const side: f64 = isClockwise === r > 0 ? -1 : 1;
  arcI = dx / 2 - (side * height * dy) / chord;
  arcJ = dy / 2 + (side * height * dx) / chord;
  return true;
}

/** An arc in the plane, or a helix. @returns false where there is no such arc; nothing is moved then */
export function arc(
  isClockwise: bool,
  has: i32,
  x: f64,
  y: f64,
  z: f64,
  e: f64,
  f: f64,
  i: f64,
  j: f64,
  r: f64,
): bool {
  const savedFeed = feed;
  const savedPosition = position;
  const filament = aim(has, x, y, z, e, f);
  let isThere = true;
  if ((has & HAS_R) !== 0) isThere = centreByRadius(isClockwise, r * unit);
  else {
    arcI = (has & HAS_I) !== 0 ? i * unit : 0;
    arcJ = (has & HAS_J) !== 0 ? j * unit : 0;
  }
  const cx = px + arcI;
  const cy = py + arcJ;
  const radius = isThere ? hypot(arcI, arcJ) : 0;
  isThere =
    radius > 1e-9 && isFinite(radius) && !(abs(hypot(tx - cx, ty - cy) - radius) > UNEQUAL_MM);
  if (!isThere) {
    feed = savedFeed;
    position = savedPosition;
    return false;
  }
  const from = atan2(py - cy, px - cx);
  const isFull = abs(tx - px) < 1e-9 && abs(ty - py) < 1e-9;
  let sweep: f64 = isFull ? 0 : atan2(ty - cy, tx - cx) - from;
  if (isClockwise && sweep >= -1e-12) sweep -= 2 * PI;
  if (!isClockwise && sweep <= 1e-12) sweep += 2 * PI;
  const dz = tz - pz;
  const flat = radius * abs(sweep);
  const length = sqrt(flat * flat + dz * dz);
  const turn = (sweep > 0 ? 1.0 : sweep < 0 ? -1.0 : sweep) * (flat / length);
  const to = from + sweep;
  const uz = dz / length;
  move(length, filament, true, -sin(from) * turn, cos(from) * turn, uz, -sin(to) * turn, cos(to) * turn, uz, radius);
  if (filament > 0) {
    const top = max<f64>(pz, tz);
    const low = min<f64>(from, to);
    const high = max<f64>(from, to);
    for (let quarter = ceil(low / (PI / 2)); quarter * (PI / 2) <= high; quarter += 1) {
      const angle = quarter * (PI / 2);
      widenBox(cx + radius * cos(angle), cy + radius * sin(angle), top);
    }
  }
  px = tx;
  py = ty;
  pz = tz;
  return true;
}

const HAIR: f64 = 1 + 1e-9;

// @ts-ignore: decorator
@inline
function least(one: f64, other: f64): f64 {
  return one < other ? one : other;
}

/** Hands a move to the queue. @param radius of an arc; 0 for a straight move */
// @ts-ignore: decorator
@inline
function move(
  length: f64,
  e: f64,
  isXy: bool,
  sx: f64,
  sy: f64,
  sz: f64,
  ex: f64,
  ey: f64,
  ez: f64,
  radius: f64,
): void {
  const extrudes = e > 0;
  const perMm = e / length;
  const commanded = feed * feedFactor;
  const isArc = radius > 0;
  const shareX = isArc ? 1.0 : abs(sx);
  const shareY = isArc ? 1.0 : abs(sy);
  const shareZ = abs(sz);
  const shareE = abs(perMm);
  let axis: f64 = Infinity;
  let acceleration = e !== 0 ? printing : travelling;
  // A limit that is as high without its axis' share bounds nothing: most moves divide by no share at all.
  if (shareX > NO_SHARE) {
    if (speedX < commanded) axis = speedX / shareX;
    if (accelerationX < acceleration) acceleration = least(acceleration, accelerationX / shareX);
  }
  if (shareY > NO_SHARE) {
    if (speedY < commanded) axis = least(axis, speedY / shareY);
    if (accelerationY < acceleration) acceleration = least(acceleration, accelerationY / shareY);
  }
  if (shareZ > NO_SHARE) {
    if (speedZ < commanded) axis = least(axis, speedZ / shareZ);
    if (accelerationZ < acceleration) acceleration = least(acceleration, accelerationZ / shareZ);
  }
  if (shareE > NO_SHARE) {
    // Filament may be longer than the way; a hair is left for rounding.
    if (speedE < commanded * shareE * HAIR) axis = least(axis, speedE / shareE);
    if (accelerationE < acceleration * shareE * HAIR) {
      acceleration = least(acceleration, accelerationE / shareE);
    }
  }
  const corner: f64 = isArc ? sqrt(acceleration * radius) : Infinity;
  const nominal = least(least(commanded, axis), corner);
  const bound =
    corner < commanded && corner <= axis ? BOUND_CORNER : axis < commanded ? BOUND_AXIS : 0;
  bookMove(px, py, pz, tx, ty, tz, length, e, isXy, printing);
  addBlock(
    length,
    nominal,
    acceleration,
    commanded,
    perMm,
    sx,
    sy,
    sz,
    ex,
    ey,
    ez,
    (extrudes ? EXTRUDES : 0) | (extrudes && isXy ? EXTRUDES_XY : 0) | (bound << BOUND_SHIFT),
    extrudes ? role : travelRole,
    layerNoted,
    layers - 1,
  );
}

/** A move of E alone: at rest before and after it. */
export function moveFilament(e: f64, speed: f64): void {
  rest();
  addBlock(
    abs(e),
    min(speed, speedE),
    min(retracting, accelerationE),
    speed,
    e > 0 ? 1.0 : -1.0,
    0,
    0,
    0,
    0,
    0,
    0,
    0,
    retractRole,
    layerNoted,
    layers - 1,
  );
  rest();
  bookFilament(e);
}
