import type { Study } from './study';
import { groupBy } from './grouping';
import type { Print } from './tables';

/** How the prints of a study are kept apart before anything is averaged. */
export interface Strata {
  /** The type of material of a print; of several materials their types, sorted, joined by `+`. */
  typeOf(print: Print): string;
  /**
   * What a print is a repeat of: its artefact in its type of material, `artefact/type`. Where materials
   * are what is compared, its artefact.
   */
  stratumOf(print: Print): string;
}

/** The strata of a study's prints. */
export function strataOf({ meta, tables }: Study): Strata {
  const types = new Map(tables.materials.map((row) => [row.material_id, row.type]));
  const slots = groupBy(tables.print_materials, (row) => row.print_id);
  const typeOf = (print: Print): string => {
    const own = slots.get(print.print_id) ?? [print];
    return [...new Set(own.map((row) => types.get(row.material_id) ?? ''))].sort().join('+');
  };
  const isByArtefact = meta.intent === 'materials';
  const strata = new Map(
    tables.prints.map((print) => [
      print.print_id,
      isByArtefact ? print.artefact_id : `${print.artefact_id}/${typeOf(print)}`,
    ]),
  );
  return { typeOf, stratumOf: (print) => strata.get(print.print_id) ?? print.artefact_id };
}

/** The artefact and the type of material of a stratum; the type is null where strata are artefacts. */
export function partsOfStratum(stratum: string): { artefact_id: string; type: string | null } {
  const at = stratum.indexOf('/');
  return at < 0
    ? { artefact_id: stratum, type: null }
    : { artefact_id: stratum.slice(0, at), type: stratum.slice(at + 1) };
}
