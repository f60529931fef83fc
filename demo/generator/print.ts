import type { Row } from '../../src/core/model/study';
import { round, type Draws } from './random';
import type { Sliced } from './slicing';

/** What of a print is not drawn. */
export interface PlannedPrint {
  print_id: string;
  contender: string;
  artefact: string;
  material: string;
  repeat: number;
  order: number;
  firmware: string;
  /** Day and time of its start, local and in UTC, and the offset between them. */
  day: string;
  startsUtc: string;
  offsetHours: number;
}

/** A print without mishap on the Gannet, a little slower than its file says. */
export function gannetPrint(
  draws: Draws,
  planned: PlannedPrint,
  { facts, path }: Sliced,
): Row<'prints'> {
  const { day, startsUtc, offsetHours } = planned;
  const estimate_s = Math.round(facts.annotated.time_s ?? facts.time_s);
  const print_s = Math.round(estimate_s * (1.02 + draws.noise(0.004)));
  const heat_s = Math.round(draws.between(170, 230));
  const grams = facts.filament_g ?? 0;
  const start = Date.parse(`${day}T${startsUtc}Z`);
  const local = (ms: number) =>
    `${new Date(ms + offsetHours * 3_600_000).toISOString().slice(0, 19)}+0${offsetHours}:00`;
  return {
    print_id: planned.print_id,
    contender_id: planned.contender,
    artefact_id: planned.artefact,
    material_id: planned.material,
    repeat: planned.repeat,
    order: planned.order,
    started_at: local(start),
    ended_at: local(start + (heat_s + print_s) * 1000),
    estimate_s,
    heat_s,
    print_s,
    paused_s: 0,
    filament_g: round(grams + 0.4, 2),
    waste_g: 0.4,
    filament_m: round(grams / 2.98, 3),
    energy_wh: null,
    outcome: 'success',
    progress_pct: 100,
    firmware: planned.firmware,
    plate: 'textured',
    nozzle_mm: 0.4,
    ambient_c: 20.6,
    humidity_pct: 46,
    noise_db: null,
    noise_distance_m: null,
    speed_mode: null,
    filament_from: 'file',
    operator: 'KM',
    toolpath: path,
  };
}
