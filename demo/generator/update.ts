import {
  fullRow,
  emptyTables,
  TABLE_NAMES,
  type Row,
  type Study,
} from '../../src/core/model/study';
import { artefacts, type DemoPart } from './artefacts';
import { lineup } from './lineup';
import { calipers } from './measured';
import { gannetPrint } from './print';
import { drawsFrom, round, type Draws } from './random';
import type { Sliced } from './slicing';
import { TILE_PLACES } from './tile-places';

const SEED = 233;
const READING_SD = 0.01;
const SIDES = [
  { contender: 'B-1-before', firmware: '1.9.0', day: '2026-03-10', from: 1 },
  { contender: 'B-2-after', firmware: '1.9.2', day: '2026-03-11', from: 13 },
] as const;

/** What the update does to a tile at a place: corners to the right come out thinner, all a little smaller. */
const change = (dimension: string, x: number): number =>
  dimension === 'tile-z' ? -0.01 - 0.0003 * x : -0.034;

/** The second demo study: one machine, the same plate of tiles before and after a firmware update. */
export function gannetUpdate(
  sliced: ReadonlyMap<string, Sliced>,
  parts: readonly DemoPart[],
): Study {
  const draws = drawsFrom(SEED);
  const all = lineup();
  const field = parts.filter(({ artefact }) => artefact.artefact_id === 'tile-field');
  const things = artefacts(field);
  const file = sliced.get('B-stock tile-field');
  if (!file) throw new Error('no sliced file for the tile field on B');
  const prints = SIDES.map((side, at) => printOf(draws, side, at + 1, file));
  const specimens = SIDES.flatMap(({ from }, at) =>
    TILE_PLACES.map(([x, y], copy): Row<'specimens'> => {
      const code = `U2-${String(from + copy).padStart(2, '0')}`;
      return fullRow('specimens', {
        specimen_id: code,
        print_id: prints[at]?.print_id ?? '',
        copy: copy + 1,
        code,
        plate_x_mm: x,
        plate_y_mm: y,
      });
    }),
  );
  const tables = {
    ...emptyTables(),
    machines: all.machines.filter((row) => row.machine_id === 'gannet'),
    machine_changes: [
      {
        change_id: 'update',
        machine_id: 'gannet',
        at: '2026-03-11T07:40:00+01:00',
        kind: 'firmware',
        what: '1.9.0 to 1.9.2',
        operator: 'KM',
      } as Row<'machine_changes'>,
    ],
    profiles: all.profiles.filter((row) => row.profile_id === 'b-stock'),
    profile_settings: all.profile_settings.filter((row) => row.profile_id === 'b-stock'),
    materials: all.materials.filter((row) => row.material_id === 'pla-0417'),
    contenders: [
      fullRow('contenders', {
        contender_id: 'B-1-before',
        label: 'Gannet X24 before',
        machine_id: 'gannet',
        profile_id: 'b-stock',
      }),
      fullRow('contenders', {
        contender_id: 'B-2-after',
        label: 'Gannet X24 after',
        machine_id: 'gannet',
        profile_id: 'b-stock',
        change: 'firmware 1.9.0 → 1.9.2',
      }),
    ],
    ...things,
    prints,
    specimens,
    instruments: calipers().slice(0, 1),
    readings: readingsOf(draws, specimens, things.dimensions),
  };
  return {
    meta: {
      name: 'gannet-update',
      title: 'The Gannet before and after its update',
      description:
        'The same plate of tiles on the same machine, the day before and the day after a firmware ' +
        'update. Everything in this study is invented.',
      created: '2026-03-12T16:10:00+01:00',
      intent: 'before-after',
      question: 'Did the update change how large the tiles come out?',
      reference: 'B-1-before',
      smallest_difference: { accuracy_mm: 0.03, surface: null, time_pct: 5 },
      cost: null,
      scorecard: null,
    },
    tables,
    present: new Set(TABLE_NAMES.filter((name) => tables[name].length > 0)),
  };
}

function printOf(
  draws: Draws,
  { contender, firmware, day }: (typeof SIDES)[number],
  order: number,
  file: Sliced,
): Row<'prints'> {
  const what = { artefact: 'tile-field', material: 'pla-0417', repeat: 1, order };
  const when = { day, startsUtc: '18:00:00', offsetHours: 1 };
  return gannetPrint(
    draws,
    { print_id: `U-${order}`, contender, firmware, ...what, ...when },
    file,
  );
}

function readingsOf(
  draws: Draws,
  specimens: readonly Row<'specimens'>[],
  dimensions: readonly Row<'dimensions'>[],
): Row<'readings'>[] {
  return specimens.flatMap(({ specimen_id, print_id, plate_x_mm }) =>
    dimensions.flatMap(({ dimension_id, nominal_mm }) => {
      const isAfter = print_id === 'U-2';
      const truth =
        nominal_mm +
        (dimension_id === 'tile-z' ? 0.012 : 0.045) +
        (isAfter ? change(dimension_id, plate_x_mm ?? 0) : 0) +
        draws.noise(0.009);
      return [1, 2].map((trial) => ({
        specimen_id,
        dimension_id,
        trial,
        operator: 'KM',
        instrument_id: 'caliper-1',
        value_mm: round(truth + draws.noise(READING_SD), 2),
        at: `2026-03-${isAfter ? 11 : 10}T21:30:00+01:00`,
        superseded_at: null,
      }));
    }),
  );
}
