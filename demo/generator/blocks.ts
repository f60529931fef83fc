import {
  fullRow,
  emptyTables,
  TABLE_NAMES,
  type Row,
  type Study,
  type StudyMeta,
  type Tables,
} from '../../src/core/model/study';
import { artefacts, type DemoPart } from './artefacts';
import { judged } from './judged';
import type { Character } from './lineup';
import { measured } from './measured';
import { round, type Draws } from './random';

/** A print of a small study: what is not drawn of it. */
export interface PlannedBlock {
  contender: string;
  artefact: 'stair-block' | 'spire-pair';
  material: string;
  /** Local day and hour of its start, with its offset. */
  start: string;
  /** What its file says that it takes, s, and the grams of the part. */
  estimate_s: number;
  grams: number;
  firmware: string | null;
  outcome?: Row<'prints'>['outcome'];
}

/** What a small study of blocks is made of. */
export interface SmallStudy {
  meta: StudyMeta;
  /** First letters of its prints' ids and specimens' codes. */
  letters: readonly [print: string, specimen: string];
  parts: readonly DemoPart[];
  characters: readonly Character[];
  operator: 'KM' | 'TS';
  prints: readonly PlannedBlock[];
  rows: Partial<Tables>;
}

/** A small study without sliced files: prints, specimens, readings and what eyes found. */
export function smallStudy(draws: Draws, given: SmallStudy): Study {
  const named = new Set<string>(given.prints.map((one) => one.artefact));
  const things = artefacts(given.parts.filter(({ artefact }) => named.has(artefact.artefact_id)));
  const turns = new Map<string, number>();
  const prints = given.prints.map((one, at) => printOf(draws, given, one, at, turns));
  const specimens = prints
    .filter((print) => print.outcome === 'success' || print.outcome === 'rescued')
    .map(({ print_id }, at): Row<'specimens'> => {
      const code = `${given.letters[1]}-${String(at + 1).padStart(2, '0')}`;
      return fullRow('specimens', {
        specimen_id: code,
        print_id,
        copy: 1,
        plate_x_mm: 0,
        plate_y_mm: 0,
        code,
      });
    });
  const { characters, operator } = given;
  const found = measured(
    draws,
    { prints, specimens, ...things },
    { characters, left: 0, by: operator },
  );
  const seen = judged(draws, { prints, specimens, ...things });
  const inspections = seen.inspections.filter((row) => row.inspector === operator);
  const findings = seen.findings.filter((row) => row.inspector === operator);
  const used = new Set(found.readings.map((row) => row.instrument_id));
  const tables = {
    ...emptyTables(),
    ...things,
    prints,
    specimens,
    inspections,
    findings,
    readings: found.readings,
    instruments: found.instruments.filter((row) => used.has(row.instrument_id)),
    ...given.rows,
  };
  return {
    meta: given.meta,
    tables,
    present: new Set(TABLE_NAMES.filter((name) => tables[name].length > 0)),
  };
}

function printOf(
  draws: Draws,
  { characters, letters, operator }: SmallStudy,
  one: PlannedBlock,
  at: number,
  turns: Map<string, number>,
): Row<'prints'> {
  const what = `${one.contender} ${one.artefact} ${one.material}`;
  const repeat = (turns.get(what) ?? 0) + 1;
  turns.set(what, repeat);
  const optimism = characters.find((own) => own.contender === one.contender)?.optimism ?? 1;
  const outcome = one.outcome ?? 'success';
  const share = outcome === 'failed' ? 0.22 : 1;
  const print_s = Math.round(one.estimate_s * optimism * share * (1 + draws.noise(0.006)));
  const heat_s = Math.round(draws.between(120, 240));
  const offset = one.start.slice(-6);
  const hours = Number(offset.slice(0, 3));
  const ends = Date.parse(one.start) + (heat_s + print_s) * 1000 + hours * 3_600_000;
  const grams = (one.grams + 0.4) * share;
  return {
    print_id: `${letters[0]}-${String(at + 1).padStart(2, '0')}`,
    order: at + 1,
    repeat,
    contender_id: one.contender,
    artefact_id: one.artefact,
    material_id: one.material,
    started_at: one.start,
    ended_at: `${new Date(ends).toISOString().slice(0, 19)}${offset}`,
    estimate_s: one.estimate_s,
    heat_s,
    print_s,
    paused_s: 0,
    filament_g: round(grams, 2),
    waste_g: outcome === 'failed' ? round(grams, 2) : 0.4,
    filament_m: round(grams / 2.98, 3),
    energy_wh: null,
    outcome,
    progress_pct: Math.round(share * 100),
    firmware: one.firmware,
    plate: 'textured',
    nozzle_mm: 0.4,
    ambient_c: round(19.5 + draws.noise(0.5), 1),
    humidity_pct: 44,
    noise_db: null,
    noise_distance_m: null,
    speed_mode: null,
    filament_from: 'file',
    operator,
    toolpath: null,
  };
}
