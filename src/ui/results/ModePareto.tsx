import { useState } from 'react';
import type { ModeTally } from '../../core/measures/reliability';
import { keysOf, type ContenderMark } from '../../core/model/study';
import { inWords } from '../../core/model/study/labels';
import { duration, fixed } from '../lib/format';
import { Badge } from '../marks/Badge';
import { Leaving } from '../kit/Leaving';

interface ModeParetoProps {
  marks: readonly ContenderMark[];
  modes: Record<string, ModeTally[]>;
}

const MEASURES = {
  count: { title: 'how often', of: (tally: ModeTally) => tally.count, said: String },
  downtime: { title: 'stand-still', of: (tally: ModeTally) => tally.downtime_s, said: duration },
  grams: {
    title: 'filament lost',
    of: (tally: ModeTally) => tally.lost_g,
    said: (value: number) => `${fixed(value, 0)} g`,
  },
} as const;

/** What goes wrong most, by how often, how long it stands still or what it loses; by contender. */
export function ModePareto({ marks, modes }: ModeParetoProps) {
  const [by, setBy] = useState<keyof typeof MEASURES>('count');
  const measure = MEASURES[by];
  const totals = new Map<string, number>();
  for (const mark of marks) {
    for (const tally of modes[mark.contender_id] ?? []) {
      totals.set(tally.mode, (totals.get(tally.mode) ?? 0) + measure.of(tally));
    }
  }
  const rows = [...totals].sort(([, a], [, b]) => b - a);
  const largest = rows[0]?.[1] ?? 1;
  const all = rows.reduce((sum, [, value]) => sum + value, 0);
  return (
    <section className="min-w-0 sheet" aria-labelledby="pareto">
      <header className="flex flex-wrap items-center justify-between gap-2 border-b border-line px-3 py-2">
        <h2 id="pareto" className="font-semibold">
          What goes wrong
        </h2>
        <div role="group" aria-label="Ordered by" className="flex gap-1">
          {keysOf(MEASURES).map((key) => (
            <button
              key={key}
              type="button"
              className={`action ${key === by ? 'action-main' : ''}`}
              aria-pressed={key === by}
              onClick={() => setBy(key)}
            >
              {MEASURES[key].title}
            </button>
          ))}
        </div>
      </header>
      {rows.length === 0 && <p className="p-3 text-ink-2">no incident noted</p>}
      <Leaving isPicture>
        <table className="w-full text-xs">
          <tbody>
            {rows.map(([mode, value], place) => {
              const running = rows.slice(0, place + 1).reduce((sum, [, one]) => sum + one, 0);
              return (
                <tr key={mode} className="border-b border-line-soft">
                  <th scope="row" className="px-3 py-1 text-left font-normal whitespace-nowrap">
                    {inWords(mode)}
                  </th>
                  <td className="w-[34%] px-2">
                    <svg className="block w-full" height={10} aria-hidden="true">
                      <rect
                        width={`${((100 * value) / Math.max(largest, 1e-9)).toFixed(1)}%`}
                        height={10}
                        fill="var(--plum)"
                      />
                    </svg>
                  </td>
                  <td className="px-2 text-right font-mono">{measure.said(value)}</td>
                  <td className="px-2 text-right font-mono whitespace-nowrap text-ink-2">
                    {all > 0 ? `${fixed((100 * running) / all, 0)} %` : ''}
                  </td>
                  <td className="px-2">
                    <span className="flex flex-wrap gap-2">
                      {marks.map((mark) => {
                        const tally = modes[mark.contender_id]?.find((one) => one.mode === mode);
                        return tally && measure.of(tally) > 0 ? (
                          <span
                            key={mark.contender_id}
                            className="inline-flex items-center gap-1 font-mono whitespace-nowrap"
                          >
                            <Badge mark={mark} /> {measure.said(measure.of(tally))}
                            {tally.operator_count > 0 && (
                              <span className="text-ink-2">({tally.operator_count} operator)</span>
                            )}
                          </span>
                        ) : null;
                      })}
                    </span>
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </Leaving>
    </section>
  );
}
