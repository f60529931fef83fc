import { isCriterion } from '../../model/study';
import { parseAddress } from './address';
import { NAMED, OF_PAIRS, PLACES } from './criteria';

export interface NamedFigure {
  /** As a scorecard knows it. */
  criterion: string;
  /** A contender's or a machine's id. */
  who: string;
  of: 'contender' | 'machine';
  /** Whether it is the difference to the reference. */
  isDifference: boolean;
}

/** What figure an address is of, where it is one that a scorecard knows; null for any other. */
export function namedFigure(address: string): NamedFigure | null {
  const parsed = parseAddress(address);
  if (!parsed) return null;
  const { section, who, key } = parsed;
  if (section === 'pairs') {
    const criterion = Object.keys(OF_PAIRS).find((name) => OF_PAIRS[name] === key);
    return criterion === undefined ? null : { criterion, who, of: 'contender', isDifference: true };
  }
  if (section === 'differences' || section === 'criteria') {
    const isDifference = section === 'differences';
    return isCriterion(key) ? { criterion: key, who, of: 'contender', isDifference } : null;
  }
  const plain = Object.entries(PLACES).find(([, at]) => at[0] === section && at[1] === key);
  if (plain) return { criterion: plain[0], who, of: plain[1][2], isDifference: false };
  const named = NAMED.find(([, name, ending]) => name === section && key.endsWith(ending));
  if (!named) return null;
  const [prefix, , ending, of] = named;
  const criterion = prefix + key.slice(0, -ending.length);
  return isCriterion(criterion) ? { criterion, who, of, isDifference: false } : null;
}
