import { Leaving } from '../kit/Leaving';
import type { ContenderMark } from '../../core/model/study';
import type { WallClock } from '../../contract/runs';
import { duration } from '../lib/format';
import { Badge } from '../marks/Badge';

interface WallClockBarsProps {
  marks: readonly ContenderMark[];
  artefacts: readonly { id: string; name: string }[];
  clocks: readonly WallClock[];
}

const PARTS = [
  ['heat_s', 'heating', 'var(--large)'],
  ['print_s', 'printing', 'var(--plum)'],
  ['paused_s', 'paused', 'var(--ink-2)'],
] as const;

/** Where the wall-clock time goes, artefact by artefact: heating, printing, pauses, to one scale. */
export function WallClockBars({ marks, artefacts, clocks }: WallClockBarsProps) {
  const wall = (clock: WallClock) => clock.heat_s + clock.print_s + clock.paused_s;
  const largest = Math.max(1, ...clocks.map(wall));
  const shown = artefacts.filter((one) => clocks.some((clock) => clock.artefact === one.id));
  return (
    <section className="mt-3 min-w-0 sheet" aria-labelledby="wall-clock">
      <header className="flex flex-wrap items-baseline justify-between gap-2 border-b border-line px-3 py-2">
        <h2 id="wall-clock" className="font-semibold">
          Wall-clock time
        </h2>
        <p className="flex gap-3 text-xs text-ink-2">
          mean of finished prints:
          {PARTS.map(([key, name, colour]) => (
            <span key={key} className="inline-flex items-center gap-1">
              <svg width={10} height={10} aria-hidden="true">
                <rect width={10} height={10} fill={colour} />
              </svg>
              {name}
            </span>
          ))}
        </p>
      </header>
      <Leaving
        isPicture
        figures={[
          ['artefact', 'contender', ...PARTS.map(([, name]) => `${name} s`), 'total s'],
          ...clocks.map((clock) => [
            clock.artefact,
            clock.contender,
            ...PARTS.map(([key]) => clock[key]),
            wall(clock),
          ]),
        ]}
      >
        <div className="grid grid-cols-1 gap-x-6 px-3 py-2 lg:grid-cols-2">
          {shown.map((artefact) => (
            <div key={artefact.id} className="min-w-0 py-1">
              <p className="text-xs font-medium">{artefact.name}</p>
              {marks.map((mark) => {
                const clock = clocks.find(
                  (one) => one.artefact === artefact.id && one.contender === mark.contender_id,
                );
                if (!clock) return null;
                return (
                  <p key={mark.contender_id} className="flex items-center gap-2 py-0.5">
                    <Badge mark={mark} />
                    <svg
                      className="block min-w-0 flex-1"
                      height={12}
                      role="img"
                      aria-label={
                        `${mark.label}: ` +
                        PARTS.map(([key, name]) => `${name} ${duration(clock[key])}`).join(', ')
                      }
                    >
                      {PARTS.map(([key, name, colour], at) => {
                        const from = PARTS.slice(0, at).reduce((sum, [one]) => sum + clock[one], 0);
                        const x = (100 * from) / largest;
                        return (
                          <rect
                            key={key}
                            x={`${x.toFixed(2)}%`}
                            width={`${((100 * clock[key]) / largest).toFixed(2)}%`}
                            height={12}
                            fill={colour}

                            data-hint={`${name} ${duration(clock[key])}`}
                          />
                        );
                      })}
                    </svg>
                    <span className="w-16 text-right font-mono text-xs">
                      {duration(wall(clock))}
                    </span>
                  </p>
                );
              })}
            </div>
          ))}
        </div>
      </Leaving>
    </section>
  );
}
