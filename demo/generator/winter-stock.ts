import type { Row, Study } from '../../src/core/model/study';
import type { DemoPart } from './artefacts';
import { smallStudy, type PlannedBlock } from './blocks';
import { CHARACTERS, lineup } from './lineup';
import { drawsFrom } from './random';
import { uidOf } from './things';

const SEED = 2611;

const material = (
  material_id: string,
  type: string,
  colour: string,
  lot: string,
  [density_g_cm3, price_per_kg]: readonly [number, number],
): Row<'materials'> => ({
  material_id,
  type,
  maker: 'Ropewalk',
  colour,
  lot,
  diameter_mm: 1.75,
  density_g_cm3,
  price_per_kg,
  currency: 'EUR',
  uid: uidOf('material', material_id),
});

const print = (
  artefact: PlannedBlock['artefact'],
  material: string,
  day: number,
  hour: number,
  outcome: PlannedBlock['outcome'] = 'success',
): PlannedBlock => ({
  contender: 'B-stock',
  artefact,
  material,
  outcome,
  firmware: '1.9.2',
  start: `2026-10-${String(day).padStart(2, '0')}T${String(hour).padStart(2, '0')}:00:00+02:00`,
  ...(artefact === 'stair-block'
    ? { estimate_s: 1760, grams: 25.5 }
    : { estimate_s: 520, grams: 5.5 }),
});

/** What went wrong. */
const INCIDENTS: Row<'incidents'>[] = [
  {
    incident_id: 'W-I-1',
    machine_id: 'gannet',
    print_id: 'W-10',
    progress_pct: 22,
    at: '2026-10-15T13:04:00+02:00',
    mode: 'clogged',
    cause: 'material',
    action: 'nozzle cleaned',
    downtime_s: 1500,
    hands_s: 900,
    note: 'grit in the spool',
  },
  {
    incident_id: 'W-I-2',
    machine_id: 'gannet',
    print_id: 'W-12',
    progress_pct: 22,
    at: '2026-10-19T13:04:00+02:00',
    mode: 'detached',
    cause: 'machine',
    action: 'chamber warmed first',
    downtime_s: 1800,
    hands_s: 300,
    note: null,
  },
];

/** What helped. */
const FOLLOW_UPS: Row<'follow_ups'>[] = [
  {
    follow_up_id: 'abs-corner',
    print_before: 'W-12',
    print_after: 'W-13',
    suspect: 'environment',
    changed: 'chamber warmed for half an hour before the start',
    outcome: 'gone',
    finding: 'warping',
    note: null,
  },
  {
    follow_up_id: 'petg-grit',
    print_before: 'W-10',
    print_after: 'W-11',
    suspect: 'material',
    changed: 'another material, and the nozzle was cleaned',
    outcome: 'gone',
    finding: null,
    note: 'two things at once: which it was is not known',
  },
];

/** The winter's stock: the Gannet again, after its update, with materials that it had not tried. */
export function winterStock(parts: readonly DemoPart[]): Study {
  const all = lineup();
  const study = smallStudy(drawsFrom(SEED), {
    meta: {
      name: 'winter-stock',
      title: 'Winter stock run on the Gannet',
      description:
        'Seven months later, on the updated machine: does it still print as true, and what else ' +
        'can it print? Everything in this study is invented.',
      created: '2026-10-24T17:00:00+02:00',
      intent: 'machines',
      question: 'Is the Gannet as true as in spring, and which other materials can it print?',
      reference: 'B-stock',
      smallest_difference: { accuracy_mm: 0.03, surface: 5, time_pct: 5 },
      cost: null,
      scorecard: null,
    },
    letters: ['W', 'W4'],
    parts,
    operator: 'KM',
    characters: CHARACTERS.filter((own) => own.contender === 'B-stock').map((own) => ({
      ...own,
      betweenPrints: 0.011,
    })),
    prints: [
      ...[12, 13, 14, 15, 16, 17].map((day) => print('stair-block', 'pla-0611', day, 8)),
      ...[12, 13, 14].map((day) => print('spire-pair', 'petg-0630', day, 13)),
      print('spire-pair', 'petg-0630', 15, 13, 'failed'),
      print('spire-pair', 'abs-0102', 19, 9),
      print('spire-pair', 'abs-0102', 19, 13, 'failed'),
      ...[9, 13].map((hour) => print('spire-pair', 'abs-0102', 20, hour)),
      ...[10, 14].map((hour) => print('spire-pair', 'tpu-0077', 22, hour)),
    ],
    rows: {
      machines: all.machines.filter((row) => row.machine_id === 'gannet'),
      profiles: all.profiles.filter((row) => row.profile_id === 'b-stock'),
      profile_settings: all.profile_settings.filter((row) => row.profile_id === 'b-stock'),
      contenders: all.contenders.filter((row) => row.contender_id === 'B-stock'),
      materials: [
        material('pla-0611', 'PLA', 'slate', 'RW-0611', [1.24, 20.5]),
        material('petg-0630', 'PETG', 'clear', 'RW-0630', [1.27, 22]),
        material('abs-0102', 'ABS', 'black', 'RW-0102', [1.04, 24]),
        material('tpu-0077', 'TPU 95A', 'grey', 'RW-0077', [1.21, 31]),
      ],
      machine_changes: [
        {
          change_id: 'gannet-2',
          machine_id: 'gannet',
          at: '2026-10-18T09:00:00+02:00',
          kind: 'part',
          what: 'hardened nozzle',
          operator: 'KM',
        },
      ],
      incidents: INCIDENTS,
      follow_ups: FOLLOW_UPS,
      material_notes: [
        { machine_id: 'gannet', type: 'ABS', needs: 'warm chamber', text: 'lets go without it' },
        { machine_id: 'gannet', type: 'PA-CF', needs: 'hardened nozzle, drying', text: null },
      ],
    },
  });
  const { tables } = study;
  const black = new Set(
    tables.prints.filter((row) => row.material_id === 'abs-0102').map((row) => row.print_id),
  );
  const warm = new Set(
    tables.specimens.filter((row) => black.has(row.print_id)).map((row) => row.specimen_id),
  );
  return {
    ...study,
    tables: {
      ...tables,
      // ABS does not string there; it lifts.
      findings: tables.findings.map((row) =>
        warm.has(row.specimen_id) ? { ...row, defect: 'warping', grade: 2 } : row,
      ),
    },
  };
}
