// The limits of motion as they stand, in numbers: who set them is known outside.

/** Infinity where an axis has no jerk of its own. */
export let speedX: f64 = 0;
export let speedY: f64 = 0;
export let speedZ: f64 = 0;
export let speedE: f64 = 0;
export let accelerationX: f64 = 0;
export let accelerationY: f64 = 0;
export let accelerationZ: f64 = 0;
export let accelerationE: f64 = 0;
export let printing: f64 = 0;
export let travelling: f64 = 0;
export let retracting: f64 = 0;
export let deviation: f64 = 0;
export let hasJerk: bool = false;
export let jerkX: f64 = 0;
export let jerkY: f64 = 0;
export let jerkZ: f64 = 0;
export let jerkE: f64 = 0;

export function setSpeeds(x: f64, y: f64, z: f64, e: f64): void {
  speedX = x;
  speedY = y;
  speedZ = z;
  speedE = e;
}

export function setAccelerations(x: f64, y: f64, z: f64, e: f64): void {
  accelerationX = x;
  accelerationY = y;
  accelerationZ = z;
  accelerationE = e;
}

export function setMoves(print: f64, travel: f64, retract: f64): void {
  printing = print;
  travelling = travel;
  retracting = retract;
}

export function setDeviation(mm: f64): void {
  deviation = mm;
  hasJerk = false;
}

export function setJerks(x: f64, y: f64, z: f64, e: f64): void {
  jerkX = x;
  jerkY = y;
  jerkZ = z;
  jerkE = e;
  hasJerk = true;
}
