import { isAtMost, PART_SETTINGS, partsOfStratum, type StudyIndex } from '../../model/study';
import type { Fairness, FairnessItem, FairnessResult, SideValue } from './finding';
import { CIRCUMSTANCE_KEYS, roleOf, type Judged, type Ways } from './items';
import type { Fact } from './print-facts';
import { sidesOf, type Known, type Side, type Sides } from './side';
import { describeFairness } from './sentence';

/** Mean ambient temperatures that far apart count as the same, °C. */
const SAME_AMBIENT_C = 3;

/** Every contender against the reference on every stratum that both have printed. */
export function fairnessOfAll(index: StudyIndex, reference: string | null): Fairness[] {
  if (reference === null) return [];
  const sides = sidesOf(index);
  return index.study.tables.contenders
    .map((row) => row.contender_id)
    .filter((contender) => contender !== reference)
    .flatMap((contender) => pairOf(index, sides, contender, reference));
}

/** Two contenders on every stratum that both have printed. */
export const fairnessOfPair = (
  index: StudyIndex,
  contender: string,
  reference: string,
): Fairness[] => pairOf(index, sidesOf(index), contender, reference);

function pairOf(index: StudyIndex, sides: Sides, contender: string, reference: string): Fairness[] {
  const [ownSides, otherSides] = [sides.of(contender), sides.of(reference)];
  const common = [...ownSides.keys()].filter((stratum) => otherSides.has(stratum)).sort();
  return index.study.tables.artefacts.flatMap(({ artefact_id }) =>
    common.flatMap((stratum): Fairness[] => {
      const { artefact_id: artefact, type } = partsOfStratum(stratum);
      const own = ownSides.get(stratum);
      const others = otherSides.get(stratum);
      if (artefact !== artefact_id || !own || !others) return [];
      const pair = { contender, reference, artefact_id, own, others };
      const items = itemsOf(index, pair, sides.isKnown);
      const result = resultOf(items);
      const sentence = describeFairness(result, items);
      return [{ contender, reference, artefact_id, type, result, items, sentence }];
    }),
  );
}

interface Pair {
  contender: string;
  reference: string;
  artefact_id: string;
  own: Side;
  others: Side;
}

/** How two contenders are judged: in a crossed study two of one machine by what it is crossed with. */
function judgedAs(index: StudyIndex, contender: string, reference: string): Judged {
  const { intent, factor } = index.study.meta;
  if (intent !== 'crossed') return intent;
  const machine = (id: string) => index.contenders.get(id)?.machine_id;
  if (machine(contender) !== machine(reference)) return 'machines';
  return factor === 'material' ? 'materials' : 'tuning';
}

function itemsOf(index: StudyIndex, pair: Pair, isKnown: (key: string) => boolean): FairnessItem[] {
  const { contender, reference, own, others } = pair;
  const { intent, factor = null, sweep } = index.study.meta;
  const change = [contender, reference]
    .map((id) => index.contenders.get(id)?.change ?? '')
    .join(' ');
  const accepted = index.study.tables.accepted_differences.filter(
    (row) =>
      row.artefact_id === pair.artefact_id &&
      ((row.contender_id === contender && row.reference_id === reference) ||
        (row.contender_id === reference && row.reference_id === contender)),
  );
  const ways: Ways = {
    judged: judgedAs(index, contender, reference),
    change,
    swept: sweep?.setting,
    factor: intent === 'crossed' ? factor : null,
  };
  const item = (key: string, knownOf: (side: Side) => Known): FairnessItem => {
    const compare = key === 'ambient_c' ? compareMeans : compareFacts;
    const compared = compare(knownOf(own), knownOf(others));
    const acceptance = accepted.find((row) => row.item === key);
    return {
      key,
      role: roleOf(key, ways),
      ...compared,
      ...(acceptance && {
        accepted: { reason: acceptance.reason, operator: acceptance.operator },
      }),
    };
  };
  const processKeys = [...new Set([...own.processKeys, ...others.processKeys])].sort();
  return [
    ...['mesh'].filter(isKnown).map((key) => item(key, (side) => side.mesh)),
    ...[...PART_SETTINGS, ...processKeys]
      .filter(isKnown)
      .map((key) => item(key, (side) => side.setting(key))),
    ...CIRCUMSTANCE_KEYS.filter(isKnown).map((key) => item(key, (side) => side.circumstance(key))),
  ];
}

type Compared = Pick<FairnessItem, 'state' | 'contender_value' | 'reference_value' | 'varies'>;

function compareFacts(own: Known, others: Known): Compared {
  const isSame =
    own.values.size === others.values.size &&
    [...own.values.keys()].every((key) => others.values.has(key));
  return {
    state: !(own.isWhole && others.isWhole) ? 'unknown' : isSame ? 'same' : 'different',
    contender_value: sideValue(own.values),
    reference_value: sideValue(others.values),
    varies: own.values.size > 1 || others.values.size > 1,
  };
}

function sideValue(values: ReadonlyMap<string, Fact>): SideValue {
  // In an order of their own: it is not that of the prints.
  const list = [...values].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, fact]) => fact);
  return list.length > 1 ? list : (list[0] ?? null);
}

function compareMeans(own: Known, others: Known): Compared {
  const apart = Math.abs((own.mean ?? 0) - (others.mean ?? 0));
  const isSame = isAtMost(apart, SAME_AMBIENT_C);
  return {
    state: !(own.isWhole && others.isWhole) ? 'unknown' : isSame ? 'same' : 'different',
    contender_value: own.mean,
    reference_value: others.mean,
    varies: false,
  };
}

/** Whether an item forbids the comparison, is to be told beside it, or says nothing. */
function weightOf(item: Pick<FairnessItem, 'state' | 'role' | 'varies'>): FairnessResult {
  if (item.varies) return 'noted';
  if (item.role === 'wanted' || item.state === 'same') return 'clean';
  if (item.state === 'different') return item.role === 'held' ? 'confounded' : 'noted';
  return item.role === 'held' ? 'noted' : 'clean';
}

function resultOf(items: readonly FairnessItem[]): FairnessResult {
  const weights = new Set(items.map(weightOf));
  return weights.has('confounded') ? 'confounded' : weights.has('noted') ? 'noted' : 'clean';
}
