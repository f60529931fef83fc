import {
  artefactRow,
  copyPlaceRow,
  dimensionPlaceRow,
  dimensionRow,
  functionCheckRow,
  ladderPlaceRow,
  ladderRow,
  ladderStepRow,
  retiredDimensionRow,
  squareRow,
  zonePlaceRow,
  zoneRow,
} from './rows/artefacts';
import { ofArtefact, ref, spec } from './table-spec';

/** The tables that say what benchmark parts are, and what is looked at on them. */
export const ARTEFACT_TABLES = {
  artefacts: spec({ title: 'artefacts', row: artefactRow, key: ['artefact_id'], required: true }),
  dimensions: spec({
    title: 'dimensions',
    row: dimensionRow,
    key: ['artefact_id', 'dimension_id'],
    references: [ref('artefact_id', 'artefacts')],
  }),
  ladders: spec({
    title: 'ladders',
    row: ladderRow,
    key: ['artefact_id', 'ladder_id'],
    references: [ref('artefact_id', 'artefacts')],
  }),
  ladder_steps: spec({
    title: 'ladder steps',
    row: ladderStepRow,
    key: ['artefact_id', 'ladder_id', 'step'],
    references: [ref('artefact_id', 'artefacts'), ofArtefact('ladders', 'ladder_id')],
  }),
  zones: spec({
    title: 'zones',
    row: zoneRow,
    key: ['artefact_id', 'zone_id'],
    references: [ref('artefact_id', 'artefacts')],
  }),
  squares: spec({
    title: 'squares',
    row: squareRow,
    key: ['artefact_id', 'square_id'],
    references: [
      ref('artefact_id', 'artefacts'),
      ofArtefact('dimensions', 'side_a'),
      ofArtefact('dimensions', 'side_b'),
      ofArtefact('dimensions', 'diagonal_1'),
      ofArtefact('dimensions', 'diagonal_2'),
    ],
  }),
  dimension_places: spec({
    title: 'places of dimensions',
    row: dimensionPlaceRow,
    key: ['artefact_id', 'dimension_id'],
    references: [ref('artefact_id', 'artefacts'), ofArtefact('dimensions', 'dimension_id')],
  }),
  retired_dimensions: spec({
    title: 'retired dimensions',
    row: retiredDimensionRow,
    key: ['artefact_id', 'dimension_id'],
    references: [ref('artefact_id', 'artefacts'), ofArtefact('dimensions', 'dimension_id')],
  }),
  ladder_places: spec({
    title: 'places of ladder steps',
    row: ladderPlaceRow,
    key: ['artefact_id', 'ladder_id', 'step'],
    references: [ref('artefact_id', 'artefacts'), ofArtefact('ladder_steps', 'ladder_id', 'step')],
  }),
  zone_places: spec({
    title: 'places of zones',
    row: zonePlaceRow,
    key: ['artefact_id', 'zone_id'],
    references: [ref('artefact_id', 'artefacts'), ofArtefact('zones', 'zone_id')],
  }),
  copy_places: spec({
    title: 'places of copies',
    row: copyPlaceRow,
    key: ['artefact_id', 'copy'],
    references: [ref('artefact_id', 'artefacts')],
  }),
  function_checks: spec({
    title: 'function checks',
    row: functionCheckRow,
    key: ['artefact_id', 'check'],
    references: [ref('artefact_id', 'artefacts')],
  }),
};
