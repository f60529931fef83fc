import { TRIAL_FEATURES } from '../../core/model/study/catalogues';
import { inWords } from '../../core/model/study/labels';
import type { MachineDossier } from '../../contract/workshop';
import { duration, percent, ends } from '../lib/format';
import { TrialDiscs } from '../marks/TrialDiscs';
import { Sheet } from './Sheet';

/** Faults provoked and features used on purpose: how it answered, k of n with what that allows. */
export function TrialSheet({ trials }: Pick<MachineDossier, 'trials'>) {
  const tried = new Map(trials.map((one) => [one.feature, one]));
  const rows = [...TRIAL_FEATURES].filter((feature) => feature !== 'other' || tried.has(feature));
  return (
    <Sheet title="Feature and fault tests">
      <table className="w-full">
        <thead>
          <tr className="border-b border-line">
            <th className="th">
              <span className="sr-only">feature</span>
            </th>
            <th className="th">how it answered</th>
            <th className="th text-right">as promised</th>
          </tr>
        </thead>
        <tbody>
          {rows.map((feature) => {
            const own = tried.get(feature);
            return (
              <tr key={feature} className="border-b border-line-soft">
                <th scope="row" className="px-2 py-1 text-left font-normal">
                  {inWords(feature)}
                </th>
                {own ? (
                  <>
                    <td className="px-2">
                      <TrialDiscs outcomes={own.rows.map((row) => row.outcome)} />{' '}
                      <span className="text-2xs text-ink-2">{answer(own)}</span>
                    </td>
                    <td className="px-2 text-right whitespace-nowrap">
                      <span className="font-mono">
                        {own.sum.as_promised} of {own.sum.trials}
                      </span>
                      <span className="block text-2xs text-ink-2">
                        {ends(own.sum.share, percent)}
                      </span>
                    </td>
                  </>
                ) : (
                  <>
                    <td className="px-2">
                      <span className="inline-block h-3 w-16 unknown" />
                    </td>
                    <td className="px-2 text-right text-ink-2">not tried</td>
                  </>
                )}
              </tr>
            );
          })}
        </tbody>
      </table>
    </Sheet>
  );
}

/** How it answered where it did not do what was promised; else how long it took. */
function answer({ rows, sum }: MachineDossier['trials'][number]): string {
  const worst = rows.find((row) => row.outcome !== 'as-promised') ?? rows[0];
  const words = worst?.observed ?? (worst && inWords(worst.outcome)) ?? '';
  const took =
    sum.delay_s !== null && !/\d/.test(words)
      ? `, ${sum.delay_s < 60 ? `${sum.delay_s} s` : duration(sum.delay_s)}`
      : '';
  const waste = worst?.waste_g ? `, ${worst.waste_g} g` : '';
  return `${words}${took}${waste}`;
}
