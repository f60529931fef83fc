import type { Speed } from '../../core/measures/speed';
import type { Sweep } from '../../core/measures/sweep';
import type { ContenderMark } from '../../core/model/study';
import { Leaving } from '../kit/Leaving';
import { percent } from '../lib/format';
import { ContenderName } from '../marks/ContenderName';
import { UnknownCell } from '../marks/Unknown';

interface SweepTimesProps {
  sweep: Sweep;
  speed: Readonly<Record<string, Speed>>;
  marks: readonly ContenderMark[];
  setting: string;
}

/** What each step takes against the first: what there is to gain. */
export function SweepTimes({ sweep, speed, marks, setting }: SweepTimesProps) {
  const steps = Object.values(sweep.figures)[0]?.steps ?? [];
  const most = Math.max(1, ...steps.map(({ contender }) => speed[contender]?.time_index.high ?? 1));
  return (
    <section className="min-w-0 sheet" aria-labelledby="sweep-times">
      <h2 id="sweep-times" className="border-b border-line px-3 py-2 font-semibold">
        What it takes
      </h2>
      <Leaving isPicture>
        <table className="w-full min-w-[560px]">
          <thead>
            <tr className="border-b border-line">
              <th className="th">step</th>
              <th className="th text-right">{setting}</th>
              <th className="w-[40%] th">time against the first step</th>
              <th className="th text-right">index</th>
              <th className="th text-right">less time</th>
            </tr>
          </thead>
          <tbody>
            {steps.map(({ contender, value }) => {
              const mark = marks.find((one) => one.contender_id === contender);
              const index = speed[contender]?.time_index;
              if (!mark) return null;
              return (
                <tr key={contender} className="border-b border-line-soft">
                  <th scope="row" className="px-2 py-1 text-left font-normal">
                    <ContenderName mark={mark} isReference={contender === sweep.reference} />
                  </th>
                  <td className="px-2 text-right font-mono">{value}</td>
                  {index?.estimate == null ? (
                    <UnknownCell span={3} />
                  ) : (
                    <>
                      <td className="px-2">
                        <svg
                          className={`hue-${mark.hue} block w-full`}
                          height={12}
                          aria-hidden="true"
                        >
                          <rect
                            width={`${((100 * index.estimate) / most).toFixed(2)}%`}
                            height={12}
                            fill="var(--hue)"
                            fillOpacity={contender === sweep.holds_to ? 0.9 : 0.45}
                          />
                        </svg>
                      </td>
                      <td className="px-2 text-right font-mono whitespace-nowrap">
                        {index.estimate.toFixed(3)}{' '}
                        {index.low !== null && index.high !== null && (
                          <span className="text-ink-2">
                            {index.low.toFixed(3)}–{index.high.toFixed(3)}
                          </span>
                        )}
                      </td>
                      <td className="px-2 text-right font-mono">
                        {percent(1 - index.estimate, 1)}
                      </td>
                    </>
                  )}
                </tr>
              );
            })}
          </tbody>
        </table>
      </Leaving>
    </section>
  );
}
