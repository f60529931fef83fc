import { WrongInputError } from '../../model/faults';
import { seededDraws, shuffled, type Draws } from '../../statistics/stats';
import { MOST_QUESTIONS, type PanelKind } from '../../model/study';
import { williamsRows } from './williams';

/** What a panel shows, and how often. */
export interface PanelPlan {
  kind: PanelKind;
  /** Who is compared, each with the specimens that stand for it. */
  contenders: readonly { contender_id: string; specimens: readonly string[] }[];
  /** Whose part is asked after in a guess. */
  target: string | null;
  /** Questions of a judge, those that come again not counted. */
  questions: number;
  /** So many of them come once more, hidden among the others. */
  repeats: number;
  /** The same seed gives the same order. */
  seed: number;
}

/** One question to one judge. */
export interface PanelQuestion {
  /** Specimens from left to right. */
  items: string[];
  /** What they are called to the judge: three digits each, no two of a judge alike. */
  codes: string[];
  /** The question that it asks once more, counted from 0; null where it is asked for the first time. */
  repeats: number | null;
}

/** A set of two contenders that are compared. */
interface Couple {
  first: number;
  second: number;
}

/** The plan cannot be carried out; the message says why and what to do. */
export class PanelPlanError extends WrongInputError {
  override name = 'PanelPlanError';
}

/** Which contenders are compared with which: all with all, in a guess all with the one asked after. */
export function couplesOf({
  kind,
  contenders,
  target,
}: Omit<PanelPlan, 'questions' | 'repeats' | 'seed'>): Couple[] {
  const at = contenders.findIndex((one) => one.contender_id === target);
  const couples: Couple[] = [];
  for (let first = 0; first < contenders.length; first += 1) {
    for (let second = first + 1; second < contenders.length; second += 1) {
      if (kind !== 'guess' || first === at || second === at) couples.push({ first, second });
    }
  }
  return couples;
}

/** How many questions of two contenders differ by more than by who stands where. */
function differentOf(kind: PanelKind, a: number, b: number): number {
  if (kind !== 'triangle') return a * b;
  return ((a * (a - 1)) / 2) * b + ((b * (b - 1)) / 2) * a;
}

/**
 * Refuses a plan that cannot be carried out.
 *
 * @throws PanelPlanError
 */
export function checkPlan(plan: PanelPlan): void {
  const { kind, contenders, target, questions, repeats } = plan;
  const refuse = (message: string): never => {
    throw new PanelPlanError(message);
  };
  if (contenders.length < 2) refuse('A panel compares at least two contenders: choose one more.');
  for (const { contender_id, specimens } of contenders) {
    const least = kind === 'triangle' ? 2 : 1;
    if (specimens.length >= least) continue;
    refuse(
      least === 1
        ? `${contender_id} has no specimen in the panel: choose one, or leave it out.`
        : `A triangle shows two of one contender: ${contender_id} wants a second specimen.`,
    );
  }
  if (kind === 'guess' && !contenders.some((one) => one.contender_id === target)) {
    refuse('A guess asks after one of its contenders: say which.');
  }
  if (questions < 1 || questions > MOST_QUESTIONS) {
    refuse(`A judge has 1 to ${MOST_QUESTIONS} questions.`);
  }
  if (repeats < 0 || repeats > questions) refuse('No question comes more than once again.');
  if (questions + repeats > MOST_QUESTIONS) {
    refuse(`A judge has at most ${MOST_QUESTIONS} questions, those that come again among them.`);
  }
  const couples = couplesOf(plan);
  const often = Math.ceil(questions / couples.length);
  for (const { first, second } of couples) {
    const [a, b] = [contenders[first], contenders[second]];
    const most = differentOf(kind, a?.specimens.length ?? 0, b?.specimens.length ?? 0);
    if (most >= often) continue;
    refuse(
      `${a?.contender_id} and ${b?.contender_id} have ${most} different ` +
        `${most === 1 ? 'question' : 'questions'} between them, and a judge would get ${often}: ` +
        `ask at most ${most * couples.length}, or add specimens.`,
    );
  }
}

