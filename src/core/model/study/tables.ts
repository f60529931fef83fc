import type * as z from 'zod';
import { ARTEFACT_TABLES } from './artefact-tables';
import {
  aftercareRow,
  ballotRow,
  ballotTimeRow,
  claimRow,
  findingRow,
  functionResultRow,
  gaugePlanRow,
  inspectionRow,
  instrumentRow,
  ladderResultRow,
  noiseRow,
  panelNoteRow,
  panelRow,
  panelSetupRow,
  photoMarkRow,
  photoMeasureRow,
  photoRow,
  photoValueRow,
  readingRow,
  unmeasuredRow,
  zeroCheckRow,
} from './rows/evidence';
import {
  borrowedRow,
  checkRow,
  enquiryRow,
  featureRow,
  followUpRow,
  heatUpRow,
  markRow,
  materialNoteRow,
  setupStepRow,
  trialRow,
  verdictFigureRow,
  verdictRow,
} from './rows/dossier';
import {
  acceptedDifferenceRow,
  contenderRow,
  equipmentRow,
  machineChangeRow,
  machineRow,
  materialRow,
  profileRow,
  profileSettingRow,
  spoolRow,
} from './rows/lineup';
import {
  incidentRow,
  openPrintRow,
  plannedRow,
  plateUseRow,
  printEventRow,
  printMaterialRow,
  printRow,
  specimenRow,
  incidentPhotoRow,
} from './rows/prints';
import { ofArtefact, ofPhoto, ofSpecimen, ref, spec, type TableSpec } from './table-spec';

export type { Reference, TableSpec } from './table-spec';

const printReferences = [
  ref('contender_id', 'contenders'),
  ref('artefact_id', 'artefacts'),
  ref('material_id', 'materials'),
];

const ofBallot = [
  ref('panel_id', 'panels'),
  ...['item_1', 'item_2', 'item_3'].map((item) => ref(item, 'specimens')),
];

