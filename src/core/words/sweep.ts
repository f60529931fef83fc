import type { Sweep, SweepLimit } from '../sweep';
import { listed } from './lists';

/**
 * How far a setting can be taken, in a sentence: where it holds to, what stops it, what is gained.
 *
 * @param labelOf what a figure is called
 */
export function saidSweep(
  sweep: Sweep,
  setting: string,
  labelOf: (figure: string) => string,
): string[] {
  const unit = sweep.unit === null ? '' : ` ${sweep.unit}`;
  const valueOf = (contender: string | undefined): string => {
    const steps = Object.values(sweep.figures)[0]?.steps ?? [];
    const step = steps.find((one) => one.contender === contender);
    return step ? `${step.value}${unit}` : 'not known';
  };
  const tested = Object.entries(sweep.figures).filter(([, own]) => own.delta !== null);
  if (tested.length === 0) {
    return [
      'Nothing is tested: say on Question what difference would matter, of accuracy, surface, success or a figure on photos.',
    ];
  }
  const first = valueOf(sweep.reference);
  const names = listed(tested.map(([figure]) => labelOf(figure)));
  const said: string[] = [];
  if (sweep.holds_to === null) {
    said.push(`No step after ${first} is shown to be as good: ${setting} stays there.`);
  } else if (sweep.limited_by.length === 0) {
    said.push(`Up to ${valueOf(sweep.holds_to)}, the last step, nothing is lost against ${first}: ${names}.`); // prettier-ignore
  } else {
    said.push(`Up to ${valueOf(sweep.holds_to)} nothing is lost against ${first}: ${names}.`);
  }
  const next = nextOf(sweep);
  for (const limit of sweep.limited_by) {
    said.push(saidLimit(limit, valueOf(next), labelOf(limit.figure)));
  }
  const { gain } = sweep;
  if (gain?.estimate != null) {
    const percent = (value: number) => `${Math.abs(100 * (1 - value)).toFixed(0)} %`;
    const ends =
      gain.low === null || gain.high === null
        ? ''
        : ` (${percent(gain.high)} to ${percent(gain.low)})`;
    const isShown = gain.high !== null && gain.high < 1;
    said.push(
      isShown
        ? `What is gained there: ${percent(gain.estimate)} less time${ends}.`
        : `That it gains time is not shown: ${percent(gain.estimate)} ${gain.estimate < 1 ? 'less' : 'more'}${ends}.`,
    );
  }
  return said;
}

/** The step after the last that holds. */
function nextOf(sweep: Sweep): string | undefined {
  const steps = Object.values(sweep.figures)[0]?.steps ?? [];
  const from = sweep.holds_to ?? sweep.reference;
  return steps[steps.findIndex((one) => one.contender === from) + 1]?.contender;
}

function saidLimit({ why, prints_needed }: SweepLimit, step: string, figure: string): string {
  if (why === 'lost') return `At ${step} it is lost: ${figure}.`;
  const more =
    prints_needed === null
      ? 'repeated prints are needed before a number can be said'
      : `${prints_needed} prints a step would show it if it is so`;
  return `At ${step} it is not shown that nothing is lost: ${figure}; ${more}.`;
}