/**
 * The questions of the first judges, one after another.
 *
 * Couples come in the order of Williams squares: over the rows of one each couple stands in each place, and after
 * each other couple, equally often. Left and right change from one showing of a couple to the next, and what comes
 * first is what has stood on that side less often; the six orders of a triangle come in blocks of six. Specimens
 * of a contender take turns, and a judge sees the same ones together again only where a question is repeated.
 *
 * @throws PanelPlanError where the plan cannot be carried out
 * @see Williams, 1949 (squares balanced for what comes before); ISO 4120, 8 (orders of a triangle)
 */
export function questionsOf(plan: PanelPlan, judges: number): PanelQuestion[][] {
  checkPlan(plan);
  const draws = seededDraws(plan.seed);
  const couples = shuffled(couplesOf(plan), draws);
  const rows = shuffled(williamsRows(couples.length), draws);
  const show = plan.kind === 'triangle' ? triangles(plan, draws) : pairs(plan, draws);
  const round = Math.ceil(plan.questions / couples.length);
  return Array.from({ length: judges }, (_, judge) => {
    const seen = new Set<string>();
    const own = Array.from(
      { length: round },
      (__, turn) => rows[(judge * round + turn) % rows.length] ?? [],
    )
      .flat()
      .slice(0, plan.questions)
      .map((at) => show(couples[at]!, seen));
    const order = withRepeats(own, plan, judge, draws);
    const codes = codesFor(
      order.reduce((count, one) => count + one.items.length, 0),
      draws,
    );
    return order.map((one) => ({ ...one, codes: one.items.map(() => codes.pop() ?? '') }));
  });
}

const keyOf = (items: readonly string[]): string => [...items].sort().join('\n');

/** How often each thing was taken so far. */
class Uses<CatalogueItem> {
  readonly #counts = new Map<CatalogueItem, number>();
  of(thing: CatalogueItem): number {
    return this.#counts.get(thing) ?? 0;
  }
  add(thing: CatalogueItem, count = 1): void {
    this.#counts.set(thing, this.of(thing) + count);
  }
}

/** The candidate that costs least; of equals any. @throws RangeError where there is none */
function cheapest<Item>(items: readonly Item[], cost: (item: Item) => number, draws: Draws): Item {
  let best: { item: Item; cost: number } | null = null;
  for (const item of shuffled(items, draws)) {
    const own = cost(item);
    if (!best || own < best.cost) best = { item, cost: own };
  }
  if (!best) throw new RangeError('there is nothing to choose from');
  return best.item;
}

/** Shows two: who stands left changes, specimens take turns. */
function pairs({ contenders }: PanelPlan, draws: Draws) {
  const used = new Uses<string>();
  const leftOf = new Uses<number>();
  const together = new Uses<string>();
  /** By couple, whether its second stood left the last time, where the other way round is still owed. */
  const owed = new Map<Couple, boolean>();
  return (couple: Couple, seen: Set<string>): string[] => {
    const { first, second } = couple;
    const candidates = (contenders[first]?.specimens ?? []).flatMap((a) =>
      (contenders[second]?.specimens ?? []).map((b) => [a, b] as const),
    );
    const [a, b] = cheapest(
      candidates.filter((items) => !seen.has(keyOf(items))),
      (items) =>
        Math.max(...items.map((item) => used.of(item))) * 1e6 +
        items.reduce((sum, item) => sum + used.of(item), 0) * 1e3 +
        together.of(keyOf(items)),
      draws,
    );
    const before = owed.get(couple);
    owed.delete(couple);
    let isTurned: boolean;
    if (before !== undefined) isTurned = !before;
    else {
      const surplus = leftOf.of(first) - leftOf.of(second);
      isTurned = surplus === 0 ? draws.below(2) === 1 : surplus > 0;
      owed.set(couple, isTurned);
    }
    leftOf.add(isTurned ? second : first, 1);
    leftOf.add(isTurned ? first : second, -1);
    for (const item of [a, b]) used.add(item);
    together.add(keyOf([a, b]));
    seen.add(keyOf([a, b]));
    return isTurned ? [b, a] : [a, b];
  };
}

