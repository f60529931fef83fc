import { WrongInputError } from '../model/faults';
import { median } from '../statistics/stats/summary';
import { plainText } from '../model/study';
import { ANNOTATIONS, type AnnotationTable } from './annotations';
import { claimFacts } from './claim';
import type { BadLine, ToolpathFacts } from './facts';
import { Interpreter } from './interpreter';
import { Limits } from './limits';
import { canCompile, HotLines, HotMotion } from './hot';
import { LineSplitter, type LineHandler, type Lines } from './lines';
import type { MachineRecord } from './machine';
import { Notes } from './notes';
import type { Motion, Times, Ways } from './motion';
import { PlainMotion } from './plain-motion';
import { ROLES } from './roles';
import { allSpeeds } from './tally';
import { WordReader, type BrokenReason } from './words';

const MOST_BAD_LINES = 20;
const SHOWN_TEXT = 120;
const USUAL_DIAMETER_MM = 1.75;

/** The file has no motion at all: it is no sliced file. */
export class NoMotionError extends WrongInputError {
  override name = 'NoMotionError';
}

export interface AnalysisOptions {
  /** The file's name, as it is to be shown. */
  file: string;
  machine?: MachineRecord;
  annotations?: AnnotationTable;
  /** `plain` reads every line the slow way that says what is right: for comparison. */
  way?: 'fast' | 'plain';
}

/** Reads a sliced file piece by piece; memory does not grow with it. */
export class ToolpathAnalysis {
  readonly #words = new WordReader();
  readonly #machine: MachineRecord;
  readonly #limits: Limits;
  readonly #notes: Notes;
  readonly #motion: Motion;
  readonly #interpreter: Interpreter;
  readonly #lines: Lines;
  readonly #bad: BadLine[] = [];
  #badCount = 0;

