import type { ResultParts } from '../../core/answers/results';
import type { ContenderMark } from '../../core/model/study';
import { signed } from '../lib/format';
import { Badge } from '../marks/Badge';
import { Leaving } from '../kit/Leaving';

interface DriversProps {
  marks: readonly ContenderMark[];
  reference: string | null;
  drivers: NonNullable<ResultParts['drivers']>;
  /** Names of dimensions by `artefact/dimension`. */
  names: Readonly<Record<string, string>>;
}

const SHOWN = 5;
const BAR = 120;

/** Which dimensions make a contender better or worse than the reference, largest share first. */
export function Drivers({ marks, reference, drivers, names }: DriversProps) {
  const others = marks.filter(
    (mark) => mark.contender_id !== reference && (drivers[mark.contender_id] ?? []).length > 0,
  );
  if (others.length === 0) return null;
  const largest = Math.max(
    1e-6,
    ...others.flatMap((mark) =>
      (drivers[mark.contender_id] ?? []).map((driver) => Math.abs(driver.share_mm)),
    ),
  );
  return (
    <section className="mt-3 min-w-0 sheet" aria-labelledby="drivers">
      <header className="border-b border-line px-3 py-2">
        <h2 id="drivers" className="font-semibold">
          What drives the difference
        </h2>
        <p className="text-xs text-ink-2">
          Each bar shows what a dimension adds to the mean deviation, in mm against the reference.
          To the left, the contender is closer to nominal.
        </p>
      </header>
      <div className="grid grid-cols-1 gap-x-6 gap-y-2 p-3 xl:grid-cols-2">
        {others.map((mark) => {
          const own = drivers[mark.contender_id] ?? [];
          return (
            <figure key={mark.contender_id} data-drivers={mark.contender_id}>
              <figcaption className="mb-1 flex items-center gap-2">
                <Badge mark={mark} /> {mark.label}
              </figcaption>
              <Leaving isPicture>
                <table className="text-xs">
                  <tbody>
                    {own.slice(0, SHOWN).map((driver) => {
                      const key = `${driver.artefact_id}/${driver.dimension_id}`;
                      const length = (Math.abs(driver.share_mm) / largest) * (BAR / 2);
                      return (
                        <tr key={key}>
                          <th
                            scope="row"
                            className="py-0.5 pr-2 text-left font-normal whitespace-nowrap"
                          >
                            {names[key] ?? key}
                          </th>
                          <td className="w-[120px]">
                            <svg width={BAR} height={12} className="block" aria-hidden="true">
                              <line x1={BAR / 2} x2={BAR / 2} y1={0} y2={12} stroke="var(--line)" />
                              <rect
                                x={driver.share_mm < 0 ? BAR / 2 - length : BAR / 2}
                                y={3}
                                width={length}
                                height={6}
                                fill={driver.share_mm < 0 ? 'var(--ink-2)' : 'var(--plum)'}
                              />
                            </svg>
                          </td>
                          <td className="pl-2 text-right font-mono whitespace-nowrap">
                            {signed(driver.share_mm, 4)}
                          </td>
                          <td className="hidden pl-2 text-right font-mono whitespace-nowrap text-ink-2 sm:table-cell">
                            {signed(driver.contender_mm, 2)} against{' '}
                            {signed(driver.reference_mm, 2)}
                          </td>
                        </tr>
                      );
                    })}
                  </tbody>
                </table>
              </Leaving>
              {own.length > SHOWN && (
                <p className="text-2xs text-ink-2">and {own.length - SHOWN} smaller ones</p>
              )}
            </figure>
          );
        })}
      </div>
    </section>
  );
}
