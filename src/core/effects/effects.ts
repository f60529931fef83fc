import { compareFamily, type PairRow } from '../compare';
import { oneSideInterval, unknownInterval, type Interval, type PrintValues } from '../stats';
import { groupBy, type StudyIndex } from '../study';
import { NO_TERM, typeTwo, type Effect, type Observation, type Term } from './type-two';

/** The profile's kinds, which the analysis crosses with machines. */
export type ProfileKind = 'stock' | 'tuned';

/** How a response hangs on machine and profile. */
export interface Effects {
  /** Prints that take part: those of machines that were printed with both kinds of profile. */
  n: number;
  /** Terms of the analysis of variance; the artefact is there where there are several. */
  terms: {
    artefact?: Term;
    machine: Effect;
    profile: Effect;
    'machine:profile': Effect;
  };
  residual: { df: number | null; ss: number | null };
  /** By machine: what tuning gains, in the response's own unit; positive is a gain. */
  gain: Record<string, Interval>;
  /** By machine: tuned against stock in the unit of the study's pairs, with its verdict. */
  verdicts: Record<string, PairRow | null>;
  /** By machine and kind of profile: the response, over prints by the one-side rule. */
  cells: Record<string, Record<ProfileKind, Interval>>;
  /** What the design cannot tell, in words. */
  notes: string[];
}

/** What the effects of a response are computed from. */
export interface Response {
  /** The response of each print of a contender, by artefact. */
  valuesOf: (contenderId: string) => PrintValues;
  /** Whether more is better, so that a gain is tuned less stock. */
  isLargerBetter: boolean;
  /** The verdict of a tuned contender against its stock one; null where there is none. */
  verdictOf: (tuned: string, stock: string) => PairRow | null;
}

const KINDS: readonly ProfileKind[] = ['stock', 'tuned'];

/**
 * The analysis of variance of a response over machines × {stock, tuned}, artefacts as a block, and
 * what tuning gains on each machine by the two-side rule.
 *
 * @param alpha intervals of the gains are two-sided 1 − alpha
 */
export function effectsOf(index: StudyIndex, response: Response, alpha: number): Effects {
  const notes: string[] = [];
  const ofMachine = groupBy(index.study.tables.contenders, (row) => row.machine_id);
  const values: Record<string, Record<ProfileKind, PrintValues>> = {};
  const verdicts: Effects['verdicts'] = {};
  for (const [machine, contenders] of [...ofMachine].sort(([a], [b]) => (a < b ? -1 : 1))) {
    const own = Object.fromEntries(
      KINDS.map((kind) => {
        const ids = contenders
          .filter((row) => index.profiles.get(row.profile_id)?.kind === kind)
          .map((row) => row.contender_id);
        return [kind, { ids, values: together(ids.map(response.valuesOf)) }];
      }),
    ) as Record<ProfileKind, { ids: string[]; values: PrintValues }>;
    const missing = KINDS.filter((kind) => own[kind].values.size === 0);
    if (missing.length > 0) {
      notes.push(`${machine} is left out: no print of a ${missing.join(' or a ')} profile`);
      continue;
    }
    values[machine] = { stock: own.stock.values, tuned: own.tuned.values };
    const [stock, tuned] = [own.stock.ids, own.tuned.ids];
    verdicts[machine] =
      stock.length === 1 && tuned.length === 1
        ? response.verdictOf(tuned[0] ?? '', stock[0] ?? '')
        : null;
  }
  const observations = Object.entries(values).flatMap(([machine, own]) =>
    KINDS.flatMap((profile) =>
      [...own[profile]].flatMap(([artefact, all]) =>
        all.map((value): Observation => ({ machine, profile, artefact, value })),
      ),
    ),
  );
  const ofEach = <Found>(find: (own: Record<ProfileKind, PrintValues>) => Found) =>
    Object.fromEntries(Object.entries(values).map(([machine, own]) => [machine, find(own)]));
  const gain = ofEach((own) => gainOf(own, response.isLargerBetter, alpha));
  const cells = ofEach(({ stock, tuned }) => ({
    stock: oneSideInterval(stock, alpha),
    tuned: oneSideInterval(tuned, alpha),
  }));
  const found = { n: observations.length, gain, verdicts, cells };
  if (observations.length === 0) {
    notes.push('no machine was printed with both kinds of profile: no analysis');
    const terms = { machine: NO_TERM, profile: NO_TERM, 'machine:profile': NO_TERM };
    return { ...found, terms, residual: { df: null, ss: null }, notes };
  }
  if (Object.keys(values).length < 2) {
    notes.push(
      'one machine was printed with both kinds of profile: nothing of machines can be told',
    );
  }
  const { artefact, machine, profile, interaction, residual } = typeTwo(observations);
  if (residual.df === 0) notes.push('no print is repeated: there is no scatter to judge by');
  else if (residual.ss === 0) notes.push('prints do not scatter at all: no test');
  return {
    ...found,
    terms: { ...(artefact && { artefact }), machine, profile, 'machine:profile': interaction },
    residual,
    notes,
  };
}

/** The values of several contenders as those of one. */
function together(all: readonly PrintValues[]): PrintValues {
  const joined = new Map<string, number[]>();
  for (const [artefact, values] of all.flatMap((one) => [...one])) {
    joined.set(artefact, [...(joined.get(artefact) ?? []), ...values]);
  }
  return joined;
}

function gainOf(
  { stock, tuned }: Record<ProfileKind, PrintValues>,
  isLargerBetter: boolean,
  alpha: number,
): Interval {
  const [better, other] = isLargerBetter ? [tuned, stock] : [stock, tuned];
  const [row] = compareFamily(
    [{ contender: 'own', contenderValues: better, referenceValues: other }],
    { reference: 'other', alpha, delta: null, isLargerBetter: true },
  );
  return row?.difference ?? unknownInterval('stock and tuned have no artefact in common');
}
