import type { ToolpathFacts } from '../../core/toolpath';
import { duration, fixed, percent } from '../lib/format';
import { Leaving } from '../kit/Leaving';

/** Where the time goes: every role with its share, and the speed it is asked for and reaches. */
export function RoleTimes({ facts }: { facts: ToolpathFacts }) {
  const roles = Object.entries(facts.time_by_role_s).sort(([, a], [, b]) => b - a);
  const largest = roles[0]?.[1] ?? 1;
  const total = roles.reduce((sum, [, seconds]) => sum + seconds, 0);
  return (
    <section className="min-w-0 sheet" aria-labelledby="roles">
      <header className="border-b border-line px-3 py-2">
        <h2 id="roles" className="font-semibold">
          Where the time goes
        </h2>
        <p className="text-xs text-ink-2">by role; half the time at or below the speeds given</p>
      </header>
      <Leaving isPicture>
        <table className="w-full text-xs">
          <thead>
            <tr className="border-b border-line">
              <th className="th">role</th>
              <th className="w-[34%] th">
                <span className="sr-only">share</span>
              </th>
              <th className="th text-right">time</th>
              <th className="th text-right">share</th>
              <th className="th text-right">asked (mm/s)</th>
              <th className="th text-right">reached</th>
            </tr>
          </thead>
          <tbody>
            {roles.map(([role, seconds]) => {
              const speed = facts.speed_by_role[role];
              return (
                <tr key={role} className="border-b border-line-soft">
                  <th scope="row" className="px-2 py-1 text-left font-normal whitespace-nowrap">
                    {role}
                  </th>
                  <td className="px-2">
                    <svg className="block w-full" height={8} aria-hidden="true">
                      <rect
                        width={`${((100 * seconds) / largest).toFixed(1)}%`}
                        height={8}
                        fill={speed ? 'var(--plum)' : 'var(--line)'}
                      />
                    </svg>
                  </td>
                  <td className="px-2 text-right font-mono">{duration(seconds)}</td>
                  <td className="px-2 text-right font-mono">{percent(seconds / total, 1)}</td>
                  <td className="px-2 text-right font-mono">
                    {speed?.commanded_p50 == null ? '' : fixed(speed.commanded_p50, 0)}
                  </td>
                  <td className="px-2 text-right font-mono">
                    {speed?.reached_p50 == null ? '' : fixed(speed.reached_p50, 0)}
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
