import { printHours } from '../reliability';
import { sumOf } from '../../statistics/stats';
import type { Machine, Row, StudyIndex } from '../../model/study';

type EquipmentKind = Row<'equipment'>['kind'];

/** A sum of money that may not be known, and why. */
export interface Sum {
  value: number | null;
  notes: string[];
}

/**
 * What a machine costs before it prints: its price, with what is needed beside it and its delivery, in its own
 * currency.
 */
export function priceEquipped(index: StudyIndex, machine: Machine): Sum {
  const price = machine.price_paid ?? machine.price_list;
  if (price === null) return { value: null, notes: ['price of the machine not known'] };
  const extra = priceOf(index, machine, ['needed', 'delivery']);
  return { value: extra.value === null ? null : price + extra.value, notes: extra.notes };
}

/** What wears out for each hour of printing, over all that the machine has printed so far. */
export function upkeepPerHour(index: StudyIndex, machine: Machine): Sum {
  const spares = priceOf(index, machine, ['spare']);
  if (spares.value === null || spares.value === 0) return spares;
  const contenders = index.study.tables.contenders.filter(
    (row) => row.machine_id === machine.machine_id,
  );
  const prints = contenders.flatMap((row) => index.printsOfContender.get(row.contender_id) ?? []);
  const hours = sumOf(prints, (print) => printHours(print) ?? 0) + (machine.hours_before ?? 0);
  if (hours === 0) return { value: null, notes: ['no hours to share the spares over'] };
  return { value: spares.value / hours, notes: [] };
}

/** What equipment of some kinds costs, in the machine's currency; null where one is in another. */
function priceOf(index: StudyIndex, machine: Machine, kinds: readonly EquipmentKind[]): Sum {
  const rows = index.study.tables.equipment.filter(
    (row) => row.machine_id === machine.machine_id && kinds.includes(row.kind),
  );
  const { currency } = machine;
  const foreign = rows.find(
    (row) => row.currency !== null && currency !== null && row.currency !== currency,
  );
  return foreign
    ? {
        value: null,
        notes: [`${foreign.item} is priced in ${foreign.currency}, the machine in ${currency}`],
      }
    : { value: sumOf(rows, (row) => row.price), notes: [] };
}
