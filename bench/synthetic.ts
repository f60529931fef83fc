import { fullRow, emptyTables, TABLE_NAMES, type Study } from '../src/core/model/study';
import { memorySource, readPackage } from '../src/core/model/package';
import { demoFiles } from '../tests/support/demo-files';
import { drawsFrom, round } from '../demo/generator/random';

/**
 * A study of the demo's line-up with many prints and readings: every print one stair block, read
 * until there are enough readings.
 */
export async function syntheticStudy(prints: number, readings: number): Promise<Study> {
  const { content } = await readPackage(memorySource(demoFiles()));
  if (!content) throw new Error('the demo study has faults');
  const demo = content.study;
  const draws = drawsFrom(20_26);
  // What is on the demo's own parts stays with them.
  const { machines, machine_changes, profiles, profile_settings, materials } = demo.tables;
  const { contenders, artefacts, dimensions, instruments } = demo.tables;
  const tables = {
    ...emptyTables(),
    machines,
    machine_changes,
    profiles,
    profile_settings,
    materials,
    contenders,
    artefacts,
    dimensions,
    instruments,
  };
  const sample = demo.tables.prints[0];
  const sizes = demo.tables.dimensions.filter((row) => row.artefact_id === 'stair-block');
  if (!sample) throw new Error('the demo has no prints');
  const perPrint = Math.ceil(readings / prints);
  tables.prints = [];
  tables.specimens = [];
  tables.readings = [];
  for (let at = 0; at < prints; at += 1) {
    const print_id = `P-${at}`;
    const contender = demo.tables.contenders[at % demo.tables.contenders.length];
    tables.prints.push({
      ...sample,
      print_id,
      contender_id: contender?.contender_id ?? '',
      artefact_id: 'stair-block',
      repeat: Math.floor(at / demo.tables.contenders.length) + 1,
      print_s: Math.round(3000 + draws.noise(60)),
    });
    tables.specimens.push(
      fullRow('specimens', {
        specimen_id: `S-${at}`,
        print_id,
        copy: 1,
        plate_x_mm: 0,
        plate_y_mm: 0,
      }),
    );
    for (let n = 0; n < perPrint && tables.readings.length < readings; n += 1) {
      const size = sizes[n % sizes.length];
      if (!size) continue;
      tables.readings.push({
        specimen_id: `S-${at}`,
        dimension_id: size.dimension_id,
        trial: Math.floor(n / sizes.length) + 1,
        value_mm: round(size.nominal_mm + draws.noise(0.05), 2),
        instrument_id: 'caliper-1',
        operator: 'KM',
        at: null,
        superseded_at: null,
      });
    }
  }
  const present = new Set(TABLE_NAMES.filter((name) => tables[name].length > 0));
  return { ...demo, tables, present };
}
