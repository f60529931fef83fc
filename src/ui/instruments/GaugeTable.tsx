import type { GaugeStudy } from '../../core/measures/gauge';
import { fixed } from '../lib/format';
import { Leaving } from '../kit/Leaving';

const BAR = 160;

/** What varies in a gauge study, as shares of all that varies; and what it means, in words. */
export function GaugeTable({ study, said }: { study: GaugeStudy; said: readonly string[] }) {
  const parts = [
    ['one hand repeats (EV)', study.ev_mm, study.ev_pct],
    ['operators differ (AV)', study.av_mm, study.av_pct],
    ['operators and parts together', study.interaction_mm, study.interaction_pct],
    ['instrument and operators (GRR)', study.grr_mm, study.grr_pct],
    ['the parts themselves (PV)', study.pv_mm, study.pv_pct],
  ] as const;
  return (
    <div className="p-3">
      <Leaving isPicture>
        <table className="text-xs">
          <thead>
            <tr>
              <th className="th">what varies</th>
              <th className="th text-right">mm</th>
              <th className="th" colSpan={2}>
                share of all
              </th>
            </tr>
          </thead>
          <tbody>
            {parts.map(([name, mm, share]) => (
              <tr key={name} className="border-t border-line-soft">
                <th scope="row" className="px-2 py-1 text-left font-normal">
                  {name}
                </th>
                <td className="px-2 text-right font-mono">{fixed(mm, 4)}</td>
                <td className="px-2">
                  <svg width={BAR} height={8} className="block" aria-hidden="true">
                    <rect width={BAR} height={8} fill="var(--band)" />
                    <rect width={(BAR * (share ?? 0)) / 100} height={8} fill="var(--plum)" />
                  </svg>
                </td>
                <td className="text-right font-mono">
                  {share === null ? '' : `${fixed(share, 1)} %`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Leaving>
      <p className="mt-2 text-xs text-ink-2">
        {study.parts} parts × {study.operators} operators × {study.trials} readings; distinct
        categories <b className="font-mono text-ink">{study.ndc ?? 'not known'}</b>. Shares are of
        standard deviations and do not add up to 100.
      </p>
      {said.map((sentence) => (
        <p key={sentence} className="mt-1">
          {sentence}
        </p>
      ))}
    </div>
  );
}
