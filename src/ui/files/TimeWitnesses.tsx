import type { ToolpathFacts } from '../../core/toolpath';
import { duration, fixed } from '../lib/format';
import { DotStrip, scaleFor, StripAxis } from '../marks/DotStrip';
import { Unknown } from '../marks/Unknown';
import { Leaving } from '../kit/Leaving';

interface TimeWitnessesProps {
  facts: ToolpathFacts;
  /** Printing times of the prints that were made from the file. */
  actual: readonly { id: string; seconds: number }[];
}

/** How long it takes by everybody who says so: the file, the motion model, the machine. */
export function TimeWitnesses({ facts, actual }: TimeWitnessesProps) {
  const own = facts.annotated.time_s;
  const minutes = (seconds: number) => seconds / 60;
  const scale = scaleFor(
    [
      ...actual.map((print) => minutes(print.seconds)),
      minutes(facts.time_s),
      minutes(facts.constant_speed_s),
      ...(own === null ? [] : [minutes(own)]),
    ],
    0,
  );
  const mean =
    actual.length === 0
      ? null
      : actual.reduce((sum, print) => sum + print.seconds, 0) / actual.length;
  const rows = [
    { name: 'if nothing had to accelerate', seconds: facts.constant_speed_s, dots: [] },
    { name: 'by the file’s own word', seconds: own, dots: [] },
    { name: 'by the motion model', seconds: facts.time_s, dots: [] },
    { name: 'as it was printed', seconds: mean, dots: actual },
  ];
  return (
    <section className="min-w-0 sheet" aria-labelledby="witnesses">
      <header className="border-b border-line px-3 py-2">
        <h2 id="witnesses" className="font-semibold">
          How long it takes
        </h2>
        <p className="text-xs text-ink-2">
          {mean === null
            ? 'No print from this file has ended yet.'
            : `The prints took ${fixed(mean / facts.time_s, 2)} × the ` +
              `model${own === null ? '' : ` and ${fixed(mean / own, 2)} × the file’s own estimate`}; ` +
              'heating and pauses apart.'}
        </p>
      </header>
      <Leaving isPicture>
        <table className="w-full">
          <tbody>
            {rows.map((row) => (
              <tr key={row.name}>
                <th scope="row" className="w-[180px] px-3 text-left text-xs font-normal">
                  {row.name}
                </th>
                <td className="p-0">
                  <DotStrip
                    hue={4}
                    isTuned
                    scale={scale}
                    dots={row.dots.map((print) => ({
                      value: minutes(print.seconds),
                      label: `${print.id}: ${duration(print.seconds)}`,
                    }))}
                    interval={{
                      estimate: row.seconds === null ? null : minutes(row.seconds),
                      low: null,
                      high: null,
                    }}
                    label={`${row.name}: ${row.seconds === null ? 'not known' : duration(row.seconds)}`}
                  />
                </td>
                <td className="w-[84px] px-2 text-right font-mono">
                  {row.seconds === null ? <Unknown why="not stated" /> : duration(row.seconds)}
                </td>
              </tr>
            ))}
            <tr>
              <td />
              <td className="p-0">
                <StripAxis scale={scale} digits={0} />
              </td>
              <td className="px-2 text-right text-xs text-ink-2">min</td>
            </tr>
          </tbody>
        </table>
      </Leaving>
    </section>
  );
}
