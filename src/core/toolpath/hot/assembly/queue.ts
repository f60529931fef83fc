// Look-ahead without a limit, as `planner.ts` of the reader has it. Blocks wait in one array of numbers.
//
// Between calls: records 0 … count − 1 hold blocks that follow one another without a stop; `entry2` is the squared
// speed with which the first is entered, and is final. `CAP2` of a record bounds the joint before it.
import { book } from './tally';
import { deviation, hasJerk, jerkE, jerkX, jerkY, jerkZ } from './limits';

const RECORD: usize = 72;
const LENGTH: usize = 0;
const NOMINAL: usize = 8;
const ACCELERATION: usize = 16;
const COMMANDED: usize = 24;
const PER_MM: usize = 32;
const CAP2: usize = 40;
/** The fastest squared speed at the joint before it from which rest at the end is met. */
const BACK2: usize = 48;
const FLAGS: usize = 56;
const ROLE: usize = 60;
const NOTED: usize = 64;
const MOVED: usize = 68;

export const EXTRUDES: i32 = 2;
export const EXTRUDES_XY: i32 = 4;
export const BOUND_SHIFT: i32 = 4;
const CORNER_HELD: i32 = 1;

let capacity: i32 = 4096;
let blocks: usize = heap.alloc(4096 * 72);
let count: i32 = 0;
let entry2: f64 = 0;
let entryHeld: bool = false;

// The end of the last block, for the corner with the next.
let lastX: f64 = 0;
let lastY: f64 = 0;
let lastZ: f64 = 0;
let lastE: f64 = 0;
let lastLength: f64 = 0;
let lastAcceleration: f64 = 0;
let lastNominal: f64 = 0;

// @ts-ignore: decorator
@inline
function jerkSpeed(jerk: f64, change: f64, speed: f64): f64 {
  const size = abs(change);
  return size < 1e-12 ? speed : min(speed, jerk / size);
}

/** Squared speed that the corner between the last block and one that begins so allows. */
// @ts-ignore: decorator
@inline
function corner2(sx: f64, sy: f64, sz: f64, perMm: f64, length: f64, itsAcceleration: f64): f64 {
  const cosine = lastX * sx + lastY * sy + lastZ * sz;
  const acceleration = lastAcceleration < itsAcceleration ? lastAcceleration : itsAcceleration;
  const sin2 = (1 + cosine) / 2;
  const cos2 = (1 - cosine) / 2;
  const sinHalf = sin2 > 0 ? sqrt(sin2) : 0;
  const cosHalf = cos2 > 0 ? sqrt(cos2) : 0;
  const isStraight = cosHalf < 1e-9;
  let limit: f64 = Infinity;
  if (hasJerk) {
    limit = jerkSpeed(jerkX, sx - lastX, limit);
    limit = jerkSpeed(jerkY, sy - lastY, limit);
    limit = jerkSpeed(jerkZ, sz - lastZ, limit);
    limit = jerkSpeed(jerkE, perMm - lastE, limit);
    limit *= limit;
  } else if (!isStraight) {
    limit = (acceleration * deviation * sinHalf) / (1 - sinHalf);
  }
  if (isStraight) return limit;
  const shorter = lastLength < length ? lastLength : length;
  const centripetal = ((acceleration * shorter) / 2) * (sinHalf / cosHalf);
  return limit < centripetal ? limit : centripetal;
}

/** Adds a move that follows the last without a stop; its unit vector at the start (s) and at the end (t). */
export function addBlock(
  length: f64,
  nominal: f64,
  acceleration: f64,
  commanded: f64,
  perMm: f64,
  sx: f64,
  sy: f64,
  sz: f64,
  tx: f64,
  ty: f64,
  tz: f64,
  itsFlags: i32,
  role: i32,
  noted: i32,
  moved: i32,
): void {
  if (count === capacity) relieve();
  const record = blocks + <usize>count * RECORD;
  let flags = itsFlags;
  let cap2: f64 = 0;
  if (count > 0) {
    const slower = lastNominal < nominal ? lastNominal : nominal;
    const slower2 = slower * slower;
    const corner = corner2(sx, sy, sz, perMm, length, acceleration);
    cap2 = corner < slower2 ? corner : slower2;
    if (corner < slower2) flags |= CORNER_HELD;
  }
  store<f64>(record + LENGTH, length);
  store<f64>(record + NOMINAL, nominal);
  store<f64>(record + ACCELERATION, acceleration);
  store<f64>(record + COMMANDED, commanded);
  store<f64>(record + PER_MM, perMm);
  store<f64>(record + CAP2, cap2);
  store<i32>(record + FLAGS, flags);
  store<i32>(record + ROLE, role);
  store<i32>(record + NOTED, noted);
  store<i32>(record + MOVED, moved);
  count += 1;
  lastX = tx;
  lastY = ty;
  lastZ = tz;
  lastE = perMm;
  lastLength = length;
  lastAcceleration = acceleration;
  lastNominal = nominal;
}

