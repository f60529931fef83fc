import type { MethodExample } from '../../contract/results';
import { fixed } from '../lib/format';
import { ContenderName } from '../marks/ContenderName';
import { DotStrip, scaleFor, StripAxis } from '../marks/DotStrip';
import { StripLegend } from '../marks/StripLegend';
import { bandAbout } from './strips';

/** Two contenders of the study that the reader comes from, as a picture of what a term means. */
export function MethodPicture({ title, delta, rows }: MethodExample) {
  const scale = scaleFor(
    rows.flatMap(({ accuracy: { by_specimen, mae_mm } }) => [
      ...by_specimen.map((one) => one.mae_mm),
      mae_mm.low ?? 0,
      mae_mm.high ?? 0,
    ]),
    0,
  );
  const band = bandAbout(rows[0]?.accuracy.mae_mm.estimate, delta);
  return (
    <figure className="mt-3 max-w-[70ch] border border-line-soft">
      <table className="w-full">
        <tbody>
          {rows.map(({ mark, accuracy: { by_specimen, mae_mm } }, at) => (
            <tr key={mark.contender_id}>
              <th scope="row" className="w-[150px] pl-3 text-left font-normal">
                <ContenderName mark={mark} isReference={at === 0} />
              </th>
              <td>
                <DotStrip
                  hue={mark.hue}
                  isTuned={mark.isTuned}
                  scale={scale}
                  interval={mae_mm}
                  band={band}
                  dots={by_specimen.map((one) => ({
                    value: one.mae_mm,
                    label: `${fixed(one.mae_mm, 3)} mm`,
                  }))}
                  label={inWords(mark.label, mae_mm)}
                />
              </td>
            </tr>
          ))}
          <tr>
            <td />
            <td>
              <StripAxis scale={scale} digits={2} />
            </td>
          </tr>
        </tbody>
      </table>
      <StripLegend dot="one specimen" hasBand={band !== null} />
      <figcaption className="px-3 pb-2 text-xs text-ink-2">
        From “{title}”, mean deviation in mm.{' '}
        {rows.map(({ mark, accuracy }) => inWords(mark.label, accuracy.mae_mm)).join(' ')}
      </figcaption>
    </figure>
  );
}

const inWords = (
  label: string,
  { estimate, low, high }: MethodExample['rows'][number]['accuracy']['mae_mm'],
): string =>
  estimate === null
    ? `${label}: not known.`
    : low === null || high === null
      ? `${label}: ${fixed(estimate, 3)} mm.`
      : `${label}: ${fixed(estimate, 3)} mm, between ${fixed(low, 3)} and ${fixed(high, 3)} mm.`;
