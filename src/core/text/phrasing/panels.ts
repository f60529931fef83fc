import {
  chanceOf,
  FEW_JUDGES,
  HASTY_S,
  type PairedPanel,
  type Panel,
  type PanelHabits,
  type TellingPanel,
} from '../../measures/panels';
import type { Interval } from '../../statistics/stats';
import { listed } from './lists';

/** Whom of two a paired panel prefers, over one contender and all that were shown with it. */
export interface Preference {
  contender: string;
  /** Of 100 people who see it beside the reference, so many would prefer it; null for the reference. */
  share: Interval | null;
  verdict:
    | 'preferred'
    | 'not preferred'
    | 'no preference'
    | 'reference'
    | 'always'
    | 'never'
    | 'few judges'
    | 'unknown';
}

const shareOf = (logAbility: number): number => 1 / (1 + Math.exp(-logAbility));

/** How each contender of a paired panel stands against the reference; the best one first. */
export function preferencesOf(panel: PairedPanel, reference: string | null): Preference[] {
  const place = ({ contender, share, verdict }: Preference): number =>
    verdict === 'always'
      ? 2
      : verdict === 'never'
        ? -1
        : contender === reference
          ? 0.5
          : (share?.estimate ?? -0.5);
  return Object.entries(panel.abilities)
    .map(([contender, own]): Preference => {
      // By judge where judges said several things: those hang together.
      const log = own.log_ability_by_judge ?? own.log_ability;
      if (contender === reference) return { contender, share: null, verdict: 'reference' };
      if (own.unbounded !== null) {
        return { contender, share: null, verdict: own.unbounded === 'above' ? 'always' : 'never' };
      }
      if (own.notes.includes(FEW_JUDGES)) return { contender, share: null, verdict: 'few judges' };
      if (log === null || log.estimate === null || log.low === null || log.high === null) {
        return { contender, share: null, verdict: 'unknown' };
      }
      const share = {
        estimate: shareOf(log.estimate),
        low: shareOf(log.low),
        high: shareOf(log.high),
      };
      const verdict = log.low > 0 ? 'preferred' : log.high < 0 ? 'not preferred' : 'no preference';
      return { contender, share, verdict };
    })
    .sort((a, b) => place(b) - place(a));
}

const hundred = (share: number): string => String(Math.round(100 * share));

/**
 * What a panel found, in sentences.
 *
 * @param named what contenders are called
 * @param isWithheld whether it has no verdict yet, as its judges answered too fast
 */
export function describePanel(
  panel: Panel,
  reference: string | null,
  named: (contender: string) => string,
  alpha: number,
  isWithheld = false,
): string[] {
  if (panel.ballots === 0) return ['No one has judged yet.'];
  if (isWithheld) {
    return [
      `No verdict: half of the answers came in under ${HASTY_S} s. The organiser must look at them first.`,
    ];
  }
  if (panel.kind !== 'paired') return describeTelling(panel, alpha);
  const all = preferencesOf(panel, reference);
  const than = reference === null ? 'the reference' : named(reference);
  const of = (verdict: Preference['verdict']) => all.filter((one) => one.verdict === verdict);
  const shares = (some: readonly Preference[]) =>
    listed(
      some.map(({ contender, share }) =>
        share?.estimate == null
          ? named(contender)
          : `${named(contender)} (${hundred(share.estimate)} of 100 people, ${hundred(share.low ?? 0)} ` +
            `to ${hundred(share.high ?? 1)})`,
      ),
    );
  const names = (some: readonly Preference[]) =>
    listed(some.map(({ contender }) => named(contender)));
  const said: string[] = [];
  if (of('preferred').length > 0) said.push(`Preferred to ${than}: ${shares(of('preferred'))}.`);
  if (of('not preferred').length > 0) {
    said.push(`${than} is preferred to ${shares(of('not preferred'))}.`);
  }
  if (of('no preference').length > 0) {
    said.push(`Between ${than} and ${shares(of('no preference'))} no preference shows.`);
  }
  if (of('always').length > 0)
    said.push(`Preferred every time, so there is no upper limit: ${names(of('always'))}.`);
  if (of('never').length > 0)
    said.push(`Never preferred, so without bound: ${names(of('never'))}.`);
  if (of('few judges').length > 0) {
    said.push(
      `No verdict on ${names(of('few judges'))}: judges gave several answers each, and there are ` +
        'too few of them. It takes at least six judges, or one ballot each.',
    );
  }
  if (of('unknown').length > 0)
    said.push(`Cannot be ranked by these ballots: ${names(of('unknown'))}.`);
  return said;
}

/** Whether people can tell, by each judge's first ballot where one has several. */
function describeTelling(panel: TellingPanel, alpha: number): string[] {
  const { kind, ballots, correct, p, first_ballots: first, discriminators } = panel;
  const counted = first ?? { ballots, correct, p };
  const what = first === null ? 'answers' : 'first answers';
  const guessed = hundred((counted.ballots * chanceOf(kind)) / 100);
  const counts = `${counted.correct} of ${counted.ballots} ${what} were right, ${guessed} by guessing alone`;
  const chance =
    `p = ${(counted.p ?? 1) < 0.001 ? '< 0.001' : (counted.p ?? 1).toFixed(3)}`.replace('= <', '<');
  if (counted.p !== null && counted.p < alpha) {
    const { estimate, low, high } = discriminators;
    return [
      `People can see a difference: ${counts} (${chance}).`,
      `Of 100 people about ${hundred(estimate ?? 0)} really can (${hundred(low ?? 0)} to ${hundred(high ?? 1)}).`,
    ];
  }
  return [
    `No difference could be shown: ${counts} (${chance}).`,
    `As far as these ballots say, no more than ${hundred(discriminators.high ?? 1)} of 100 people really can.`,
  ];
}

/** How the judges answered, in sentences: what speaks for and against the panel. */
export function describeHabits(
  { places, left_p, agreement }: PanelHabits,
  alpha: number,
): string[] {
  const said: string[] = [];
  if (agreement) {
    said.push(
      `Judges gave the same answer to a repeated question in ${agreement.same} of ${agreement.asked} cases.`,
    );
  }
  const [left = 0, right = 0] = places;
  if (left_p !== null) {
    said.push(
      left_p < alpha
        ? `They lean to one side: ${left} times left, ${right} times right (p = ` +
            `${left_p.toFixed(3)}). Sides were swapped, so no contender gains from it, but it hides ` +
            'differences.'
        : `They lean to no side: ${left} times left, ${right} times right.`,
    );
  }
  return said;
}
