import { compiledCode, compiledExports } from '../../model/compiled';
import { CODE } from './code';

type Number64 = { readonly value: number };

/** What the compiled loop tells while it runs: rarely, never for each line. */
export interface Listener {
  /** @param which 0 for layers by the file's own word, 1 for those by motion alone */
  layerIsOver(
    which: number,
    layer: number,
    time: number,
    extruding: number,
    filament: number,
  ): void;
  layerOpened(top: number): void;
  notedTop(top: number): void;
  accelerationSeen(acceleration: number): void;
}

/** The compiled loop: its source is in `assembly/`, its functions are described there. */
export interface Compiled {
  readonly memory: WebAssembly.Memory;
  // Reading.
  readonly input: Number64;
  readonly room: Number64;
  readonly lines: Number64;
  readonly lineStart: Number64;
  readonly lineEnd: Number64;
  run(from: number, to: number): number;
  // Moves.
  setModes(isAbsolute: number, isAbsoluteE: number, mmPerUnit: number): void;
  setFactors(feed: number, flow: number): void;
  setMoveRoles(travel: number, retract: number): void;
  home(axes: number): void;
  shift(has: number, x: number, y: number, z: number, e: number): void;
  line(has: number, x: number, y: number, z: number, e: number, f: number): void;
  arc(isClockwise: number, has: number, ...xyzefijr: number[]): number;
  moveFilament(e: number, speed: number): void;
  rest(): void;
  // Limits.
  setSpeeds(x: number, y: number, z: number, e: number): void;
  setAccelerations(x: number, y: number, z: number, e: number): void;
  setMoves(print: number, travel: number, retract: number): void;
  setDeviation(mm: number): void;
  setJerks(x: number, y: number, z: number, e: number): void;
  // Ways.
  setRoles(adhesion: number, prime: number): void;
  setNotes(role: number, layer: number, wantsTop: number): void;
  setTool(sum: number, highest: number): void;
  takeMoved(): number;
  bookRetract(isBack: number): void;
  readonly travel: Number64;
  readonly extruded: Number64;
  readonly retractions: Number64;
  readonly retracted: Number64;
  readonly purged: Number64;
  readonly hasMotion: Number64;
  readonly minX: Number64;
  readonly minY: Number64;
  readonly minZ: Number64;
  readonly maxX: Number64;
  readonly maxY: Number64;
  readonly maxZ: Number64;
  readonly runSum: Number64;
  readonly runHighest: Number64;
  // Times.
  setClaim(speed: number): void;
  endLayers(): void;
  timeOfRole(role: number): number;
  planeTimeOfRole(role: number): number;
  roleAt(place: number): number;
  readonly roleCount: Number64;
  readonly moving: Number64;
  readonly constant: Number64;
  readonly heldCommand: Number64;
  readonly heldAxis: Number64;
  readonly heldAcceleration: Number64;
  readonly heldCorner: Number64;
  readonly commandedMax: Number64;
  readonly reachedMax: Number64;
  readonly filamentCommandedMax: Number64;
  readonly filamentReachedMax: Number64;
  readonly extrudingXy: Number64;
  readonly atCommanded: Number64;
  readonly atClaim: Number64;
  // Distributions.
  binCount(which: number): number;
  binsOf(which: number): number;
  highestOf(which: number): number;
}

/** The name of a number that the loop keeps. */
export type Sum = {
  [Name in keyof Compiled]: Compiled[Name] extends Number64 ? Name : never;
}[keyof Compiled];

/** Compiled once for all files; null where this place may not compile. */
let module: WebAssembly.Module | null | undefined;

/** Whether the compiled loop can be used here. */
export function canCompile(): boolean {
  if (module === undefined) module = compiledCode(CODE);
  return module !== null;
}

/** A loop of its own for one file. @throws Error where `canCompile` says no */
export function instantiate(listener: Listener): Compiled {
  if (!canCompile() || !module) throw new Error('nothing may be compiled here');
  const { atan2, cos, sin, hypot } = Math;
  return compiledExports<Compiled>(module, {
    reader: { ...listener, atan2, cos, sin, hypot },
  });
}
