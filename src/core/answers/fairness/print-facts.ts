import {
  groupBy,
  normaliseSetting,
  type Print,
  type Reading,
  type Settings,
  type SettingValue,
  type StudyIndex,
} from '../../model/study';

export type Fact = SettingValue | null;

/** Reads what a print was made with and under; null where it is not known. */
export interface PrintFacts {
  settings(print: Print): Settings;
  circumstance(print: Print, key: string): Fact;
}

/** Texts of a list, sorted and once each; null of an empty list, and of one that is not all known. */
const listed = (values: Iterable<string>, isUnknown = false): string | null => {
  const distinct = [...new Set(values)].sort();
  return isUnknown || distinct.length === 0 ? null : distinct.join(', ');
};

/** Prepares reading the facts of a study's prints. */
export function printFacts(index: StudyIndex): PrintFacts {
  const { tables, sliced } = index.study;
  const plateUses = new Map(tables.plate_uses.map((row) => [row.print_id, row]));
  /** What is known of a print's materials, in a column; null where it is not known of one. */
  const ofMaterials = (print: Print, column: 'maker' | 'lot' | 'colour'): Fact => {
    const used = index.materialsOfPrint.get(print.print_id) ?? [print];
    const told = used.map((row) => index.materials.get(row.material_id)?.[column] ?? null);
    return listed(
      told.filter((one) => one !== null),
      told.includes(null),
    );
  };
  const profileOf = (print: Print) =>
    index.profiles.get(index.contenders.get(print.contender_id)?.profile_id ?? '');
  const ofProfile = new Map(
    [...groupBy(tables.profile_settings, (row) => row.profile_id)].map(([profile, rows]) => [
      profile,
      Object.fromEntries(rows.map((row) => normaliseSetting(row.key, row.value))) as Settings,
    ]),
  );
  const inspections = groupBy(tables.inspections, (row) => row.specimen_id);
  const instruments = instrumentsOfSpecimens(tables.readings);
  const parts = (print: Print) => index.specimensOfPrint.get(print.print_id) ?? [];
  const machineOf = (print: Print) =>
    index.machines.get(index.contenders.get(print.contender_id)?.machine_id ?? '');
  const kept = new Map<string, Settings>();

  const settingsOf = (print: Print): Settings => {
    const profile = index.contenders.get(print.contender_id)?.profile_id ?? '';
    const key = `${profile} ${print.toolpath ?? ''}`;
    let settings = kept.get(key);
    if (!settings) {
      // The settings in the sliced file count before those of the profile.
      settings = { ...ofProfile.get(profile), ...sliced?.get(print.toolpath ?? '') };
      kept.set(key, settings);
    }
    return settings;
  };

  const circumstances: Readonly<Record<string, (print: Print) => Fact>> = {
    material_type: (print) => index.typeOf(print) || null,
    material_maker: (print) => ofMaterials(print, 'maker'),
    material_lot: (print) => ofMaterials(print, 'lot'),
    material_colour: (print) => ofMaterials(print, 'colour'),
    nozzle_mm: (print) => print.nozzle_mm ?? machineOf(print)?.nozzle_mm ?? null,
    firmware: (print) => print.firmware ?? machineOf(print)?.firmware ?? null,
    plate: (print) => print.plate,
    operator: (print) => print.operator,
    ambient_c: (print) => print.ambient_c,
    copies: (print) => parts(print).length || null,
    positions: (print) => {
      const places = parts(print).map(({ plate_x_mm: x, plate_y_mm: y }) =>
        x === null || y === null ? null : `${x} ${y}`,
      );
      return places.length === 0 || places.includes(null) ? null : places.sort().join(', ');
    },
    // The sliced file names its program; the profile fills in where it does not.
    slicer: (print) => settingsOf(print).slicer ?? profileOf(print)?.slicer ?? null,
    slicer_version: (print) =>
      settingsOf(print).slicer_version?.toString() ?? profileOf(print)?.slicer_version ?? null,
    origin: (print) => profileOf(print)?.origin ?? null,
    speed_mode: (print) => print.speed_mode,
    orientation: (print) => {
      const turns = [...new Set(parts(print).map((part) => part.angle_deg))];
      const known = turns.filter((turn) => turn !== null).sort((a, b) => a - b);
      if (known.length === 0 || known.length < turns.length) return null;
      return known.length === 1 ? (known[0] ?? null) : known.join(', ');
    },
    plate_aid: (print) => {
      const use = plateUses.get(print.print_id);
      return use ? (use.aid ?? 'none') : null;
    },
    inspector: (print) =>
      listed(
        parts(print).flatMap((part) =>
          (inspections.get(part.specimen_id) ?? []).map((row) => row.inspector),
        ),
      ),
    instrument: (print) =>
      listed(parts(print).flatMap((part) => [...(instruments.get(part.specimen_id) ?? [])])),
  };

  return {
    settings: settingsOf,
    circumstance: (print, key) => circumstances[key]?.(print) ?? null,
  };
}

/** The instruments that readings which count were taken with, by specimen. */
function instrumentsOfSpecimens(readings: readonly Reading[]): Map<string, Set<string>> {
  const found = new Map<string, Set<string>>();
  let last: Pick<Reading, 'specimen_id' | 'instrument_id'> = {
    specimen_id: '',
    instrument_id: null,
  };
  for (const row of readings) {
    const { specimen_id, instrument_id, superseded_at } = row;
    if (superseded_at !== null || instrument_id === null) continue;
    // Many in a row are by one hand on one part.
    if (specimen_id === last.specimen_id && instrument_id === last.instrument_id) continue;
    last = row;
    const own = found.get(specimen_id);
    if (own) own.add(instrument_id);
    else found.set(specimen_id, new Set([instrument_id]));
  }
  return found;
}
