import { doubtReading } from '../../../core/measures/metrology/doubt';
import type { BenchDimension } from '../../../contract/measure';
import { fixed, signed } from '../../lib/format';
import { Leaving } from '../../kit/Leaving';

interface PastedColumnProps {
  values: readonly number[];
  /** The dimensions that the values fall on, from the present one on. */
  targets: readonly BenchDimension[];
  zero_mm: number;
  onKeep: () => void;
  onCancel: () => void;
}

/** A column from a spreadsheet: which value falls on which dimension, before anything is kept. */
export function PastedColumn({ values, targets, zero_mm, onKeep, onCancel }: PastedColumnProps) {
  const isFitting = values.length <= targets.length;
  return (
    <section className="sheet p-4" aria-label="Pasted column">
      <h2 className="text-base font-semibold">{values.length} values were pasted</h2>
      {!isFitting && (
        <p role="alert" className="text-warn">
          There are only {targets.length} dimensions from here on: the last{' '}
          {values.length - targets.length} values have no place. Nothing was saved.
        </p>
      )}
      <Leaving>
        <table className="my-2 w-full max-w-lg">
          <thead>
            <tr className="border-b border-line">
              <th className="th">dimension</th>
              <th className="th text-right">value</th>
              <th className="th text-right">from nominal</th>
            </tr>
          </thead>
          <tbody>
            {values.slice(0, targets.length).map((value, at) => {
              const target = targets[at];
              if (!target) return null;
              const doubt = doubtReading(value - zero_mm, target.nominal_mm);
              return (
                <tr
                  key={target.id}
                  className={`border-b border-line-soft ${doubt ? 'bg-warn-soft' : ''}`}
                >
                  <th scope="row" className="px-2 py-0.5 text-left font-normal">
                    {target.name}
                  </th>
                  <td className="px-2 text-right font-mono">{fixed(value, 2)}</td>
                  <td className="px-2 text-right font-mono">
                    {signed(value - zero_mm - target.nominal_mm, 2)}
                    {doubt && <span className="ml-1 text-warn">far off</span>}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </Leaving>
      <div className="flex gap-2">
        <button
          type="button"
          className="action action-main"
          disabled={!isFitting}
          autoFocus
          onClick={onKeep}
        >
          Save all
        </button>
        <button type="button" className="action" onClick={onCancel}>
          Discard all
        </button>
      </div>
    </section>
  );
}
