import { Distribution } from './distribution';
import { LayerSums } from './layer-sums';
import { BOUND_AXIS, BOUND_CORNER, type Planned } from './planner';
import { ROLES } from './roles';

/** Width of the bins of speeds, mm/s. */
export const SPEED_BIN = 0.1;
/** Of filament speeds, mm/s: the flow in volume follows when the diameter is known. */
export const FILAMENT_BIN = 0.002;

/** Time and speeds of one role's moves that extrude in the plane. */
export interface RoleSpeeds {
  commanded: Distribution;
  reached: Distribution;
  time_s: number;
}

/** Adds up planned moves: exact times, and how they are spread over speeds and flows. */
export class Tally {
  moving_s = 0;
  constant_s = 0;
  readonly byRole = new Float64Array(ROLES.length);
  /** By the file's own layers, and by those that motion alone tells. */
  readonly noted = new LayerSums();
  readonly moved = new LayerSums();
  readonly heldBack = { command: 0, axis_speed: 0, acceleration: 0, corner: 0 };
  readonly filamentCommanded = new Distribution(FILAMENT_BIN);
  readonly filamentReached = new Distribution(FILAMENT_BIN);
  readonly roles = new Map<number, RoleSpeeds>();
  commandedMax = 0;
  reachedMax = 0;
  filamentCommandedMax = 0;
  filamentReachedMax = 0;
  extrudingXy_s = 0;
  atCommanded_s = 0;
  atClaim_s = 0;

  /** @param claim the claimed speed in mm/s, or null */
  constructor(readonly claim: number | null) {}

  readonly add = (move: Planned): void => {
    const { length, nominal, acceleration, entry, exit } = move;
    const up = (nominal * nominal - entry * entry) / (2 * acceleration);
    const down = (nominal * nominal - exit * exit) / (2 * acceleration);
    let peak = nominal;
    let cruise_s = 0;
    if (up + down < length) cruise_s = (length - up - down) / nominal;
    else {
      peak = Math.sqrt((entry * entry + exit * exit) / 2 + acceleration * length);
      peak = Math.min(nominal, Math.max(peak, entry, exit));
    }
    const rise_s = (peak - entry) / acceleration;
    const fall_s = (peak - exit) / acceleration;
    const time = rise_s + cruise_s + fall_s;
    this.moving_s += time;
    this.constant_s += length / nominal;
    this.byRole[move.role] = (this.byRole[move.role] ?? 0) + time;
    const extruding = move.extrudes ? time : 0;
    const filament = move.extrudes ? move.e * length : 0;
    this.noted.add(move.layerNoted, time, extruding, filament);
    this.moved.add(move.layerMoved, time, extruding, filament);
    if (!move.extrudes) return;
    this.#holdBack(move, rise_s, cruise_s, fall_s);
    this.#flows(move, peak, rise_s, cruise_s, fall_s, time);
    if (move.extrudesXy) this.#speeds(move, peak, rise_s, cruise_s, fall_s, time);
  };

  #holdBack(move: Planned, rise_s: number, cruise_s: number, fall_s: number): void {
    const held = this.heldBack;
    if (move.entryHeld) held.corner += rise_s;
    else held.acceleration += rise_s;
    if (move.exitHeld) held.corner += fall_s;
    else held.acceleration += fall_s;
    if (move.bound === BOUND_AXIS) held.axis_speed += cruise_s;
    else if (move.bound === BOUND_CORNER) held.corner += cruise_s;
    else held.command += cruise_s;
  }

  #flows(
    move: Planned,
    peak: number,
    rise_s: number,
    cruise_s: number,
    fall_s: number,
    time: number,
  ): void {
    const { e } = move;
    this.filamentCommanded.addPoint(move.commanded * e, time);
    this.filamentCommandedMax = Math.max(this.filamentCommandedMax, move.commanded * e);
    this.filamentReachedMax = Math.max(this.filamentReachedMax, peak * e);
    const { entry, exit } = move;
    spread(this.filamentReached, entry * e, exit * e, peak * e, rise_s, cruise_s, fall_s);
  }

  #speeds(
    move: Planned,
    peak: number,
    rise_s: number,
    cruise_s: number,
    fall_s: number,
    time: number,
  ): void {
    const { commanded, entry, exit } = move;
    let role = this.roles.get(move.role);
    if (!role) {
      role = {
        commanded: new Distribution(SPEED_BIN),
        reached: new Distribution(SPEED_BIN),
        time_s: 0,
      };
      this.roles.set(move.role, role);
    }
    role.time_s += time;
    role.commanded.addPoint(commanded, time);
    this.commandedMax = Math.max(this.commandedMax, commanded);
    this.reachedMax = Math.max(this.reachedMax, peak);
    spread(role.reached, entry, exit, peak, rise_s, cruise_s, fall_s);
    this.extrudingXy_s += time;
    this.atCommanded_s += timeAbove(0.95 * commanded, move, peak, cruise_s);
    if (this.claim !== null) {
      this.atClaim_s += timeAbove(0.95 * this.claim, move, peak, cruise_s);
    }
  }
}

/** The speeds of all roles together. */
export function allSpeeds(
  roles: ReadonlyMap<number, RoleSpeeds>,
): Pick<RoleSpeeds, 'commanded' | 'reached'> {
  const all = { commanded: new Distribution(SPEED_BIN), reached: new Distribution(SPEED_BIN) };
  for (const { commanded, reached } of roles.values()) {
    all.commanded.addAll(commanded);
    all.reached.addAll(reached);
  }
  return all;
}

/** Puts a trapezoid of time into a distribution: two ramps and what is constant between them. */
function spread(
  into: Distribution,
  entry: number,
  exit: number,
  peak: number,
  rise_s: number,
  cruise_s: number,
  fall_s: number,
): void {
  if (rise_s > 0) into.addSpread(entry, peak, rise_s);
  if (cruise_s > 0) into.addPoint(peak, cruise_s);
  if (fall_s > 0) into.addSpread(exit, peak, fall_s);
}

/** Time of a move at or above a speed. */
function timeAbove(speed: number, move: Planned, peak: number, cruise_s: number): number {
  if (peak < speed * (1 - 1e-9)) return 0;
  const rise = Math.max(0, peak - Math.max(move.entry, speed));
  const fall = Math.max(0, peak - Math.max(move.exit, speed));
  return (rise + fall) / move.acceleration + cruise_s;
}
