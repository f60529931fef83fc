import type { ContenderMark } from '../../core/model/study';
import { Leaving } from '../kit/Leaving';
import { ContenderName } from '../marks/ContenderName';
import { UnknownCell } from '../marks/Unknown';

interface BesideTableProps {
  own: ContenderMark;
  other: ContenderMark;
  /** What the first column names. */
  head: string;
  rows: readonly { what: string; own: string | null; other: string | null }[];
}

/** Two contenders beside each other, row by row; what is not known is hatched. */
export function BesideTable({ own, other, head, rows }: BesideTableProps) {
  return (
    <Leaving>
      <table className="w-full text-xs">
        <thead>
          <tr className="border-b border-line">
            <th className="th">{head}</th>
            {[own, other].map((mark) => (
              <th key={mark.contender_id} className="th">
                <ContenderName mark={mark} isReference={mark === other} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row) => (
            <tr key={row.what} className="border-b border-line-soft">
              <th scope="row" className="px-2 py-1 text-left font-normal text-ink-2">
                {row.what}
              </th>
              {[row.own, row.other].map((value, at) =>
                value === null ? (
                  <UnknownCell key={at} />
                ) : (
                  <td key={at} className="px-2 font-mono">
                    {value}
                  </td>
                ),
              )}
            </tr>
          ))}
        </tbody>
      </table>
    </Leaving>
  );
}
