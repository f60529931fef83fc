import type { SurvivalRow } from '../../core/measures/reliability';
import { counted, fixed, percent } from '../lib/format';
import type { Series } from '../charts/Chart';

const COLOURS = ['plum', 'small', 'large', 'ink', 'quiet'] as const;
const MOST_LINES = 5;

/** Share of gaps between incidents that last longer than a time, by machine. */
export function survivalChart(
  survival: Record<string, SurvivalRow[]>,
  machines: readonly { id: string; name: string }[],
): { sentence: string; series: Series[] } | null {
  const known = machines.flatMap((machine) => {
    const rows = survival[`machine:${machine.id}`] ?? [];
    return rows.length === 0 ? [] : [{ machine, rows }];
  });
  if (known.length === 0) return null;
  const shown = known.toSorted((a, b) => events(b.rows) - events(a.rows)).slice(0, MOST_LINES);
  const longest = Math.max(...shown.flatMap(({ rows }) => rows.map((row) => row.t_h)));
  const said = shown.map(({ machine, rows }) => {
    const half = rows.find((row) => row.s <= 0.5);
    return half
      ? `${machine.name}: half the gaps end within ${fixed(half.t_h, 1)} h`
      : `${machine.name}: ${percent(rows.at(-1)?.s ?? 1)} of the gaps last longer than ` +
          `${fixed(rows.at(-1)?.t_h ?? 0, 1)} h`;
  });
  const without = machines.length - known.length;
  return {
    sentence:
      `${said.join('; ')}${without > 0 ? `; ${counted(without, 'machine')} without an incident` : ''}. ` +
      'The operator’s own mistakes are left out.',
    series: shown.map(({ machine, rows }, at) => ({
      name: machine.name,
      colour: COLOURS[at] ?? 'quiet',
      dashed: at > 2,
      points: [
        [0, 1] as const,
        ...rows.map((row) => [row.t_h, row.s] as const),
        [longest, rows.at(-1)?.s ?? 1] as const,
      ],
    })),
  };
}

const events = (rows: readonly SurvivalRow[]): number =>
  rows.reduce((sum, row) => sum + row.events, 0);
