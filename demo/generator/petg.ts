import { fullRow, type Row, type Tables } from '../../src/core/model/study';
import { judged } from './judged';
import { CHARACTERS } from './lineup';
import { drawsFrom, round } from './random';
import type { Sliced } from './slicing';

const SEED = 5107;
const MATERIAL = 'petg-clear';
/** Repeats are numbered through all materials: two were planned in PLA. */
const AFTER_PLA = 3;
const STARTING = Date.UTC(2026, 2, 27, 6, 30);

type Petg = Pick<
  Tables,
  | 'planned'
  | 'prints'
  | 'specimens'
  | 'ladder_results'
  | 'function_results'
  | 'inspections'
  | 'findings'
>;

/** The last two days: the spires once more with every contender, in PETG, which strings more. */
export function petgSpires(
  sliced: ReadonlyMap<string, Sliced>,
  bench: Pick<Tables, 'prints' | 'specimens' | 'ladders' | 'ladder_steps' | 'zones'>,
): Petg {
  const draws = drawsFrom(SEED);
  const fileOf = (contender: string) => {
    const file = sliced.get(`${contender} spire-pair`);
    if (!file) throw new Error(`no sliced file for the spires on ${contender}`);
    return file;
  };
  const prints = CHARACTERS.map(({ contender, optimism }, at): Row<'prints'> => {
    const { facts, path } = fileOf(contender);
    const estimate_s = Math.round(facts.annotated.time_s ?? facts.time_s);
    const print_s = Math.round(estimate_s * optimism * (1 + draws.noise(0.01)));
    const heat_s = Math.round(draws.between(230, 290));
    const order = bench.prints.length + at + 1;
    const start = STARTING + at * 2.6 * 3_600_000;
    const local = (ms: number) => `${new Date(ms + 3_600_000).toISOString().slice(0, 19)}+01:00`;
    const grams = (facts.filament_g ?? 0) * 1.024 + 0.4;
    return {
      print_id: `P-${String(order).padStart(3, '0')}`,
      contender_id: contender,
      order,
      artefact_id: 'spire-pair',
      material_id: MATERIAL,
      repeat: AFTER_PLA,
      started_at: local(start),
      ended_at: local(start + (heat_s + print_s) * 1000),
      estimate_s,
      heat_s,
      print_s,
      paused_s: 0,
      filament_g: round(grams, 2),
      waste_g: round(0.4 + draws.between(0, 0.2), 2),
      filament_m: round(grams / 3.05, 3),
      energy_wh: Math.round((estimate_s * 120) / 3600 + 40),
      outcome: 'success',
      progress_pct: 100,
      nozzle_mm: 0.4,
      operator: 'TS',
      firmware: contender.startsWith('B') ? '1.9.2' : null,
      plate: contender.startsWith('C') ? 'smooth' : 'textured',
      ambient_c: round(20.5 + draws.noise(0.6), 1),
      humidity_pct: 46,
      noise_db: null,
      noise_distance_m: null,
      speed_mode: null,
      filament_from: 'weighed',
      toolpath: path,
    };
  });
  const specimens = prints.map(({ print_id }, at): Row<'specimens'> => {
    const code = `K7-${String(bench.specimens.length + at + 1).padStart(3, '0')}`;
    return fullRow('specimens', {
      specimen_id: code,
      print_id,
      copy: 1,
      plate_x_mm: 0,
      plate_y_mm: 0,
      code,
    });
  });
  const found = judged(draws, { ...bench, prints, specimens });
  return {
    ...found,
    prints,
    specimens,
    findings: found.findings.map((row) =>
      row.defect === 'stringing' ? { ...row, grade: Math.min(4, row.grade + 1) } : row,
    ),
    planned: prints.map(({ contender_id, artefact_id, toolpath }) => ({
      contender_id,
      artefact_id,
      material_id: MATERIAL,
      repeats: 1,
      toolpath,
    })),
  };
}