/** Every table of a study, in an order in which each names only tables before it (or itself). */
export const TABLES = {
  machines: spec({ title: 'machines', row: machineRow, key: ['machine_id'], required: true }),
  profiles: spec({
    title: 'profiles',
    row: profileRow,
    key: ['profile_id'],
    required: true,
    references: [ref('parent_id', 'profiles')],
  }),
  profile_settings: spec({
    title: 'profile settings',
    row: profileSettingRow,
    key: ['profile_id', 'key'],
    references: [ref('profile_id', 'profiles')],
  }),
  materials: spec({ title: 'materials', row: materialRow, key: ['material_id'], required: true }),
  spools: spec({
    title: 'spools',
    row: spoolRow,
    key: ['spool_id'],
    references: [ref('material_id', 'materials')],
  }),
  machine_changes: spec({
    title: 'changes of machines',
    row: machineChangeRow,
    key: ['change_id'],
    references: [ref('machine_id', 'machines')],
  }),
  equipment: spec({
    title: 'equipment',
    row: equipmentRow,
    key: [],
    references: [ref('machine_id', 'machines')],
  }),
  contenders: spec({
    title: 'contenders',
    row: contenderRow,
    key: ['contender_id'],
    required: true,
    references: [
      ref('machine_id', 'machines'),
      ref('profile_id', 'profiles'),
      ref('material_id', 'materials'),
    ],
  }),
  ...ARTEFACT_TABLES,
  planned: spec({
    title: 'planned prints',
    row: plannedRow,
    key: ['contender_id', 'artefact_id', 'material_id'],
    references: printReferences,
  }),
  accepted_differences: spec({
    title: 'accepted differences',
    row: acceptedDifferenceRow,
    key: ['contender_id', 'reference_id', 'artefact_id', 'item'],
    references: [
      ref('contender_id', 'contenders'),
      ref('reference_id', 'contenders'),
      ref('artefact_id', 'artefacts'),
    ],
  }),
  prints: spec({
    title: 'prints',
    row: printRow,
    key: ['print_id'],
    required: true,
    references: printReferences,
  }),
  open_prints: spec({
    title: 'open prints',
    row: openPrintRow,
    key: ['print_id'],
    references: printReferences,
  }),
  print_materials: spec({
    title: 'materials of prints',
    row: printMaterialRow,
    key: ['print_id', 'slot'],
    references: [ref('print_id', 'prints'), ref('material_id', 'materials')],
  }),
  plate_uses: spec({
    title: 'uses of plates',
    row: plateUseRow,
    key: ['print_id'],
    references: [ref('print_id', 'prints')],
  }),
  print_events: spec({
    title: 'events of prints',
    row: printEventRow,
    key: ['event_id'],
    references: [ref('print_id', 'prints')],
  }),
  incidents: spec({
    title: 'incidents',
    row: incidentRow,
    key: ['incident_id'],
    references: [ref('machine_id', 'machines'), ref('print_id', 'prints')],
  }),
  incident_photos: spec({
    title: 'photos of incidents',
    row: incidentPhotoRow,
    key: ['incident_id', 'path'],
    references: [ref('incident_id', 'incidents')],
  }),
  specimens: spec({
    title: 'specimens',
    row: specimenRow,
    key: ['specimen_id'],
    references: [ref('print_id', 'prints')],
  }),
  instruments: spec({ title: 'instruments', row: instrumentRow, key: ['instrument_id'] }),
  readings: spec({
    title: 'readings',
    row: readingRow,
    key: ['specimen_id', 'dimension_id', 'instrument_id', 'operator', 'trial'],
    references: [
      ref('specimen_id', 'specimens'),
      ofSpecimen('dimensions', 'dimension_id'),
      ref('instrument_id', 'instruments'),
    ],
  }),
  unmeasured: spec({
    title: 'dimensions that could not be measured',
    row: unmeasuredRow,
    key: ['specimen_id', 'dimension_id'],
    references: [ref('specimen_id', 'specimens'), ofSpecimen('dimensions', 'dimension_id')],
  }),
  zero_checks: spec({
    title: 'zero checks',
    row: zeroCheckRow,
    key: ['zero_check_id'],
    references: [ref('instrument_id', 'instruments')],
  }),
  gauge_plans: spec({
    title: 'gauge studies',
    row: gaugePlanRow,
    key: ['gauge_plan_id'],
    references: [
      ref('instrument_id', 'instruments'),
      ref('artefact_id', 'artefacts'),
      ofArtefact('dimensions', 'dimension_id'),
    ],
  }),
  ladder_results: spec({
    title: 'ladder results',
    row: ladderResultRow,
    key: ['specimen_id', 'ladder_id', 'step'],
    references: [
      ref('specimen_id', 'specimens'),
      ofSpecimen('ladders', 'ladder_id'),
      ofSpecimen('ladder_steps', 'ladder_id', 'step'),
    ],
  }),
  function_results: spec({
    title: 'function results',
    row: functionResultRow,
    key: ['specimen_id', 'check'],
    references: [ref('specimen_id', 'specimens')],
  }),
  inspections: spec({
    title: 'inspections',
    row: inspectionRow,
    key: ['specimen_id', 'zone_id', 'inspector'],
    references: [ref('specimen_id', 'specimens'), ofSpecimen('zones', 'zone_id')],
  }),
  findings: spec({
    title: 'findings',
    row: findingRow,
    key: ['specimen_id', 'zone_id', 'inspector', 'defect'],
    references: [
      ref('specimen_id', 'specimens'),
      ofSpecimen('zones', 'zone_id'),
      { scope: 'key', columns: ['specimen_id', 'zone_id', 'inspector'], table: 'inspections' },
    ],
  }),
  photos: spec({
    title: 'photos',
    row: photoRow,
    key: ['specimen_id', 'path'],
    references: [ref('specimen_id', 'specimens')],
  }),
  photo_marks: spec({
    title: 'marks of photos',
    row: photoMarkRow,
    key: ['specimen_id', 'path', 'mark'],
    references: [ref('specimen_id', 'specimens'), ofPhoto],
  }),
  photo_measures: spec({
    title: 'measures on photos',
    row: photoMeasureRow,
    key: ['measure_id'],
    references: [ref('specimen_id', 'specimens'), ofPhoto],
  }),
  photo_values: spec({
    title: 'values of measures on photos',
    row: photoValueRow,
    key: ['measure_id', 'key'],
    references: [ref('measure_id', 'photo_measures')],
  }),
  aftercare: spec({
    title: 'after-work',
    row: aftercareRow,
    key: ['specimen_id', 'kind', 'operator'],
    references: [ref('specimen_id', 'specimens')],
  }),
  panels: spec({
    title: 'panels',
    row: panelRow,
    key: ['panel_id'],
    references: [ref('artefact_id', 'artefacts'), ref('target', 'contenders')],
  }),
  ballots: spec({
    title: 'ballots',
    row: ballotRow,
    key: ['panel_id', 'judge', 'item_1', 'item_2', 'item_3'],
    references: ofBallot,
  }),
  claims: spec({
    title: 'claims',
    row: claimRow,
    key: ['claim_id'],
    references: [ref('machine_id', 'machines')],
  }),
  noise: spec({
    title: 'noise levels',
    row: noiseRow,
    key: ['machine_id', 'state', 'distance_m'],
    references: [ref('machine_id', 'machines')],
  }),
  setup_steps: spec({
    title: 'steps of set-up',
    row: setupStepRow,
    key: ['machine_id', 'step'],
    references: [ref('machine_id', 'machines')],
  }),
  checks: spec({
    title: 'checks of machines',
    row: checkRow,
    key: ['check_id'],
    references: [ref('machine_id', 'machines')],
  }),
  heat_ups: spec({
    title: 'heat-ups',
    row: heatUpRow,
    key: [],
    references: [ref('machine_id', 'machines')],
  }),
  trials: spec({
    title: 'trials',
    row: trialRow,
    key: ['trial_id'],
    references: [ref('machine_id', 'machines')],
  }),
  marks: spec({
    title: 'remarks',
    row: markRow,
    key: [],
    references: [ref('machine_id', 'machines')],
  }),
  material_notes: spec({
    title: 'notes on materials',
    row: materialNoteRow,
    key: ['machine_id', 'type'],
    references: [ref('machine_id', 'machines')],
  }),
  features: spec({
    title: 'features of machines',
    row: featureRow,
    key: ['machine_id', 'feature'],
    references: [ref('machine_id', 'machines')],
  }),
  enquiries: spec({
    title: 'enquiries',
    row: enquiryRow,
    key: ['enquiry_id'],
    references: [ref('machine_id', 'machines'), ref('incident_id', 'incidents')],
  }),
  borrowed: spec({
    title: 'borrowed statements',
    row: borrowedRow,
    key: ['borrowed_id'],
    references: [ref('machine_id', 'machines')],
  }),
  follow_ups: spec({
    title: 'follow-ups',
    row: followUpRow,
    key: ['follow_up_id'],
    references: [ref('print_before', 'prints'), ref('print_after', 'prints')],
  }),
  verdicts: spec({
    title: 'sentences of the answer',
    row: verdictRow,
    key: ['verdict_id'],
    references: [ref('contender_id', 'contenders')],
  }),
  panel_setups: spec({
    title: 'how panels were held',
    row: panelSetupRow,
    key: ['panel_id'],
    references: [ref('panel_id', 'panels')],
  }),
  panel_notes: spec({
    title: 'notes on panels',
    row: panelNoteRow,
    key: ['panel_id', 'at', 'what'],
    references: [ref('panel_id', 'panels')],
  }),
  ballot_times: spec({
    title: 'time for answers',
    row: ballotTimeRow,
    key: ['panel_id', 'judge', 'item_1', 'item_2', 'item_3'],
    references: ofBallot,
  }),
  verdict_figures: spec({
    title: 'figures that sentences rest on',
    row: verdictFigureRow,
    key: ['verdict_id', 'address'],
    references: [ref('verdict_id', 'verdicts')],
  }),
};

