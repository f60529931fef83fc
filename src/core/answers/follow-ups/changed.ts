import { printFacts, type Fact } from '../fairness';
import { indexStudy, isKnownSetting, type Print, type Study } from '../../model/study';

/** Something that was not the same in two prints. */
export interface Changed {
  /** The setting or circumstance. */
  key: string;
  before: Fact;
  after: Fact;
}

/** What two prints can differ in besides their settings. */
const CIRCUMSTANCES = [
  'material_type',
  'material_maker',
  'material_lot',
  'material_colour',
  'nozzle_mm',
  'firmware',
  'plate',
  'copies',
  'ambient_c',
  'operator',
];

/** Ambient temperatures this near are the same, °C; so the fairness check has it too. */
const SAME_AMBIENT_C = 3;

/** Kinds of change that are one thing: a spool of another lot has its own colour and maker. */
const ONE_THING: readonly (readonly string[])[] = [
  ['material_type', 'material_maker', 'material_lot', 'material_colour'],
];

/** Who started it is noted; it is not a change to what is followed. */
const NOTED: ReadonlySet<string> = new Set(['operator']);

const isSame = (key: string, a: Fact, b: Fact): boolean =>
  key === 'ambient_c' && typeof a === 'number' && typeof b === 'number'
    ? Math.abs(a - b) <= SAME_AMBIENT_C
    : a === b;

/**
 * Prepares comparing two prints of a study: what really differed between them, from what was sliced and
 * from what was written down. What is not known of one of them is no difference.
 */
export function compareRuns(study: Study): (before: Print, after: Print) => Changed[] {
  const index = indexStudy(study);
  const facts = printFacts(index);
  const part = (print: Print): Fact => index.artefacts.get(print.artefact_id)?.name ?? null;
  const machine = (print: Print): Fact => {
    const id = index.contenders.get(print.contender_id)?.machine_id ?? '';
    return index.machines.get(id)?.name ?? null;
  };
  return (before, after) => {
    const found: Changed[] = [];
    const look = (key: string, a: Fact, b: Fact) => {
      if (a !== null && b !== null && !isSame(key, a, b)) found.push({ key, before: a, after: b });
    };
    look('machine', machine(before), machine(after));
    look('artefact', part(before), part(after));
    const [own, other] = [facts.settings(before), facts.settings(after)];
    for (const key of Object.keys(own)) {
      if (isKnownSetting(key)) look(key, own[key] ?? null, other[key] ?? null);
    }
    for (const key of CIRCUMSTANCES) {
      look(key, facts.circumstance(before, key), facts.circumstance(after, key));
    }
    return found;
  };
}

/** How many things were changed at once: what only follows from another counts with it. */
export function thingsChanged(changed: readonly Changed[]): number {
  const keys = new Set(changed.map((one) => one.key).filter((key) => !NOTED.has(key)));
  for (const group of ONE_THING) {
    const [first, ...rest] = group.filter((key) => keys.has(key));
    if (first !== undefined) for (const key of rest) keys.delete(key);
  }
  return keys.size;
}
