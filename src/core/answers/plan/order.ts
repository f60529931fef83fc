import { seededDraws, shuffled } from '../../statistics/stats';
import { groupBy, type Row } from '../../model/study';

/** One print that is to be made. */
export interface PlannedPrint {
  contender_id: string;
  artefact_id: string;
  material_id: string;
  repeat: number;
  /** The block within which the order was drawn, from 1. */
  block: number;
}

/** How the run order is drawn. */
export interface OrderOptions {
  /** The same seed gives the same order. */
  seed: number;
  /** What must not favour anyone: a lot of material, a repeat of everything, or a day. */
  block_by: 'repeat' | 'lot' | 'day';
  /** Prints that a day holds, for blocks by day. */
  prints_per_day: number;
  /** How often each dimension of a specimen is read. */
  readings?: number | undefined;
}

export const USUAL_ORDER: OrderOptions = { seed: 1, block_by: 'repeat', prints_per_day: 8 };

/**
 * The order of all planned prints: shuffled within blocks, so that what drifts from block to block
 * (a lot, a day, wear) falls on every contender alike. Every block by repeat holds each cell once.
 *
 * @see Fisher, The Design of Experiments, 1935 (randomised blocks)
 */
export function runOrder(
  planned: readonly Row<'planned'>[],
  options: OrderOptions,
): PlannedPrint[] {
  const draws = seededDraws(options.seed);
  const all = numbered(planned);
  // Every cell counts from 1, so that rounds come in their order.
  const byRepeat = (prints: readonly Omit<PlannedPrint, 'block'>[]) =>
    [...groupBy(prints, (print) => print.repeat).values()].map((round) => shuffled(round, draws));
  const blocks =
    options.block_by === 'lot'
      ? [...groupBy(all, (print) => print.material_id).values()].map((lot) => shuffled(lot, draws))
      : options.block_by === 'repeat'
        ? byRepeat(all)
        : inDays(byRepeat(all).flat(), options.prints_per_day);
  return blocks.flatMap((block, at) => block.map((print) => ({ ...print, block: at + 1 })));
}

/** Repeats of a contender's artefact are numbered through all materials. */
function numbered(planned: readonly Row<'planned'>[]): Omit<PlannedPrint, 'block'>[] {
  const made = new Map<string, number>();
  return planned.flatMap(({ contender_id, artefact_id, material_id, repeats }) => {
    const cell = `${contender_id} ${artefact_id}`;
    const before = made.get(cell) ?? 0;
    made.set(cell, before + repeats);
    return Array.from({ length: repeats }, (_, at) => ({
      contender_id,
      artefact_id,
      material_id,
      repeat: before + at + 1,
    }));
  });
}

function inDays<Item>(prints: readonly Item[], perDay: number): Item[][] {
  const days: Item[][] = [];
  for (let from = 0; from < prints.length; from += perDay) {
    days.push(prints.slice(from, from + perDay));
  }
  return days;
}
