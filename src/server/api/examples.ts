import type { TableName } from '../../core/model/study';

/** A row of a table as a program would send it, where programs usually do. */
export const ROW_EXAMPLES: Partial<Record<TableName, object>> = {
  machines: { machine_id: 'auklet', name: 'Auklet 19', firmware: '4.1.0', nozzle_mm: 0.4 },
  profiles: { profile_id: 'stock', name: 'Stock 0.20', kind: 'stock' },
  profile_settings: { profile_id: 'stock', key: 'speed_outer_mm_s', value: '120' },
  materials: { material_id: 'pla', type: 'PLA', lot: '2026-03' },
  contenders: {
    contender_id: 'a-stock',
    label: 'Auklet, stock',
    machine_id: 'auklet',
    profile_id: 'stock',
  },
  artefacts: { artefact_id: 'clip', name: 'Clip' },
  dimensions: {
    artefact_id: 'clip',
    dimension_id: 'width',
    name: 'width',
    axis: 'x',
    kind: 'external',
    nominal_mm: 20,
  },
  instruments: {
    instrument_id: 'cal-1',
    kind: 'caliper',
    name: 'Bench caliper',
    resolution_mm: 0.01,
  },
  planned: { contender_id: 'a-stock', artefact_id: 'clip', material_id: 'pla', repeats: 3 },
};
