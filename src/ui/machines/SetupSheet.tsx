import { inWords } from '../../core/model/study/labels';
import { stateOf } from '../../core/measures/dossier/setup';
import type { MachineDossier } from '../../contract/workshop';
import { counted, duration, fixed } from '../lib/format';
import { GradeDisc } from '../marks/GradeDisc';
import { Unknown } from '../marks/Unknown';
import { Sheet } from './Sheet';

const SNAGS = ['no snag', 'a trifle', 'a snag', 'a serious snag', 'it stopped the work'];

/** What it took until the first print, and how the machine was found. */
export function SetupSheet({
  setup,
  steps,
  checks,
}: Pick<MachineDossier, 'setup' | 'steps' | 'checks'>) {
  const about =
    setup && steps.length > 0
      ? [
          setup.minutes !== null && `${fixed(setup.minutes, 0)} min`,
          setup.hands_min !== null && `${fixed(setup.hands_min, 0)} of hands-on time`,
          counted(setup.snags, 'snag'),
        ]
          .filter(Boolean)
          .join(', ')
      : '';
  const isEmpty = steps.length === 0 && checks.length === 0 && (setup?.heat_up.length ?? 0) === 0;
  return (
    <Sheet
      title="Set-up"
      about={about}
      isEmpty={isEmpty}
      empty="No set-up steps have been written down."
    >
      {steps.length > 0 && <StepTable steps={steps} />}
      {(checks.length > 0 || (setup?.heat_up.length ?? 0) > 0) && (
        <CheckTable checks={checks} setup={setup} />
      )}
    </Sheet>
  );
}

interface CheckTableProps {
  checks: MachineDossier['checks'];
  setup: MachineDossier['setup'];
}

/** The function checks, each with its trials. */
function CheckTable({ checks, setup }: CheckTableProps) {
  return (
    <table className="w-full">
      <thead>
        <tr className="border-y border-line">
          <th className="th">check</th>
          <th className="th text-right">found</th>
          <th className="th">limit</th>
          <th className="th" />
        </tr>
      </thead>
      <tbody>
        {checks.map((check, at) => {
          const state = stateOf(check);
          return (
            <tr key={at} className="border-b border-line-soft">
              <th
                scope="row"
                className="px-2 py-1 text-left font-normal"
                data-hint={check.method ?? undefined}
              >
                {inWords(check.what)}
                {check.unit && <span className="text-ink-2">, {check.unit}</span>}
              </th>
              <td className="px-2 text-right font-mono">{check.value ?? <Unknown />}</td>
              <td className="px-2 font-mono whitespace-nowrap text-ink-2">{limits(check)}</td>
              <td className="px-2">
                {state === 'outside' ? (
                  <b>outside</b>
                ) : (
                  (state ?? <span className="text-ink-2">no limit</span>)
                )}
              </td>
            </tr>
          );
        })}
        {setup?.heat_up.map((heat) => (
          <tr
            key={`${heat.what} ${heat.from_c} ${heat.to_c}`}
            className="border-b border-line-soft"
          >
            <th scope="row" className="px-2 py-1 text-left font-normal">
              {heat.what} {heat.from_c} → {heat.to_c} °C
              <span className="text-ink-2">, min</span>
            </th>
            <td className="px-2 text-right font-mono">{duration(heat.seconds)}</td>
            <td />
            <td className="px-2 text-ink-2">n {heat.n}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

interface StepTableProps {
  steps: MachineDossier['steps'];
}

/** The steps of setting it up, with their minutes. */
function StepTable({ steps }: StepTableProps) {
  return (
    <table className="w-full">
      <thead className="sr-only">
        <tr>
          <th>step</th>
          <th>time</th>
          <th>snag</th>
        </tr>
      </thead>
      <tbody>
        {[...steps]
          .sort((a, b) => a.step - b.step)
          .map((step, at) => (
            <tr key={at} className="border-b border-line-soft">
              <th scope="row" className="px-2 py-1 text-left font-normal">
                {step.what}
                {(step.note ?? step.help) && (
                  <span className="block text-2xs text-ink-2">
                    {[step.note, step.help && step.help !== 'none' && `help: ${step.help}`]
                      .filter(Boolean)
                      .join(' · ')}
                  </span>
                )}
              </th>
              <td className="px-2 text-right font-mono">
                {step.minutes === null ? <Unknown /> : duration(step.minutes * 60)}
              </td>
              <td className="w-8 px-2">
                {step.snag === null ? (
                  <Unknown why="no grade" />
                ) : (
                  <span data-hint={SNAGS[step.snag]}>
                    <span className="sr-only">{SNAGS[step.snag]}</span>
                    <GradeDisc grade={step.snag} size={16} />
                  </span>
                )}
              </td>
            </tr>
          ))}
      </tbody>
    </table>
  );
}

function limits({ lower, upper }: { lower: number | null; upper: number | null }): string {
  if (lower !== null && upper !== null) return `${lower} … ${upper}`;
  if (upper !== null) return `≤ ${upper}`;
  return lower === null ? '' : `≥ ${lower}`;
}
