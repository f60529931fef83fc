import type { Dimension, Row, Specimen, Tables } from '../../src/core/model/study';
import { CHARACTERS, type Character } from './lineup';
import { round, type Draws } from './random';
import { uidOf } from './things';

/** Repeatability of a caliper in practised hands, mm. */
const READING_SD = 0.011;

const ZERO = { 'caliper-1': 0, 'caliper-2': 0.01 } as const;

/** The specimens that nobody has measured yet: evidence is missing, and shown so. */
const UNMEASURED_PRINTS = 2;

/** The two calipers of the bench, as their certificates say. */
export const calipers = (): Row<'instruments'>[] =>
  ([1, 2] as const).map((number) => ({
    instrument_id: `caliper-${number}`,
    name: `Caliper ${number}`,
    kind: 'caliper',
    resolution_mm: 0.01,
    expanded_uncertainty_mm: 0.03,
    zero_mm: ZERO[`caliper-${number}`],
    serial: null,
    certificate: '2025-08',
    uid: uidOf('instrument', `caliper-${number}`),
  }));

/** Whose parts are measured, and by whom. */
interface Hands {
  characters: readonly Character[];
  /** How many of the last stair blocks nobody has measured yet. */
  left: number;
  /** Who reads everything; by turns where it is not said. */
  by?: 'KM' | 'TS';
}

/** Readings by caliper, with what each contender's character does to a part. */
export function measured(
  draws: Draws,
  tables: Pick<Tables, 'prints' | 'specimens' | 'dimensions'>,
  { characters, left, by }: Hands = { characters: CHARACTERS, left: UNMEASURED_PRINTS },
): Pick<Tables, 'instruments' | 'readings' | 'unmeasured'> {
  const readings: Row<'readings'>[] = [];
  const unmeasured: Row<'unmeasured'>[] = [];
  const prints = new Map(tables.prints.map((print) => [print.print_id, print]));
  const blocks = tables.prints.filter(
    (print) => print.artefact_id === 'stair-block' && print.outcome === 'success',
  );
  const skipped = new Set(blocks.slice(blocks.length - left).map((print) => print.print_id));
  const shifts = new Map(tables.prints.map((print) => [print.print_id, draws.noise(1)]));
  for (const specimen of tables.specimens) {
    const print = prints.get(specimen.print_id);
    const character = characters.find((own) => own.contender === print?.contender_id);
    if (!print || !character || skipped.has(print.print_id)) continue;
    const shift = (shifts.get(print.print_id) ?? 0) * character.betweenPrints;
    const dimensions = tables.dimensions.filter((row) => row.artefact_id === print.artefact_id);
    const isTile = print.artefact_id === 'tile-field';
    for (const dimension of dimensions) {
      if (
        dimension.dimension_id === 'hole-5' &&
        character.contender === 'D-stock' &&
        print.repeat === 2
      ) {
        unmeasured.push({
          specimen_id: specimen.specimen_id,
          dimension_id: dimension.dimension_id,
          reason: 'closed by a drooped rim',
          operator: 'TS',
          at: print.ended_at,
        });
        continue;
      }
      const truth = trueSize(draws, character, dimension, specimen, shift);
      const trials = isTile ? 1 : 2;
      readings.push(...read(draws, specimen, dimension, truth, trials, print, by));
    }
  }
  const slip = readings.find((row) => row.dimension_id === 'x4' && row.trial === 2);
  if (slip) {
    readings.push({ ...slip, value_mm: round(slip.value_mm - 10, 2), superseded_at: slip.at });
  }
  return {
    instruments: calipers(),
    readings,
    unmeasured,
  };
}

function trueSize(
  draws: Draws,
  own: Character,
  dimension: Dimension,
  specimen: Specimen,
  shift: number,
): number {
  const { nominal_mm: nominal, kind, axis } = dimension;
  const isInner = kind === 'internal' || kind === 'hole';
  const scale = axis === 'z' ? own.scaleZ : own.scaleXy;
  const walls = axis === 'z' ? 0 : (isInner ? -1 : 1) * (own.walls + shift);
  const heights = axis === 'z' ? own.heights + shift : 0;
  const tilt =
    axis === 'z'
      ? ((specimen.plate_x_mm ?? 0) * own.tiltX + (specimen.plate_y_mm ?? 0) * own.tiltY) / 100
      : 0;
  const holes = kind === 'hole' ? own.holes : 0;
  return nominal * (1 + scale) + walls + heights + tilt + holes + draws.noise(own.withinPrint);
}

function read(
  draws: Draws,
  specimen: Specimen,
  dimension: Dimension,
  truth: number,
  trials: number,
  print: Row<'prints'>,
  by: 'KM' | 'TS' | undefined,
): Row<'readings'>[] {
  const operator = by ?? (print.repeat % 2 === 1 ? 'KM' : 'TS');
  const instrument_id = operator === 'KM' ? 'caliper-1' : 'caliper-2';
  return Array.from({ length: trials }, (_, at) => ({
    specimen_id: specimen.specimen_id,
    dimension_id: dimension.dimension_id,
    trial: at + 1,
    value_mm: round(truth + ZERO[instrument_id] + draws.noise(READING_SD), 2),
    instrument_id,
    operator,
    at: print.ended_at,
    superseded_at: null,
  }));
}
