import { mean } from '../stats';
import { groupBy, PART_SETTINGS, type Print, type StudyIndex } from '../study';
import type { Fairness, FairnessItem, FairnessResult, SideValue } from './finding';
import { CIRCUMSTANCE_KEYS, roleOf, type Judged } from './items';
import { printFacts, processKeys, type Fact, type PrintFacts } from './print-facts';
import { sayFairness } from './sentence';

/** Mean ambient temperatures that far apart count as the same, °C. */
const SAME_AMBIENT_C = 3;

/** Every contender against the reference on every artefact that both have printed. */
export function fairnessOfAll(index: StudyIndex, reference: string | null): Fairness[] {
  if (reference === null) return [];
  const facts = printFacts(index);
  return index.study.tables.contenders
    .map((row) => row.contender_id)
    .filter((contender) => contender !== reference)
    .flatMap((contender) => pairOf(index, facts, contender, reference));
}

/** Two contenders on every artefact that both have printed. */
export const fairnessOfPair = (
  index: StudyIndex,
  contender: string,
  reference: string,
): Fairness[] => pairOf(index, printFacts(index), contender, reference);

function pairOf(
  index: StudyIndex,
  facts: PrintFacts,
  contender: string,
  reference: string,
): Fairness[] {
  const ofContender = byArtefact(index, contender);
  const ofReference = byArtefact(index, reference);
  return index.study.tables.artefacts.flatMap(({ artefact_id }) => {
    const own = ofContender.get(artefact_id);
    const others = ofReference.get(artefact_id);
    if (!own || !others) return [];
    const items = itemsOf(index, facts, { contender, reference, artefact_id, own, others });
    const result = resultOf(items);
    return [
      {
        contender,
        reference,
        artefact_id,
        result,
        items,
        sentence: sayFairness(result, items),
      },
    ];
  });
}

const byArtefact = (index: StudyIndex, contender: string): Map<string, Print[]> =>
  groupBy(index.printsOfContender.get(contender) ?? [], (print) => print.artefact_id);

interface Pair {
  contender: string;
  reference: string;
  artefact_id: string;
  own: readonly Print[];
  others: readonly Print[];
}

/** How two contenders are judged: in a crossed study two of one machine as stock against tuned. */
function judgedAs(index: StudyIndex, contender: string, reference: string): Judged {
  const { intent } = index.study.meta;
  if (intent !== 'crossed') return intent;
  const machine = (id: string) => index.contenders.get(id)?.machine_id;
  return machine(contender) === machine(reference) ? 'tuning' : 'machines';
}

function itemsOf(index: StudyIndex, facts: PrintFacts, pair: Pair): FairnessItem[] {
  const { contender, reference, own, others } = pair;
  const judged = judgedAs(index, contender, reference);
  const change = [contender, reference]
    .map((id) => index.contenders.get(id)?.change ?? '')
    .join(' ');
  const accepted = index.study.tables.accepted_differences.filter(
    (row) =>
      row.artefact_id === pair.artefact_id &&
      ((row.contender_id === contender && row.reference_id === reference) ||
        (row.contender_id === reference && row.reference_id === contender)),
  );
  const item = (key: string, factOf: (print: Print) => Fact): FairnessItem => {
    const compared =
      key === 'ambient_c'
        ? compareMeans(own.map(factOf), others.map(factOf))
        : compareFacts(own.map(factOf), others.map(factOf));
    const acceptance = accepted.find((row) => row.item === key);
    return {
      key,
      role: roleOf(key, judged, change, index.study.meta.sweep?.setting),
      ...compared,
      ...(acceptance && {
        accepted: { reason: acceptance.reason, operator: acceptance.operator },
      }),
    };
  };
  const artefact = index.artefacts.get(pair.artefact_id);
  const mesh = artefact?.mesh_sha256?.toLowerCase() ?? artefact?.mesh ?? null;
  const settings = [...PART_SETTINGS, ...processKeys(facts, [...own, ...others])];
  return [
    item('mesh', () => mesh),
    ...settings.map((key) => item(key, (print) => facts.settings(print)[key] ?? null)),
    ...CIRCUMSTANCE_KEYS.map((key) => item(key, (print) => facts.circumstance(print, key))),
  ];
}

type Compared = Pick<FairnessItem, 'state' | 'contender_value' | 'reference_value' | 'varies'>;

/** Numbers to twelve figures and texts without case, so that only true differences differ. */
const plain = (fact: Fact): string =>
  typeof fact === 'number' ? String(Number(fact.toPrecision(12))) : String(fact).toLowerCase();

function compareFacts(own: readonly Fact[], others: readonly Fact[]): Compared {
  const ownValues = distinct(own);
  const otherValues = distinct(others);
  const varies = ownValues.size > 1 || otherValues.size > 1;
  const isKnown = ![...own, ...others].includes(null);
  const isSame =
    ownValues.size === otherValues.size &&
    [...ownValues.keys()].every((key) => otherValues.has(key));
  return {
    state: !isKnown ? 'unknown' : isSame ? 'same' : 'different',
    contender_value: sideValue(ownValues),
    reference_value: sideValue(otherValues),
    varies,
  };
}

const distinct = (facts: readonly Fact[]): Map<string, Fact> =>
  new Map(facts.flatMap((fact) => (fact === null ? [] : [[plain(fact), fact] as const])));

function sideValue(values: ReadonlyMap<string, Fact>): SideValue {
  // In an order of their own: it is not that of the prints.
  const list = [...values].sort(([a], [b]) => (a < b ? -1 : 1)).map(([, fact]) => fact);
  return list.length > 1 ? list : (list[0] ?? null);
}

function compareMeans(own: readonly Fact[], others: readonly Fact[]): Compared {
  const meanOf = (facts: readonly Fact[]): number | null => {
    const numbers = facts.filter((fact) => typeof fact === 'number');
    return numbers.length === 0 ? null : mean(numbers);
  };
  const contender_value = meanOf(own);
  const reference_value = meanOf(others);
  const isKnown = ![...own, ...others].includes(null);
  const apart = Math.abs((contender_value ?? 0) - (reference_value ?? 0));
  return {
    state: !isKnown ? 'unknown' : apart <= SAME_AMBIENT_C + 1e-9 ? 'same' : 'different',
    contender_value,
    reference_value,
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