/** Where the odd one stands, and whose it is: the six orders of a triangle. */
const ORDERS = [0, 1, 2].flatMap((place) => [false, true].map((isFirst) => ({ place, isFirst })));

/** Shows three, two of one contender: the six orders come in blocks, specimens take turns. */
function triangles({ contenders }: PanelPlan, draws: Draws) {
  const used = new Uses<string>();
  const left = new Map<Couple, typeof ORDERS>();
  return (couple: Couple, seen: Set<string>): string[] => {
    const a = contenders[couple.first]?.specimens ?? [];
    const b = contenders[couple.second]?.specimens ?? [];
    const block = left.get(couple) ?? [];
    if (block.length === 0) block.push(...shuffled(ORDERS, draws));
    left.set(couple, block);
    const candidatesOf = (isFirst: boolean) => {
      const [odd, two] = isFirst ? [a, b] : [b, a];
      return odd
        .flatMap((one) =>
          two.flatMap((other, at) => two.slice(at + 1).map((third) => [one, other, third])),
        )
        .filter((items) => !seen.has(keyOf(items)));
    };
    // Where all of one kind were seen by this judge, the next order of the other kind comes first.
    const at = block.findIndex(({ isFirst }) => candidatesOf(isFirst).length > 0);
    const [order = { place: 0, isFirst: candidatesOf(true).length > 0 }] =
      at < 0 ? [] : block.splice(at, 1);
    const items = cheapest(
      candidatesOf(order.isFirst),
      (some) =>
        Math.max(...some.map((item) => used.of(item))) * 1e3 +
        some.reduce((sum, item) => sum + used.of(item), 0),
      draws,
    );
    for (const item of items) used.add(item);
    seen.add(keyOf(items));
    const [odd = '', ...two] = items;
    return shuffled(two, draws).toSpliced(order.place, 0, odd);
  };
}

/** Hides the questions that come again among the others, with sides changed, a while after they came first. */
function withRepeats(
  own: readonly string[][],
  { repeats }: PanelPlan,
  judge: number,
  draws: Draws,
): Omit<PanelQuestion, 'codes'>[] {
  const order: Omit<PanelQuestion, 'codes'>[] = own.map((items) => ({ items, repeats: null }));
  const gap = Math.max(1, Math.ceil(own.length / 3));
  // The last ones are not forgotten yet. Couples change their places from judge to judge: all come again as often.
  const early = own.length - gap >= repeats ? own.slice(0, own.length - gap) : own;
  for (let count = 0; count < repeats; count += 1) {
    const original = early[(judge * repeats + count) % early.length] ?? [];
    const from = order.findIndex((one) => one.items === original);
    const place = Math.min(
      order.length,
      from + gap + 1 + draws.below(Math.max(1, order.length - from - gap)),
    );
    order.splice(place, 0, { items: turned(original), repeats: from });
  }
  // Questions were put in between: what is repeated is found anew, by what it shows.
  return order.map((one) =>
    one.repeats === null
      ? one
      : { ...one, repeats: order.findIndex((other) => keyOf(other.items) === keyOf(one.items)) },
  );
}

/** The same ones in another order: the last one comes first. */
const turned = (items: readonly string[]): string[] => [...items.slice(-1), ...items.slice(0, -1)];

/** So many different codes of three different digits. */
function codesFor(count: number, draws: Draws): string[] {
  const all: string[] = [];
  for (let code = 100; code < 1000; code += 1) {
    const text = String(code);
    if (new Set(text).size === 3) all.push(text);
  }
  return shuffled(all, draws).slice(0, count);
}
