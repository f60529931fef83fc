import type { Accuracy } from '../../measures/metrology';
import type { Interval } from '../../statistics/stats';
import { keysOf, type Axis } from '../../model/study';

/** One thing that is off along an axis, and what would mend it, in words. */
export interface AdviceText {
  axis: Axis;
  /** The material that it is for, where the prints are of several; else null. */
  type: string | null;
  /** What is off. */
  finding: string;
  /** What to enter; empty where nothing can be said. */
  remedy: string;
  before_mm: number;
  after_mm: number;
}

const AXIS_NAMES: Record<Axis, string> = { x: 'X', y: 'Y', z: 'Z', none: 'Round features' };

const hundredths = (value: number): string => Math.abs(value).toFixed(2);
/** Half the width of an interval, where it has ends: ± 0.004. */
const within = ({ low, high }: Interval, digits: number, factor = 1): string =>
  low === null || high === null ? '' : ` ± ${((factor * (high - low)) / 2).toFixed(digits)}`;
const signed = (value: number): string => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(3)}`;

/**
 * What the fits of a contender's axes advise, where they advise anything; of prints in several materials
 * each material's own.
 */
export function describeAdvice({ fit, fit_by_type: byType = null }: Advised): AdviceText[] {
  if (!byType) return adviceOf(fit, null);
  return Object.entries(byType).flatMap(([type, own]) => adviceOf(own, type));
}

type Advised = Pick<Accuracy, 'fit'> & Partial<Pick<Accuracy, 'fit_by_type'>>;

function adviceOf(fits: Accuracy['fit'], type: string | null): AdviceText[] {
  return keysOf(fits).flatMap((axis) => {
    const advice = fits[axis]?.advice;
    if (!advice || advice.terms.length === 0) return [];
    const findings: string[] = [];
    const remedies: string[] = [];
    if (advice.scale_to_enter?.estimate != null) {
      const off = 100 * (1 / advice.scale_to_enter.estimate - 1);
      findings.push(`${Math.abs(off).toFixed(2)} % ${off < 0 ? 'small' : 'large'}`);
      remedies.push(
        `scale ${(100 * advice.scale_to_enter.estimate).toFixed(2)}${within(advice.scale_to_enter, 2, 100)} %`,
      );
    }
    if (advice.wall_compensation_mm?.estimate != null) {
      const walls = -2 * advice.wall_compensation_mm.estimate;
      const what = axis === 'z' ? 'heights' : 'walls';
      const way = axis === 'z' ? (walls > 0 ? 'high' : 'low') : walls > 0 ? 'fat' : 'thin';
      findings.push(`${what} ${hundredths(walls)} mm too ${way}`);
      remedies.push(
        axis === 'z'
          ? `Z offset ${signed(-walls)}${within(advice.wall_compensation_mm, 3, 2)} mm`
          : `${signed(advice.wall_compensation_mm.estimate)}${within(advice.wall_compensation_mm, 3)} mm per wall`,
      );
    }
    if (advice.hole_extra_mm?.estimate != null) {
      const lost = 2 * advice.hole_extra_mm.estimate;
      findings.push(`holes ${lost > 0 ? 'lose' : 'gain'} another ${hundredths(lost)} mm`);
      remedies.push(
        `holes ${signed(advice.hole_extra_mm.estimate)}${within(advice.hole_extra_mm, 3)} mm more per wall`,
      );
    }
    return [
      {
        axis,
        type,
        finding: `${AXIS_NAMES[axis]}${type === null ? '' : ` in ${type}`}: ${findings.join('; ')}`,
        remedy: remedies.join(', '),
        before_mm: advice.mae_before_mm,
        after_mm: advice.mae_after_mm,
      },
    ];
  });
}
