import { recordOf } from '../model/study';
import type { MachineRecord } from './machine';

export type LimitSource = 'machine' | 'file' | 'default';

/** A limit as it stands, and who set it. */
export interface Limit {
  value: number;
  source: LimitSource;
}

export const AXIS_NAMES = ['x', 'y', 'z', 'e'] as const;
export type AxisName = (typeof AXIS_NAMES)[number];

const DEFAULT_SPEED: Record<AxisName, number> = { x: 300, y: 300, z: 12, e: 50 };
const DEFAULT_ACCELERATION: Record<AxisName, number> = { x: 3000, y: 3000, z: 200, e: 5000 };
const DEFAULT_MOVE_ACCELERATION = 1500;
const DEFAULT_JUNCTION_DEVIATION = 0.02;

type MoveKind = 'print' | 'travel' | 'retract';

/**
 * The limits of motion: from the machine's record, else a default; the file changes them from its
 * line on, speeds and accelerations never above what the machine's record says. Lengths in mm.
 */
export class Limits {
  /** Axis speeds x, y, z, e in mm/s. */
  readonly speed: Record<AxisName, Limit>;
  /** Axis accelerations x, y, z, e in mm/s². */
  readonly acceleration: Record<AxisName, Limit>;
  readonly move: Record<MoveKind, Limit>;
  junctionDeviation: Limit;
  /** Per-axis jerk in mm/s where it takes the place of junction deviation; a missing axis is free. */
  jerk: Partial<Record<AxisName, Limit>> | null;

  constructor(readonly machine: MachineRecord) {
    const first = (value: number | undefined, fallback: number): Limit =>
      value === undefined ? { value: fallback, source: 'default' } : { value, source: 'machine' };
    const eachAxis = (
      given: Partial<Record<AxisName, number | undefined>> | undefined,
      fallback: Record<AxisName, number>,
    ) => recordOf(AXIS_NAMES, (axis) => first(given?.[axis], fallback[axis]));
    this.speed = eachAxis(machine.max_speed_mm_s, DEFAULT_SPEED);
    this.acceleration = eachAxis(machine.max_accel_mm_s2, DEFAULT_ACCELERATION);
    this.move = {
      print: first(machine.accel_print, DEFAULT_MOVE_ACCELERATION),
      travel: first(machine.accel_travel, DEFAULT_MOVE_ACCELERATION),
      retract: first(machine.accel_retract, DEFAULT_MOVE_ACCELERATION),
    };
    this.junctionDeviation = first(machine.junction_deviation_mm, DEFAULT_JUNCTION_DEVIATION);
    this.jerk = null;
    if (machine.jerk_mm_s) {
      const jerk: Partial<Record<AxisName, Limit>> = {};
      for (const axis of AXIS_NAMES) {
        const value = machine.jerk_mm_s[axis];
        if (value !== undefined) jerk[axis] = { value, source: 'machine' };
      }
      this.jerk = jerk;
    }
  }

  setSpeed(axis: AxisName, value: number): void {
    setBelow(this.speed[axis], value, this.machine.max_speed_mm_s?.[axis]);
  }

  setAcceleration(axis: AxisName, value: number): void {
    setBelow(this.acceleration[axis], value, this.machine.max_accel_mm_s2?.[axis]);
  }

  setMove(kind: MoveKind, value: number): void {
    const ceilings = {
      print: this.machine.accel_print,
      travel: this.machine.accel_travel,
      retract: this.machine.accel_retract,
    };
    setBelow(this.move[kind], value, ceilings[kind]);
  }

  setJunctionDeviation(value: number): void {
    this.junctionDeviation = { value, source: 'file' };
    this.jerk = null;
  }

  setJerk(axis: AxisName, value: number): void {
    this.jerk ??= {};
    this.jerk[axis] = { value, source: 'file' };
  }

  /** The limits as they stand, with the keys of the machine's record. */
  describe(): Record<string, Limit | Partial<Record<AxisName, Limit>>> {
    const copy = (limits: Partial<Record<AxisName, Limit>>) =>
      Object.fromEntries(Object.entries(limits).map(([axis, limit]) => [axis, { ...limit }]));
    return {
      max_speed_mm_s: copy(this.speed),
      max_accel_mm_s2: copy(this.acceleration),
      accel_print: { ...this.move.print },
      accel_travel: { ...this.move.travel },
      accel_retract: { ...this.move.retract },
      ...(this.jerk
        ? { jerk_mm_s: copy(this.jerk) }
        : { junction_deviation_mm: { ...this.junctionDeviation } }),
    };
  }
}

/** Sets a limit from the file, held at the machine's ceiling; 0 and less are ignored. */
function setBelow(limit: Limit, value: number, ceiling: number | undefined): void {
  if (!(value > 0) || !Number.isFinite(value)) return;
  const isCapped = ceiling !== undefined && value > ceiling;
  limit.value = isCapped ? ceiling : value;
  limit.source = isCapped ? 'machine' : 'file';
}
