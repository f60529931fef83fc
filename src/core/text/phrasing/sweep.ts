import type { Sweep, SweepLimit } from '../../measures/sweep';
import { columnLabel } from '../../model/study';
import { capital, listed } from './lists';

/**
 * How far a setting can be taken, in a sentence: where it holds to, what stops it, what is gained.
 *
 * @param labelOf what a figure is called
 */
export function describeSweep(sweep: Sweep, labelOf: (figure: string) => string): string[] {
  const setting = columnLabel(sweep.setting).label;
  const unit = sweep.unit === null ? '' : ` ${sweep.unit}`;
  const valueOf = (contender: string | undefined): string => {
    const steps = Object.values(sweep.figures)[0]?.steps ?? [];
    const step = steps.find((one) => one.contender === contender);
    return step ? `${step.value}${unit}` : 'not known';
  };
  const tested = Object.entries(sweep.figures).filter(([, own]) => own.delta !== null);
  if (tested.length === 0) {
    return [
      'Nothing is tested yet. State on Question what difference would matter: in accuracy, surface, ' +
        'success rate or a figure on photos.',
    ];
  }
  const first = valueOf(sweep.reference);
  const names = listed(tested.map(([figure]) => labelOf(figure)));
  const said: string[] = [];
  if (sweep.holds_to === null) {
    said.push(`No step after ${first} is shown to be as good. Keep ${setting} there.`);
  } else if (sweep.limited_by.length === 0) {
    said.push(
      `${capital(setting)} can go to ${valueOf(sweep.holds_to)}, the last step, ` +
        `without loss against ${first} in ${names}.`,
    );
  } else {
    said.push(
      `${capital(setting)} can go to ${valueOf(sweep.holds_to)} without loss against ${first} in ${names}.`,
    );
  }
  const next = nextOf(sweep);
  said.push(...describeLimits(sweep.limited_by, valueOf(next), labelOf));
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
        ? `Prints take ${percent(gain.estimate)} less time there${ends}.`
        : `A gain in time is not shown: ${percent(gain.estimate)} ${gain.estimate < 1 ? 'less' : 'more'}${ends}.`,
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

function describeLimits(
  limits: readonly SweepLimit[],
  step: string,
  labelOf: (figure: string) => string,
): string[] {
  const lost = limits.filter(({ why }) => why === 'lost').map(({ figure }) => labelOf(figure));
  const open = limits
    .filter(({ why }) => why === 'not_shown')
    .map(({ figure, prints_needed }) =>
      prints_needed === null
        ? `${labelOf(figure)} (repeat the prints first)`
        : `${labelOf(figure)} (${prints_needed} prints per step would show it)`,
    );
  return [
    ...(lost.length > 0 ? [`${step} is worse in ${listed(lost)}.`] : []),
    ...(open.length > 0 ? [`${step} may be worse in ${listed(open)}.`] : []),
  ];
}
