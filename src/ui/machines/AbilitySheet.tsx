import { inWords } from '../../core/model/study/labels';
import type { MachineDossier } from '../../contract/workshop';
import { fixed, percent, ends } from '../lib/format';
import { UnknownCell } from '../marks/Unknown';
import { Sheet } from './Sheet';

const GRADES = ['none', 'slight', 'moderate', 'marked', 'severe'];

/** What the machine does with each type of material; what was never tried is hatched. */
export function AbilitySheet({ ability }: Pick<MachineDossier, 'ability'>) {
  return (
    <Sheet title="What it can print" isEmpty={ability.length === 0} empty="It printed nothing yet.">
      <table className="w-full">
        <thead>
          <tr className="border-b border-line">
            <th className="th">
              <span className="sr-only">material</span>
            </th>
            <th className="th text-right">good</th>
            <th className="th text-right">surface</th>
            <th className="th">worst</th>
          </tr>
        </thead>
        <tbody>
          {ability.map(({ type, known, note }) => (
            <tr key={type} className="border-b border-line-soft">
              <th scope="row" className="px-2 py-1 text-left font-normal">
                {type}
                {note && (
                  <span className="block text-2xs text-ink-2">
                    {[note.needs && `needs ${note.needs}`, note.text].filter(Boolean).join(': ')}
                  </span>
                )}
              </th>
              {known ? (
                <td
                  className="px-2 text-right font-mono"
                  data-hint={`success ${ends(known.success, percent)}`}
                >
                  {known.good}/{known.prints}
                </td>
              ) : (
                <UnknownCell why="never tried" />
              )}
              {known?.surface == null ? (
                <UnknownCell why="no part was inspected" />
              ) : (
                <td className="px-2 text-right font-mono">{fixed(known.surface, 0)}</td>
              )}
              {known?.surface == null ? (
                <UnknownCell why="no part was inspected" />
              ) : (
                <td className="px-2">
                  {known.worst
                    ? `${inWords(known.worst.defect)}, ${GRADES[Math.max(1, Math.round(known.worst.grade))] ?? ''}`
                    : 'clean'}
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </Sheet>
  );
}
