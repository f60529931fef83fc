import type { Row, Tables } from '../../src/core/model/study';
import { round, type Draws } from './random';

const OPERATORS = ['KM', 'TS'];
const PARTS = 5;
const TRIALS = 3;
const INSTRUMENT = 'caliper-1';
const DIMENSION = 'y1';
/** TS presses a little less than KM, mm. */
const PRESSURE = { KM: 0, TS: 0.004 } as Record<string, number>;
const READING_SD = 0.009;

/** Is caliper 1 good enough? Five stair blocks, two people, three readings each; and its zero over the weeks. */
export function gauge(
  draws: Draws,
  { prints, specimens }: Pick<Tables, 'prints' | 'specimens'>,
  { readings }: Pick<Tables, 'readings'>,
): Pick<Tables, 'gauge_plans' | 'zero_checks' | 'readings'> {
  const printOf = new Map(prints.map((print) => [print.print_id, print]));
  const mean = (specimen: string) => {
    const own = readings.filter(
      (row) => row.specimen_id === specimen && row.dimension_id === DIMENSION,
    );
    return own.reduce((sum, row) => sum + row.value_mm, 0) / own.length;
  };
  // Those that caliper 2 has measured: caliper 1 meets them for the first time.
  const parts = specimens
    .filter(({ specimen_id, print_id }) => {
      const print = printOf.get(print_id);
      return (
        print?.artefact_id === 'stair-block' &&
        readings.some((row) => row.specimen_id === specimen_id && row.instrument_id === 'caliper-2')
      );
    })
    .slice(0, PARTS);
  const own: Row<'readings'>[] = parts.flatMap(({ specimen_id }) => {
    const truth = mean(specimen_id) - 0.01;
    return OPERATORS.flatMap((operator, hand) =>
      Array.from({ length: TRIALS }, (_, at) => ({
        specimen_id,
        dimension_id: DIMENSION,
        trial: at + 1,
        value_mm: round(truth + (PRESSURE[operator] ?? 0) + draws.noise(READING_SD), 2),
        instrument_id: INSTRUMENT,
        operator,
        superseded_at: null,
        at: `2026-03-25T1${4 + hand}:${String(10 + 5 * at).padStart(2, '0')}:00+01:00`,
      })),
    );
  });
  const zeros = [
    ['caliper-1', '2026-03-03T08:55', 0],
    ['caliper-1', '2026-03-10T09:02', 0],
    ['caliper-1', '2026-03-17T08:58', 0],
    ['caliper-1', '2026-03-24T09:05', 0],
    ['caliper-2', '2026-03-03T13:05', 0.01],
    ['caliper-2', '2026-03-12T13:00', 0.01],
    ['caliper-2', '2026-03-19T12:58', 0.02],
    ['caliper-2', '2026-03-26T13:04', 0.02],
  ] as const;
  return {
    gauge_plans: [
      {
        gauge_plan_id: 'gauge-1',
        instrument_id: INSTRUMENT,
        artefact_id: 'stair-block',
        dimension_id: DIMENSION,
        specimens: parts.map(({ specimen_id }) => specimen_id).join(' '),
        operators: OPERATORS.join(' '),
        trials: TRIALS,
      },
    ],
    zero_checks: zeros.map(([instrument_id, at, value_mm], index) => ({
      zero_check_id: `zero-${index + 1}`,
      instrument_id,
      at: `${at}:00+01:00`,
      value_mm,
      operator: instrument_id === 'caliper-1' ? 'KM' : 'TS',
    })),
    readings: own,
  };
}