export type TableName = keyof typeof TABLES;

/** The names of all tables, in the order of `TABLES`. */
export const TABLE_NAMES = Object.keys(TABLES) as TableName[];

/** What a row of a table holds, unknown columns of its package among it. */
export type Row<Name extends TableName> = z.infer<(typeof TABLES)[Name]['row']> & {
  /** Columns of the package that this program does not know, kept as they were written. */
  extras?: Record<string, string>;
};

/** Any row, seen as columns. */
export type AnyRow = Record<string, string | number | null>;

export type Machine = Row<'machines'>;
export type Profile = Row<'profiles'>;
export type Material = Row<'materials'>;
export type Contender = Row<'contenders'>;
export type Artefact = Row<'artefacts'>;
export type Dimension = Row<'dimensions'>;
export type Print = Row<'prints'>;
export type Incident = Row<'incidents'>;
export type Specimen = Row<'specimens'>;
export type Instrument = Row<'instruments'>;
export type Reading = Row<'readings'>;

/** The table that a file of a package holds, or undefined for any other file. */
export function tableOfFile(path: string): TableName | undefined {
  const base = path.slice(path.lastIndexOf('/') + 1);
  if (!base.endsWith('.csv')) return undefined;
  const name = base.slice(0, -4);
  return Object.hasOwn(TABLES, name) ? (name as TableName) : undefined;
}

/** The specification of a table, seen without its row type. */
export const tableSpec = (name: TableName): TableSpec => TABLES[name];
