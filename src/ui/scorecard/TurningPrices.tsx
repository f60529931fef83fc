import { Explain } from '../marks/Explain';
import type { EvidenceOfCriteria, Scorecard } from '../../core/answers/scorecard';
import { PRICE, whyNoTurningPrice } from '../../core/answers/scorecard';
import type { ContenderMark } from '../../core/model/study';
import { Leaving } from '../kit/Leaving';
import { fixed } from '../lib/format';
import { ContenderName } from '../marks/ContenderName';
import { Unknown } from '../marks/Unknown';

interface TurningPricesProps {
  filled: Scorecard;
  marks: readonly ContenderMark[];
  evidence: EvidenceOfCriteria;
  currency: string;
}

/** At which price each contender would be first, or no longer: beside what it costs. */
export function TurningPrices({ filled, marks, evidence, currency }: TurningPricesProps) {
  if (!filled.criteria.some(({ key }) => key === PRICE)) return null;
  const inside = marks.filter((mark) => filled.contenders[mark.contender_id]?.in);
  const priceOf = (id: string) => evidence[PRICE]?.[id]?.value ?? null;
  const known = inside.flatMap((mark) => [
    priceOf(mark.contender_id) ?? [],
    filled.contenders[mark.contender_id]?.turning_price ?? [],
  ]);
  const most = Math.max(1, ...known.flat()) * 1.08;
  const x = (price: number) => `${((100 * price) / most).toFixed(2)}%`;
  return (
    <section className="min-w-0 sheet" aria-labelledby="turning">
      <header className="border-b border-line px-3 py-2">
        <h2 id="turning" className="font-semibold">
          Turning price{currency && `, ${currency}`}
          <Explain term="turning-price" />
        </h2>
        <p className="text-xs text-ink-2">
          up to this price a contender is not beaten, all else as it is; a block its own price, a
          dashed line where it turns
        </p>
      </header>
      <Leaving>
        <table className="w-full">
          <thead className="sr-only">
            <tr>
              <th>contender</th>
              <th>strip</th>
              <th>price</th>
              <th>turning price</th>
            </tr>
          </thead>
          <tbody>
            {inside.map((mark) => {
              const own = filled.contenders[mark.contender_id];
              const price = priceOf(mark.contender_id);
              const turning = own?.turning_price ?? null;
              const why = own ? whyNoTurningPrice(own) : '';
              return (
                <tr key={mark.contender_id} className="border-b border-line-soft">
                  <th scope="row" className="px-3 py-0.5 text-left font-normal">
                    <ContenderName mark={mark} isReference={false} />
                  </th>
                  <td className="w-[36%]">
                    <svg className={`hue-${mark.hue} block w-full`} height={20} aria-hidden="true">
                      <line x1={0} x2="100%" y1={16} y2={16} stroke="var(--line)" />
                      {price !== null && (
                        <line
                          x1={x(price)}
                          x2={x(price)}
                          y1={4}
                          y2={16}
                          stroke="var(--hue)"
                          strokeWidth={4}
                        />
                      )}
                      {turning !== null && (
                        <line
                          x1={x(turning)}
                          x2={x(turning)}
                          y1={1}
                          y2={19}
                          stroke="var(--plum)"
                          strokeWidth={1.8}
                          strokeDasharray="3 2"
                        />
                      )}
                    </svg>
                  </td>
                  <td className="px-2 text-right font-mono">
                    {price === null ? <Unknown /> : fixed(price, 0)}
                  </td>
                  <td className="px-2 text-right text-xs whitespace-nowrap">
                    {turning === null ? why : <b className="font-mono">{fixed(turning, 0)}</b>}
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
