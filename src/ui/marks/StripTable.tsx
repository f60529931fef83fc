import { Fragment, type ReactNode } from 'react';
import type { ContenderMark } from '../../core/model/study';
import { ContenderName } from './ContenderName';
import { StripAxis, type StripScale } from './DotStrip';
import { Leaving } from '../kit/Leaving';
import { Explain } from './Explain';
import { StripLegend, type StripLegendProps } from './StripLegend';

interface StripTableProps {
  /** The heads of the columns after the contender; the first is the strip's. */
  heads: readonly { text: string; isFigure?: boolean; term?: string }[];
  /** What the marks of the strips mean; null where they explain themselves. */
  legend?: StripLegendProps | null;
  rows: readonly {
    mark: ContenderMark;
    strip: ReactNode;
    /** The cells after the strip. */
    cells: ReactNode;
    /** What is said of the row, over its whole width. */
    below?: ReactNode;
  }[];
  reference: string | null;
  scale: StripScale;
  digits: number;
  /** What stands under the cells, beside the axis. */
  foot?: ReactNode;
}

const SPECIMENS: StripLegendProps = { dot: 'one specimen', hasBand: true };

/** Strips of all contenders on one shared scale, each with its figures beside it. */
export function StripTable(props: StripTableProps) {
  const { heads, rows, reference, scale, digits, foot, legend = SPECIMENS } = props;
  return (
    <>
      <Leaving isPicture>
        <table className="w-full min-w-[760px]">
          <thead>
            <tr className="border-b border-line">
              <th className="th pl-3">contender</th>
              {heads.map((head) => (
                <th key={head.text} className={`th ${head.isFigure ? 'text-right' : ''}`}>
                  {head.text}
                  {head.term !== undefined && <Explain term={head.term} />}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ mark, strip, cells, below }) => (
              <Fragment key={mark.contender_id}>
                <tr className="border-b border-line-soft">
                  <th scope="row" className="w-[168px] py-0 pl-3 text-left font-normal">
                    <ContenderName mark={mark} isReference={mark.contender_id === reference} />
                  </th>
                  <td className="min-w-[200px] p-0">{strip}</td>
                  {cells}
                </tr>
                {below && (
                  <tr>
                    <td colSpan={heads.length + 1} className="pb-2 pl-3 text-xs text-ink-2">
                      <div className="sticky left-3 w-fit max-w-[calc(100vw-48px)]">{below}</div>
                    </td>
                  </tr>
                )}
              </Fragment>
            ))}
            <tr>
              <td />
              <td className="p-0">
                <StripAxis scale={scale} digits={digits} />
              </td>
              <td colSpan={heads.length - 1} className="px-3 text-xs text-ink-2">
                {foot}
              </td>
            </tr>
          </tbody>
        </table>
      </Leaving>
      {legend && <StripLegend {...legend} />}
    </>
  );
}
