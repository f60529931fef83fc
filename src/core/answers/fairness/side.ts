import { meanOrNull } from '../../statistics/stats';
import { groupBy, isProcessSetting, type Print, type StudyIndex } from '../../model/study';
import { printFacts, type Fact } from './print-facts';

/** What is known of one thing over a contender's prints of a stratum. */
export interface Known {
  /** Whether it is known of every print. */
  isWhole: boolean;
  /** Every different value, by the text that tells it from others. */
  values: ReadonlyMap<string, Fact>;
  /** The mean of a circumstance over the prints that tell it in numbers; null of all else. */
  mean: number | null;
}

/** A contender's prints of a stratum, as one side of a comparison. */
export interface Side {
  mesh: Known;
  /** All process settings that are known of some of the prints. */
  processKeys: readonly string[];
  setting(key: string): Known;
  circumstance(key: string): Known;
}

/** The sides of a study's comparisons. */
export interface Sides {
  /** A contender's prints of each stratum. */
  of: (contender: string) => ReadonlyMap<string, Side>;
  /** Whether anybody in the study knows anything of an item. */
  isKnown: (key: string) => boolean;
}

/** The sides of a study's comparisons; each looks at its prints once, however often it is compared. */
export function sidesOf(index: StudyIndex): Sides {
  const facts = printFacts(index);
  const sides = new Map<string, ReadonlyMap<string, Side>>();
  const { intent, factor } = index.study.meta;
  // Where materials are compared, the same part in two of them is one question.
  const isByArtefact = intent === 'crossed' && factor === 'material';
  const stratumOf = (print: Print) => (isByArtefact ? print.artefact_id : index.stratumOf(print));
  const sideOf = (artefact: string, prints: readonly Print[]): Side => {
    const settings = [...new Set(prints.map((print) => facts.settings(print)))];
    const row = index.artefacts.get(artefact);
    return {
      mesh: knownOf([row?.mesh_sha256?.toLowerCase() ?? row?.mesh ?? null]),
      processKeys: [...new Set(settings.flatMap(Object.keys))].filter(isProcessSetting),
      setting: remembered((key) => knownOf(settings.map((one) => one[key] ?? null))),
      circumstance: remembered((key) => {
        const told = prints.map((print) => facts.circumstance(print, key));
        return {
          ...knownOf(told),
          mean: meanOrNull(told.filter((fact) => typeof fact === 'number')),
        };
      }),
    };
  };
  const of = (contender: string): ReadonlyMap<string, Side> => {
    let own = sides.get(contender);
    if (!own) {
      const prints = groupBy(index.printsOfContender.get(contender) ?? [], stratumOf);
      own = new Map(
        [...prints].map(([stratum, group]) => [
          stratum,
          sideOf(group[0]?.artefact_id ?? '', group),
        ]),
      );
      sides.set(contender, own);
    }
    return own;
  };
  const { artefacts, prints } = index.study.tables;
  const known = new Map<string, boolean>();
  const isKnown = (key: string): boolean => {
    let found = known.get(key);
    if (found === undefined) {
      found =
        key === 'mesh'
          ? artefacts.some((row) => row.mesh_sha256 !== null || row.mesh !== null)
          : prints.some(
              (print) => (facts.settings(print)[key] ?? facts.circumstance(print, key)) !== null,
            );
      known.set(key, found);
    }
    return found;
  };
  return { of, isKnown };
}

/** Asks for each key once. */
function remembered(find: (key: string) => Known): (key: string) => Known {
  const found = new Map<string, Known>();
  return (key) => {
    const own = found.get(key) ?? find(key);
    found.set(key, own);
    return own;
  };
}

function knownOf(facts: readonly Fact[]): Known {
  const different = new Set(facts);
  const isWhole = !different.delete(null);
  return {
    isWhole,
    // Of several spellings of one text the same is shown, whatever the order of the prints.
    values: new Map(
      [...different]
        .sort()
        .reverse()
        .map((fact) => [plain(fact), fact]),
    ),
    mean: null,
  };
}

/** Numbers to twelve figures and texts without case, so that only true differences differ. */
const plain = (fact: Fact): string =>
  typeof fact === 'number' ? String(Number(fact.toPrecision(12))) : String(fact).toLowerCase();
