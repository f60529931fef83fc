import { isAtLeast, isAtMost } from '../../../core/model/study';
import type { BenchDimension } from '../../../contract/measure';
import { fixed, signed } from '../../lib/format';
import type { BenchCell } from './use-specimen';
import { Leaving } from '../../kit/Leaving';

interface DimensionListProps {
  dimensions: readonly BenchDimension[];
  current: string | null;
  cellOf: (dimensionId: string) => BenchCell;
  zeroOf: (instrumentId: string | null) => number;
  /** Readings that the plan asks of each. */
  wanted: number;
  pending: ReadonlySet<string>;
  onChoose: (dimensionId: string) => void;
}

/** The dimensions of the specimen at hand, with what is known of each. */
export function DimensionList(props: DimensionListProps) {
  const { dimensions, current, cellOf, zeroOf, wanted, pending, onChoose } = props;
  return (
    <Leaving>
      <table className="w-full">
        <thead>
          <tr className="border-b border-line">
            <th className="th">dimension</th>
            <th className="th text-right">nominal</th>
            <th className="th text-right">mean</th>
            <th className="th text-right">deviation</th>
            <th className="th text-right">readings</th>
          </tr>
        </thead>
        <tbody>
          {dimensions.map((dimension) => {
            const cell = cellOf(dimension.id);
            const values = cell.readings.map((row) => row.value_mm - zeroOf(row.instrument_id));
            const mean =
              values.length === 0
                ? null
                : values.reduce((sum, one) => sum + one, 0) / values.length;
            const isCurrent = dimension.id === current;
            return (
              <tr
                key={dimension.id}
                className={`border-b border-line-soft ${isCurrent ? 'bg-plum-soft' : ''}`}
              >
                <th scope="row" className="p-0 text-left font-normal">
                  <button
                    type="button"
                    tabIndex={-1}
                    className="block w-full px-2 py-1.5 text-left hover:bg-plum-soft"
                    aria-current={isCurrent ? 'true' : undefined}
                    onClick={() => onChoose(dimension.id)}
                  >
                    {dimension.name}
                  </button>
                </th>
                <td className="px-2 text-right font-mono">{fixed(dimension.nominal_mm, 2)}</td>
                {mean === null ? (
                  <td colSpan={2} className={cell.isUnmeasurable ? 'px-2 text-right' : 'unknown'}>
                    {cell.isUnmeasurable ? (
                      <span className="text-ink-2">cannot be measured</span>
                    ) : (
                      <span className="sr-only">not measured</span>
                    )}
                  </td>
                ) : (
                  <>
                    <td className="px-2 text-right font-mono">{fixed(mean, 3)}</td>
                    <Deviation value={mean - dimension.nominal_mm} dimension={dimension} />
                  </>
                )}
                <td className="px-2 text-right font-mono whitespace-nowrap">
                  <span className="sr-only">{values.length}</span>
                  <span aria-hidden="true">
                    {cell.readings.map((row) => (pending.has(row.reading_id) ? '◌' : '●')).join('')}
                    {'○'.repeat(cell.isUnmeasurable ? 0 : Math.max(0, wanted - values.length))}
                  </span>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Leaving>
  );
}

function Deviation({ value, dimension }: { value: number; dimension: BenchDimension }) {
  const { lower_tol_mm: lower, upper_tol_mm: upper } = dimension;
  const isInside =
    (lower === null || isAtLeast(value, lower)) && (upper === null || isAtMost(value, upper));
  const tone = isInside ? '' : value < 0 ? 'bg-small-soft text-small' : 'bg-large-soft text-large';
  return (
    <td className={`px-2 text-right font-mono ${tone}`}>
      {signed(value, 3)}
      {!isInside && <span className="sr-only"> out of limits</span>}
    </td>
  );
}
