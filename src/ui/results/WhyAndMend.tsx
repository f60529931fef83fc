import { Explain } from '../marks/Explain';
import { addressOf } from '../../core/answers/figure-address/address';
import type { AccuracySummary } from '../../core/answers/results';
import type { ContenderMark } from '../../core/model/study';
import { describeAdvice } from '../../core/text/phrasing';
import { fixed } from '../lib/format';
import { Badge } from '../marks/Badge';

interface WhyAndMendProps {
  marks: readonly ContenderMark[];
  accuracy: Record<string, AccuracySummary>;
}

/** Why each contender is off, axis by axis, and what would mend it. */
export function WhyAndMend({ marks, accuracy }: WhyAndMendProps) {
  const advised = marks.flatMap((mark) => {
    const own = accuracy[mark.contender_id];
    return own ? [{ mark, own, advice: describeAdvice(own) }] : [];
  });
  const quiet = advised.filter(({ advice, own }) => advice.length === 0 && own.readings > 0);
  return (
    <section className="min-w-0 sheet" aria-labelledby="why-mend">
      <header className="flex flex-wrap items-baseline justify-between gap-2 border-b border-line px-3 py-2">
        <h2 id="why-mend" className="font-semibold">
          Why, and what would mend it
          <Explain term="axis-fit" />
        </h2>
        <p className="text-xs text-ink-2">from the fit of deviation on nominal size</p>
      </header>
      <ul>
        {advised
          .filter(({ advice }) => advice.length > 0)
          .map(({ mark, advice }) => (
            <li
              key={mark.contender_id}
              className="flex gap-2.5 border-b border-line-soft px-3 py-1.5"
            >
              <Badge mark={mark} />
              <ul className="min-w-0 flex-1">
                {advice.map((said) => (
                  <li
                    key={`${said.axis} ${said.type}`}
                    className="grid grid-cols-[minmax(0,1fr)_auto] items-baseline gap-x-3"
                  >
                    <span>
                      {said.finding}
                      <small className="block text-ink-2">{said.remedy}</small>
                    </span>
                    <button
                      type="button"
                      className="figure text-xs"
                      data-figure={addressOf(
                        'accuracy',
                        mark.contender_id,
                        `${said.type === null ? 'fit' : `fit_by_type.${said.type}`}.${said.axis}.scale`,
                      )}
                      data-hint="mean absolute deviation in mm, before and after the correction"
                    >
                      {fixed(said.before_mm, 3)} → {fixed(said.after_mm, 3)}
                    </button>
                  </li>
                ))}
              </ul>
            </li>
          ))}
      </ul>
      {quiet.length > 0 && (
        <p className="px-3 py-2 text-xs text-ink-2">
          {quiet.map(({ mark }) => mark.label).join(', ')}: nothing to correct beyond the noise.
        </p>
      )}
    </section>
  );
}