  constructor(readonly options: AnalysisOptions) {
    this.#machine = options.machine ?? {};
    this.#limits = new Limits(this.#machine);
    this.#notes = new Notes(options.annotations ?? ANNOTATIONS);
    const onLine: LineHandler = (bytes, start, end, line, isTooLong) => {
      if (isTooLong) this.#break(bytes, start, end, line, 'too long a line');
      else this.#line(bytes, start, end, line);
    };
    const claim = this.#machine.claimed_speed_mm_s ?? null;
    if (options.way !== 'plain' && canCompile()) {
      const motion = new HotMotion(this.#limits, claim);
      this.#motion = motion;
      this.#lines = new HotLines(motion.compiled, onLine);
    } else {
      this.#motion = new PlainMotion(this.#limits, claim);
      this.#lines = new LineSplitter(onLine);
    }
    this.#interpreter = new Interpreter(this.#limits, this.#motion);
  }

  /** Bytes of text that were read so far. */
  get bytesRead(): number {
    return this.#lines.bytes;
  }

  /** Takes the next piece of the file's text. */
  push(chunk: Uint8Array): void {
    this.#lines.push(chunk);
  }

  /**
   * Ends the file.
   *
   * @param storedBytes bytes of the file as it is stored, where that is not its text
   * @throws NoMotionError
   */
  end(storedBytes = this.#lines.bytes): ToolpathFacts {
    this.#lines.end();
    const { times, ways } = this.#motion.done();
    if (!ways.hasMotion) {
      throw new NoMotionError(`${this.options.file}: no line of it moves anything`);
    }
    return this.#facts(times, ways, storedBytes);
  }

  #line(bytes: Uint8Array, start: number, end: number, line: number): void {
    const words = this.#words;
    const isCommand = words.read(bytes, start, end);
    let why = words.broken;
    if (!why && isCommand && words.isKnown) why = this.#interpreter.execute(words);
    if (why) {
      this.#break(bytes, start, end, line, why);
      return;
    }
    if (isCommand || words.comment < 0) return;
    const notes = this.#notes;
    if (this.#motion.takeMoved()) notes.movedSinceLayer = true;
    notes.read(bytes, words.comment, end);
    this.#motion.note(notes.role, notes.layer);
  }

  #break(bytes: Uint8Array, start: number, end: number, line: number, why: BrokenReason): void {
    this.#badCount += 1;
    if (this.#bad.length >= MOST_BAD_LINES) return;
    const shown = bytes.subarray(start, Math.min(end, start + 4 * SHOWN_TEXT));
    const text = [...new TextDecoder().decode(shown)].slice(0, SHOWN_TEXT).join('');
    this.#bad.push({ line, text: plainText(text), why });
  }

  #facts(tally: Times, travelled: Ways, storedBytes: number): ToolpathFacts {
    const notes = this.#notes;
    const interpreter = this.#interpreter;
    const { settings } = notes;
    const diameter = numberOf(settings.filament_diameter_mm) ?? USUAL_DIAMETER_MM;
    const density = numberOf(settings.filament_density_g_cm3);
    const area = (Math.PI * diameter * diameter) / 4;
    const heights = this.#layerHeights(travelled);
    const isNoted = notes.layer >= 0;
    const layerCount = isNoted ? notes.layer + 1 : travelled.tops.length;
    const tops = isNoted ? travelled.notedTops : travelled.tops;
    const byLayer = (isNoted ? tally.noted : tally.moved).done();
    const speed = speedFacts(tally);
    const min = [...travelled.min];
    const filament_mm3 = travelled.filament_mm * area;
    return {
      file: this.options.file,
      bytes: storedBytes,
      lines: this.#lines.lines,
      bad_lines: this.#bad,
      bad_line_count: this.#badCount,
      limits: this.#limits.describe(),
      time_s: tally.moving_s + interpreter.dwell_s,
      constant_speed_s: tally.constant_s,
      time_by_role_s: Object.fromEntries(
        ROLES.flatMap((role, at) => {
          const time = tally.byRole[at] ?? 0;
          return time > 0 ? [[role, time]] : [];
        }),
      ),
      time_by_layer_s:
        layerCount === 0
          ? []
          : Array.from({ length: layerCount }, (_, at) => byLayer.time[at] ?? 0),
      layer_tops_mm: Array.from({ length: layerCount }, (_, at) => tops[at] ?? null),
      flow_by_layer_mm3_s: Array.from({ length: layerCount }, (_, at) => {
        const time = byLayer.extruding[at] ?? 0;
        const filament = byLayer.filament[at] ?? 0;
        return time > 0 ? (filament * area) / time : null;
      }),
      dwell_s: interpreter.dwell_s,
      held_back_s: { ...tally.heldBack },
      layers: layerCount,
      layer_heights_mm: heightFacts(heights),
      bbox_mm: Number.isFinite(min[0]) ? { min, max: [...travelled.max] } : null,
      filament_mm: travelled.filament_mm,
      filament_mm3,
      filament_g: density === null ? null : (filament_mm3 * density) / 1000,
      travel_mm: travelled.travel_mm,
      extruded_path_mm: travelled.extruded_mm,
      retractions: travelled.retractions,
      retract_mm: travelled.retract_mm,
      tool_changes: travelled.toolChanges,
      purge_mm3: notes.hasPrime ? travelled.purge_mm * area : null,
      speed,
      speed_by_role: Object.fromEntries(
        [...tally.roles].map(([role, own]) => [
          ROLES[role] ?? 'other',
          {
            commanded_p50: own.commanded.percentile(0.5),
            reached_p50: own.reached.percentile(0.5),
            commanded_max: own.commanded.max,
            time_s: own.time_s,
          },
        ]),
      ),
      flow: flowFacts(tally, area),
      accelerations_seen: [...travelled.accelerations].sort((a, b) => a - b),
      temperatures: { nozzle_c: interpreter.nozzleTemps, bed_c: interpreter.bedTemps },
      fan_max_share: interpreter.fanMax,
      settings,
      settings_raw_count: notes.settingsRawCount,
      annotated: notes.self,
      claim: claimFacts(this.#machine, settings, speed, tally, heights),
      notes: density === null ? ['filament density not known: no mass'] : [],
    };
  }

  #layerHeights({ tops, notedTops }: Ways): number[] {
    if (this.#notes.layer < 0) return tops.map((top, at) => top - (tops[at - 1] ?? 0));
    const heights: number[] = [];
    let below = 0;
    for (let at = 0; at <= this.#notes.layer; at += 1) {
      const top = notedTops[at];
      const stated = this.#notes.heights[at] ?? null;
      if (stated !== null) heights.push(stated);
      else if (top !== undefined) heights.push(top - below);
      if (top !== undefined) below = top;
    }
    return heights;
  }
}

const numberOf = (value: unknown): number | null =>
  typeof value === 'number' && value > 0 ? value : null;

/** Speeds in the plane while filament comes, mm/s, weighted by time; null where none came. */
function speedFacts(tally: Times): ToolpathFacts['speed'] {
  const hasExtruded = tally.extrudingXy_s > 0;
  const orNull = (value: number) => (hasExtruded ? value : null);
  const { commanded, reached } = allSpeeds(tally.roles);
  return {
    commanded_max: orNull(tally.commandedMax),
    commanded_p50: commanded.percentile(0.5),
    commanded_p95: commanded.percentile(0.95),
    reached_max: orNull(tally.reachedMax),
    reached_p50: reached.percentile(0.5),
    reached_p95: reached.percentile(0.95),
    at_commanded_share: hasExtruded ? tally.atCommanded_s / tally.extrudingXy_s : null,
    histogram: {
      bin_mm_s: 10,
      commanded_s: commanded.histogram(10),
      reached_s: reached.histogram(10),
    },
  };
}

/** Volume flows, mm³/s, from the filament's speed and its cross-section in mm²; null where none came. */
function flowFacts(tally: Times, area: number): ToolpathFacts['flow'] {
  const hasFlow = tally.filamentCommanded.total > 0;
  const flow = (value: number | null) => (hasFlow && value !== null ? value * area : null);
  return {
    commanded_max: flow(tally.filamentCommandedMax),
    commanded_p95: flow(tally.filamentCommanded.percentile(0.95)),
    reached_max: flow(tally.filamentReachedMax),
    reached_p95: flow(tally.filamentReached.percentile(0.95)),
    reached_p50: flow(tally.filamentReached.percentile(0.5)),
    histogram: { bin_mm3_s: 1, reached_s: tally.filamentReached.histogram(1, area) },
  };
}

/** The layers' heights, mm: of the first, the median, the least and the most; null without layers. */
const heightFacts = (heights: readonly number[]): ToolpathFacts['layer_heights_mm'] => ({
  first: heights[0] ?? null,
  median: heights.length > 0 ? median(heights) : null,
  min: heights.length > 0 ? heights.reduce((a, b) => Math.min(a, b)) : null,
  max: heights.length > 0 ? heights.reduce((a, b) => Math.max(a, b)) : null,
});
