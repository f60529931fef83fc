import { emptyTables, TABLE_NAMES, type Study } from '../../src/core/model/study';
import { afterWork } from './after-work';
import { artefacts, type DemoPart } from './artefacts';
import { dossiers } from './dossiers';
import { gauge } from './gauge';
import { judged } from './judged';
import { lineup } from './lineup';
import { petgSpires } from './petg';
import { measured } from './measured';
import { panelEvenings } from './panels';
import { drawsFrom } from './random';
import { runs } from './runs';
import { CLIP_BENCH_CARD, FIRST_MACHINE_CARD } from './cards';
import type { Sliced } from './slicing';

const SEED = 417;

/** The first demo study: four machines for the clip bench of a bicycle repair co-operative. */
export function clipBench(sliced: ReadonlyMap<string, Sliced>, parts: readonly DemoPart[]): Study {
  const draws = drawsFrom(SEED);
  const bench = { ...lineup(), ...artefacts(parts), ...runs(draws, sliced) };
  const found = measured(draws, bench);
  const eyes = judged(draws, bench);
  const checked = gauge(draws, bench, found);
  const petg = petgSpires(sliced, bench);
  const prints = [...bench.prints, ...petg.prints];
  const specimens = [...bench.specimens, ...petg.specimens];
  const tables = {
    ...emptyTables(),
    ...bench,
    ...found,
    ...eyes,
    ...checked,
    prints,
    specimens,
    planned: [...bench.planned, ...petg.planned],
    inspections: [...eyes.inspections, ...petg.inspections],
    findings: [...eyes.findings, ...petg.findings],
    aftercare: afterWork({ prints, specimens }),
    readings: [...found.readings, ...checked.readings],
    ...panelEvenings({ prints, specimens }),
    ...dossiers(),
    claims: [...bench.claims, ...dossiers().claims],
  };
  return {
    meta: {
      name: 'clip-bench',
      title: 'Four machines for the clip bench',
      description:
        'A bicycle repair co-operative in a harbour town wants four more printers for its clip ' +
        'bench and has one candidate of each kind on the table for three weeks. Everything in this ' +
        'study is invented.',
      created: '2026-03-28T17:20:00+01:00',
      intent: 'crossed',
      question:
        'Which machine should print our clips, brackets and spacers, and does our own profile gain ' +
        "anything over the maker's?",
      reference: 'A-stock',
      smallest_difference: {
        accuracy_mm: 0.03,
        surface: 5,
        time_pct: 5,
        success_pct: 10,
        'photo:echo-wall/ringing/raking-left/x': 0.01,
        'photo:echo-wall/ringing/raking-left/y': 0.01,
      },
      cost: { currency: 'EUR', tariff_per_kwh: 0.34, wage_per_h: 24, lifetime_h: 6000 },
      scorecard: CLIP_BENCH_CARD,
      scorecards: [FIRST_MACHINE_CARD],
    },
    tables,
    present: new Set(TABLE_NAMES.filter((name) => tables[name].length > 0)),
  };
}
