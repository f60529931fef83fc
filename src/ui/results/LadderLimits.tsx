import type { LadderLimit } from '../../core/measures/ladders';
import type { ContenderMark } from '../../core/model/study';
import { ContenderName } from '../marks/ContenderName';
import { Unknown, UnknownCell } from '../marks/Unknown';
import { Leaving } from '../kit/Leaving';

interface LadderLimitsProps {
  name: string;
  artefact: string;
  /** Key of the ladder in the results: `artefact/ladder`. */
  ladder: string;
  marks: readonly ContenderMark[];
  results: Record<string, Record<string, LadderLimit>>;
  reference: string | null;
}

/** One ladder, every contender on it: each step with how many specimens pass it, and the limit. */
export function LadderLimits(props: LadderLimitsProps) {
  const { name, artefact, ladder, marks, results, reference } = props;
  const shown = marks.flatMap((mark) => {
    const own = results[mark.contender_id]?.[ladder];
    return own ? [{ mark, own }] : [];
  });
  const steps = shown[0]?.own.by_step ?? [];
  const unit = shown[0]?.own.unit ?? '';
  return (
    <section className="min-w-0 sheet" aria-label={`${name}, ${artefact}`}>
      <header className="border-b border-line px-3 py-2">
        <h2 className="font-semibold">
          {name} <span className="font-normal text-ink-2">{artefact}</span>
        </h2>
        <p className="text-xs text-ink-2">
          a step’s bar: how many specimens pass it clear (full), with effort (pale), not (empty)
        </p>
      </header>
      <Leaving isPicture>
        <table className="w-full text-xs">
          <thead>
            <tr className="border-b border-line">
              <th className="th">
                <span className="max-sm:sr-only">contender</span>
              </th>
              {steps.map((step) => (
                <th key={step.step} className="th text-center max-sm:px-0.5">
                  {step.value}
                </th>
              ))}
              <th className={`${END} th`}>limit ({unit})</th>
              <th className={`${END} th`}>with effort</th>
              <th className={`${END} th`}>specimens</th>
            </tr>
          </thead>
          <tbody>
            {shown.map(({ mark, own }) => (
              <tr key={mark.contender_id} className="border-b border-line-soft">
                <th scope="row" className="px-2 py-1 text-left text-sm font-normal">
                  <ContenderName
                    mark={mark}
                    isReference={mark.contender_id === reference}
                    isShortOnPhone
                  />
                </th>
                {own.by_step.map((step) => (
                  <td key={step.step} className="px-1 max-sm:px-0.5">
                    <StepBar step={step} hue={mark.hue} />
                  </td>
                ))}
                <td className={`${END} font-mono`}>
                  {own.limit ?? <Unknown why={own.notes.join('; ') || 'none is passed'} />}
                </td>
                <td className={`${END} font-mono`}>
                  {own.limit_with_effort ?? (
                    <Unknown why={own.notes.join('; ') || 'none is passed'} />
                  )}
                </td>
                <td className={`${END} font-mono`}>{own.specimens}</td>
              </tr>
            ))}
            {marks
              .filter((mark) => !results[mark.contender_id]?.[ladder])
              .map((mark) => (
                <tr key={mark.contender_id} className="border-b border-line-soft">
                  <th scope="row" className="px-2 py-1 text-left text-sm font-normal">
                    <ContenderName
                      mark={mark}
                      isReference={mark.contender_id === reference}
                      isShortOnPhone
                    />
                  </th>
                  <UnknownCell span={steps.length + 3} why="no specimen: not tested" />
                </tr>
              ))}
          </tbody>
        </table>
      </Leaving>
    </section>
  );
}

const END = 'px-2 text-right max-sm:px-1 max-sm:whitespace-normal';
const WIDTH = 44;
/** As wide as that where there is room, and narrower on a phone, so that the limit is beside the steps. */
const BAR = 'h-4 w-11 max-sm:w-full max-sm:min-w-4';

function StepBar({ step, hue }: { step: LadderLimit['by_step'][number]; hue: number }) {
  const tested = step.clear + step.effort + step.fail + step.broken;
  const label =
    `${step.value}: ${step.clear} clear, ${step.effort} with effort, ${step.fail} fail, ` +
    `${step.broken} broken, ${step.untested} untested`;
  if (tested === 0) {
    return (
      <span className={`mx-auto block ${BAR} unknown`} tabIndex={0} data-hint={label}>
        <span className="sr-only">{label}</span>
      </span>
    );
  }
  const clear = (WIDTH * step.clear) / tested;
  const effort = (WIDTH * step.effort) / tested;
  return (
    <svg
      className={`hue-${hue} mx-auto block overflow-visible ${BAR}`}
      viewBox={`0 0 ${WIDTH} 16`}
      preserveAspectRatio="none"
      role="img"
      aria-label={label}
      data-hint={label}
    >
      <rect width={clear} height={16} fill="var(--hue)" />
      <rect x={clear} width={effort} height={16} fill="var(--hue)" fillOpacity={0.35} />
      <rect
        x={0.5}
        y={0.5}
        width={WIDTH - 1}
        height={15}
        fill="none"
        stroke="var(--hue)"
        vectorEffect="non-scaling-stroke"
      />
    </svg>
  );
}
