import { drawsFrom } from '../demo/generator/random';
import {
  columnsOf,
  emptyTables,
  TABLE_NAMES,
  type Study,
  type TableName,
} from '../src/core/model/study';

/** A row with the columns that are not given unknown. */
const row = (table: TableName, given: Record<string, unknown>): never =>
  ({
    ...Object.fromEntries(columnsOf(table).map(({ name }) => [name, null])),
    ...given,
  }) as never;

const CLIPS = ['clip', 'bracket', 'spacer', 'adapter'];
const STEP_MS = 100 * 60 * 1000;

/** A print farm: so many machines and prints, four parts, an incident every thirty prints. */
export function farmStudy(machines: number, prints: number): Study {
  const draws = drawsFrom(40_20);
  const tables = emptyTables();
  tables.profiles = [row('profiles', { profile_id: 'p', name: 'As shipped', kind: 'stock' })];
  tables.materials = [row('materials', { material_id: 'pla', type: 'PLA', price_per_kg: 18 })];
  tables.artefacts = CLIPS.map((id) => row('artefacts', { artefact_id: id, name: id }));
  for (let at = 1; at <= machines; at += 1) {
    const machine = { machine_id: `m-${at}`, name: `Machine ${at}`, price_paid: 400 };
    tables.machines.push(row('machines', machine));
    const contender = { contender_id: `c-${at}`, label: `Machine ${at}`, profile_id: 'p' };
    tables.contenders.push(row('contenders', { ...contender, machine_id: `m-${at}` }));
  }
  const iso = (ms: number) => `${new Date(ms).toISOString().slice(0, 19)}Z`;
  for (let at = 0; at < prints; at += 1) {
    const machine = (at % machines) + 1;
    const turn = Math.floor(at / machines);
    const started = Date.UTC(2026, 0, 5) + turn * STEP_MS;
    const isGood = !draws.chance(0.02);
    tables.prints.push(
      row('prints', {
        print_id: `P-${at}`,
        contender_id: `c-${machine}`,
        artefact_id: CLIPS[turn % CLIPS.length],
        material_id: 'pla',
        repeat: Math.floor(turn / CLIPS.length) + 1,
        started_at: iso(started),
        ended_at: iso(started + 80 * 60 * 1000),
        print_s: Math.round(4200 + draws.noise(60)),
        filament_g: 31,
        outcome: isGood ? 'success' : 'failed',
      }),
    );
    if (!isGood || draws.chance(0.013)) {
      const incident = { incident_id: `I-${at}`, machine_id: `m-${machine}`, print_id: `P-${at}` };
      const what = { mode: draws.chance(0.5) ? 'detached' : 'clogged', cause: 'machine' };
      tables.incidents.push(row('incidents', { ...incident, ...what, at: iso(started) }));
    }
  }
  return {
    meta: {
      name: 'farm',
      title: 'A print farm',
      description: null,
      created: null,
      intent: 'machines',
      question: null,
      reference: 'c-1',
      smallest_difference: { time_pct: 5 },
      cost: null,
      scorecard: null,
      plan: null,
    },
    tables,
    present: new Set(TABLE_NAMES.filter((name) => tables[name].length > 0)),
  };
}
