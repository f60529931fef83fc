import { addressOf } from '../../core/answers/figure-address/address';
import type { AccuracySummary } from '../../core/answers/results';
import type { ContenderMark } from '../../core/model/study';
import { fixed, percent, signed } from '../lib/format';
import { Badge } from '../marks/Badge';
import { Unknown, UnknownCell } from '../marks/Unknown';
import { Leaving } from '../kit/Leaving';

interface WhereItIsOffProps {
  marks: readonly ContenderMark[];
  accuracy: Record<string, AccuracySummary>;
  reference: string | null;
  /** A deviation below this is neutral, mm. */
  neutral: number;
}

const GROUPS = [
  { title: 'x', key: 'x', of: 'by_axis' },
  { title: 'y', key: 'y', of: 'by_axis' },
  { title: 'z', key: 'z', of: 'by_axis' },
  { title: 'holes', key: 'hole', of: 'by_kind' },
  { title: 'bosses', key: 'boss', of: 'by_kind' },
  { title: 'slots', key: 'internal', of: 'by_kind' },
] as const;

const SIZES = [
  { title: '≤ 10', key: 'to-10' },
  { title: '10–30', key: 'to-30' },
  { title: '30–100', key: 'to-100' },
  { title: '> 100 mm', key: 'over-100' },
] as const;

/** Mean deviation by axis and kind: too small is blue, too large is ochre. */
export function WhereItIsOff({ marks, accuracy, reference, neutral }: WhereItIsOffProps) {
  return (
    <section className="min-w-0 sheet" aria-labelledby="where-off">
      <header className="flex flex-wrap items-baseline justify-between gap-2 border-b border-line px-3 py-2">
        <h2 id="where-off" className="font-semibold">
          Where it is off
        </h2>
        <p className="text-xs text-ink-2">mean deviation, mm: − too small, + too large</p>
      </header>
      <Leaving isPicture>
        <table className="w-full">
          <thead>
            <tr className="border-b border-line">
              <th className="th">
                <span className="sr-only">contender</span>
              </th>
              {GROUPS.map((group) => (
                <th key={group.title} className="th text-right">
                  {group.title}
                </th>
              ))}
              <th className="th text-right">worst</th>
              <th className="th text-right">in tolerance</th>
            </tr>
          </thead>
          <tbody>
            {marks.map((mark) => {
              const own = accuracy[mark.contender_id];
              if (!own) return null;
              return (
                <tr key={mark.contender_id} className="border-b border-line-soft">
                  <th scope="row" className="px-2 py-1">
                    <Badge mark={mark} isReference={mark.contender_id === reference} />
                  </th>
                  {GROUPS.map((group) => {
                    const cell =
                      group.of === 'by_axis' ? own.by_axis[group.key] : own.by_kind[group.key];
                    return (
                      <DeviationCell
                        key={group.title}
                        value={cell.bias_mm}
                        neutral={neutral}
                        figure={addressOf(
                          'accuracy',
                          mark.contender_id,
                          `${group.of}.${group.key}.bias_mm`,
                        )}
                      />
                    );
                  })}
                  <td className="px-2 text-right font-mono">
                    {own.max_abs_mm === null ? (
                      <Unknown />
                    ) : (
                      <button
                        type="button"
                        className="figure"
                        data-figure={addressOf('accuracy', mark.contender_id, 'max_abs_mm')}
                      >
                        {fixed(own.max_abs_mm, 2)}
                      </button>
                    )}
                  </td>
                  <td className="px-2 text-right whitespace-nowrap">
                    <InTolerance own={own} id={mark.contender_id} />
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </Leaving>
      <BySize marks={marks} accuracy={accuracy} reference={reference} />
    </section>
  );
}

/** Mean absolute deviation by nominal size: what grows with size is a matter of scale. */
function BySize({ marks, accuracy, reference }: Omit<WhereItIsOffProps, 'neutral'>) {
  const shown = SIZES.filter(({ key }) =>
    marks.some((mark) => (accuracy[mark.contender_id]?.by_size[key].n ?? 0) > 0),
  );
  if (shown.length < 2) return null;
  return (
    <div className="border-t border-line">
      <Leaving isPicture>
        <table className="w-full">
          <caption className="px-3 pt-2 text-left text-xs text-ink-2">
            mean absolute deviation by nominal size, mm
          </caption>
          <thead>
            <tr className="border-b border-line">
              <th className="th">
                <span className="sr-only">contender</span>
              </th>
              {shown.map(({ key, title }) => (
                <th key={key} className="th text-right">
                  {title}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {marks.map((mark) => {
              const own = accuracy[mark.contender_id];
              if (!own) return null;
              return (
                <tr key={mark.contender_id} className="border-b border-line-soft">
                  <th scope="row" className="px-2 py-1">
                    <Badge mark={mark} isReference={mark.contender_id === reference} />
                  </th>
                  {shown.map(({ key }) => {
                    const { mae_mm } = own.by_size[key];
                    return mae_mm === null ? (
                      <UnknownCell key={key} why="not measured" />
                    ) : (
                      <td key={key} className="px-2 text-right">
                        <button
                          type="button"
                          className="figure"
                          data-figure={addressOf(
                            'accuracy',
                            mark.contender_id,
                            `by_size.${key}.mae_mm`,
                          )}
                        >
                          {fixed(mae_mm, 3)}
                        </button>
                      </td>
                    );
                  })}
                </tr>
              );
            })}
          </tbody>
        </table>
      </Leaving>
    </div>
  );
}

interface DeviationCellProps {
  value: number | null;
  neutral: number;
  figure: string;
}

function DeviationCell({ value, neutral, figure }: DeviationCellProps) {
  if (value === null) {
    return <UnknownCell why="not measured" />;
  }
  const tone =
    Math.abs(value) < neutral
      ? ''
      : value < 0
        ? 'bg-small-soft text-small'
        : 'bg-large-soft text-large';
  return (
    <td className={`px-2 py-1 text-right ${tone}`}>
      <button type="button" className="figure" data-figure={figure}>
        {signed(value, 2)}
      </button>
    </td>
  );
}

function InTolerance({ own, id }: { own: AccuracySummary; id: string }) {
  const { inside, outside, undecided } = own.tolerance;
  const all = inside + outside + undecided;
  if (all === 0) return <Unknown why="no limits" />;
  return (
    <button
      type="button"
      className="figure"
      data-figure={addressOf('accuracy', id, 'tolerance.inside')}
      tabIndex={0}
      data-hint={`${inside} inside, ${outside} outside, ${undecided} undecided`}
    >
      {percent(inside / all)}
      {undecided > 0 && <span className="text-ink-2"> +{undecided}?</span>}
    </button>
  );
}