/** Comes to rest after what was added. */
export function rest(): void {
  if (count > 0) {
    backward(0);
    forward(count);
  }
  count = 0;
  entry2 = 0;
  entryHeld = false;
}

function backward(end2: f64): void {
  let next2 = end2;
  for (let record = blocks + <usize>(count - 1) * RECORD; record > blocks; record -= RECORD) {
    const reach = next2 + 2 * load<f64>(record + ACCELERATION) * load<f64>(record + LENGTH);
    const cap2 = load<f64>(record + CAP2);
    next2 = reach < cap2 ? reach : cap2;
    store<f64>(record + BACK2, next2);
  }
}

/** Makes the first `done` blocks final and books them. */
function forward(done: i32): void {
  let into2 = entry2;
  let into = sqrt(into2);
  let isHeld = entryHeld;
  let record = blocks;
  for (let at = 0; at < done; at += 1) {
    const length = load<f64>(record + LENGTH);
    const acceleration = load<f64>(record + ACCELERATION);
    let out2: f64 = 0;
    let out: f64 = 0;
    let isOutHeld = false;
    if (at + 1 < count) {
      const next = record + RECORD;
      const reach = into2 + 2 * acceleration * length;
      const back2 = load<f64>(next + BACK2);
      out2 = reach < back2 ? reach : back2;
      out = sqrt(out2);
      isOutHeld =
        (load<i32>(next + FLAGS) & CORNER_HELD) !== 0 &&
        out2 >= load<f64>(next + CAP2) * (1 - 1e-12);
    }
    const flags = load<i32>(record + FLAGS);
    book(
      length,
      load<f64>(record + NOMINAL),
      acceleration,
      load<f64>(record + COMMANDED),
      load<f64>(record + PER_MM),
      into,
      out,
      isHeld,
      isOutHeld,
      flags >> BOUND_SHIFT,
      load<i32>(record + ROLE),
      load<i32>(record + NOTED),
      load<i32>(record + MOVED),
      (flags & EXTRUDES) !== 0,
      (flags & EXTRUDES_XY) !== 0,
    );
    into2 = out2;
    into = out;
    isHeld = isOutHeld;
    record += RECORD;
  }
  entry2 = into2;
  entryHeld = isHeld;
}

/** Makes room: books the blocks that are final already, or lets the queue grow. */
function relieve(): void {
  // One backward pass carries both ends' speeds, until they agree: before that joint all is final.
  const last = blocks + <usize>(count - 1) * RECORD;
  const nominal = load<f64>(last + NOMINAL);
  let next2: f64 = 0;
  let free2 = nominal * nominal;
  let record = last;
  let joint: i32 = count - 1;
  while (joint > 0) {
    const gain = 2 * load<f64>(record + ACCELERATION) * load<f64>(record + LENGTH);
    const cap2 = load<f64>(record + CAP2);
    next2 = next2 + gain < cap2 ? next2 + gain : cap2;
    free2 = free2 + gain < cap2 ? free2 + gain : cap2;
    store<f64>(record + BACK2, next2);
    if (next2 === free2) break;
    record -= RECORD;
    joint -= 1;
  }
  if (joint > 0) {
    for (let earlier = record - RECORD; earlier > blocks; earlier -= RECORD) {
      const reach = next2 + 2 * load<f64>(earlier + ACCELERATION) * load<f64>(earlier + LENGTH);
      const cap2 = load<f64>(earlier + CAP2);
      next2 = reach < cap2 ? reach : cap2;
      store<f64>(earlier + BACK2, next2);
    }
    forward(joint);
    memory.copy(blocks, blocks + <usize>joint * RECORD, <usize>(count - joint) * RECORD);
    count -= joint;
  }
  if (count > capacity / 2) grow();
}

function grow(): void {
  const to = heap.alloc(<usize>capacity * 2 * RECORD);
  memory.copy(to, blocks, <usize>count * RECORD);
  capacity *= 2;
  blocks = to;
}
