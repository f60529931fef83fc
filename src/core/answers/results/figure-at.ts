import { fieldOf } from '../../model/study';
import { foundOn, worstFound, type Fairness } from '../fairness';
import { parseAddress } from '../figure-address';
import type { AccuracySummary } from './parts';
import type { Results } from './results';

/** Results as far as a report needs them: without every cell, and without every item of fairness. */
export type ReportedResults = Omit<Results, 'accuracy' | 'fairness'> & {
  accuracy: Record<string, AccuracySummary> | null;
  fairness: readonly Omit<Fairness, 'items'>[];
};

/** What stands in the results at an address. */
export interface FoundFigure {
  value: number | null;
  low: number | null;
  high: number | null;
  /** A verdict, a class, an outcome: what is said there in place of, or beside, a number. */
  word: string | null;
}

/** More than this many parts a key is never deep. */
const DEEPEST = 12;

/**
 * The figure at an address of the results: `section:contender:key`, where the key is a path with dots
 * into what the section says of that contender (`accuracy:auklet-tuned:by_axis.x.mae_mm`). In place of the
 * contender stands whatever the section is listed by: a machine, a panel, a response of the analysis of
 * variance. `pairs:<contender>:surface` and `differences:<contender>:<criterion>` are differences to the
 * reference with their verdicts, `criteria:<contender>:<criterion>` is what a scorecard weighs.
 *
 * @returns null where there is no such figure
 */
export function figureAt(results: ReportedResults, address: string): FoundFigure | null {
  const parsed = parseAddress(address);
  if (!parsed || !Object.hasOwn(results, parsed.section)) return null;
  const { section, who, key } = parsed;
  switch (section) {
    case 'study':
      return null;
    case 'pairs':
    case 'differences': {
      const rows = own(results[section], key);
      return Array.isArray(rows) ? leafOf(rows.find((row) => own(row, 'contender') === who)) : null;
    }
    case 'criteria':
      return leafOf(own(own(results.criteria, key), who));
    case 'fairness': {
      // Of an artefact in several materials what is found is the worst of them.
      const found = worstFound(foundOn(results.fairness, who, [key]));
      return found ? { ...NOTHING, word: found.result } : null;
    }
    case 'scorecard': {
      const contender = own(results.scorecard?.contenders, who);
      return walk(contender === undefined ? own(results.scorecard, who) : contender, key, 0);
    }
    default:
      return walk(own(own(results, section), who), key, 0);
  }
}

const NOTHING: FoundFigure = { value: null, low: null, high: null, word: null };

/** What lists are searched by. */
const NAMED_BY = ['contender', 'mode', 'what', 'key', 'check_id', 'claim_id', 'specimen_id'];

/** A property that is an object's own, or the element of a list that has that name. */
function own(node: unknown, key: string): unknown {
  if (typeof node !== 'object' || node === null) return undefined;
  if (Array.isArray(node)) {
    const list: readonly unknown[] = node;
    return list.find((one) => NAMED_BY.some((name) => own(one, name) === key));
  }
  return Object.hasOwn(node, key) ? fieldOf(node, key) : undefined;
}

/** Follows a path with dots; names may hold dots themselves, so that the longest that is there is taken. */
function walk(node: unknown, path: string, depth: number): FoundFigure | null {
  if (depth > DEEPEST || node === undefined || node === null) return null;
  const whole = own(node, path);
  if (whole !== undefined) return leafOf(whole);
  for (let dot = path.lastIndexOf('.'); dot > 0; dot = path.lastIndexOf('.', dot - 1)) {
    const next = own(node, path.slice(0, dot));
    const found = next === undefined ? null : walk(next, path.slice(dot + 1), depth + 1);
    if (found) return found;
  }
  return null;
}

/** A number, a word, an interval, a difference with its verdict, or a value with its ends. */
function leafOf(node: unknown): FoundFigure | null {
  if (typeof node === 'number') return { ...NOTHING, value: node };
  if (typeof node === 'string') return { ...NOTHING, word: node };
  if (typeof node === 'boolean') return { ...NOTHING, word: node ? 'yes' : 'no' };
  if (node === null) return NOTHING;
  if (typeof node !== 'object') return null;
  const difference = own(node, 'difference');
  if (difference !== undefined) {
    const found = leafOf(difference);
    return found && { ...found, word: textOf(own(node, 'verdict')) };
  }
  const value = numberOf(own(node, 'estimate')) ?? numberOf(own(node, 'value'));
  const [low, high] = [numberOf(own(node, 'low')), numberOf(own(node, 'high'))];
  const word = textOf(own(node, 'bound'));
  const hasShape = ['estimate', 'value', 'low'].some((name) => own(node, name) !== undefined);
  return hasShape ? { value, low, high, word } : null;
}

const numberOf = (node: unknown): number | null => (typeof node === 'number' ? node : null);
const textOf = (node: unknown): string | null => (typeof node === 'string' ? node : null);
