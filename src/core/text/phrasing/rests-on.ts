import type { PairRow } from '../../statistics/compare';
import { partsOfStratum } from '../../model/study';
import { listed } from './lists';

interface Names {
  artefacts: Readonly<Record<string, string>>;
  contenders: Readonly<Record<string, string>>;
}

type Compared = Pick<PairRow, 'contender' | 'on' | 'notes'>;

/** What a note ends with where a part was not printed in the same material on both sides. */
const ONE_SIDED = / is on one side only: not compared$/;

/**
 * On which parts, in which materials, the comparisons of a figure rest, in sentences: first all of them, then
 * who was compared on fewer, and what was printed in a material that the other side has not.
 *
 * @param names of artefacts and contenders by their ids
 */
export function describeRestsOn(pairs: readonly Compared[], names: Names): string[] {
  const all = [...new Set(pairs.flatMap((pair) => pair.on))];
  if (all.length === 0) return [];
  const fewer = pairs.flatMap(({ contender, on }) => {
    const without = all.filter((stratum) => !on.includes(stratum));
    const label = names.contenders[contender] ?? contender;
    return on.length > 0 && without.length > 0
      ? [`${label} is compared without the ${describeStrata(without, names)}.`]
      : [];
  });
  const apart = pairs
    .flatMap((pair) => pair.notes.filter((note) => ONE_SIDED.test(note)))
    .map((note) => note.replace(/^\S+/, (id) => names.artefacts[id] ?? id) + '.');
  return [`Compared on the ${describeStrata(all, names)}.`, ...fewer, ...new Set(apart)];
}

/** Parts with the materials they were printed in; parts of the same materials stand together. */
function describeStrata(strata: readonly string[], { artefacts }: Names): string {
  const typesOf = new Map<string, string[]>();
  for (const { artefact_id, type } of strata.map(partsOfStratum)) {
    const name = artefacts[artefact_id] ?? artefact_id;
    typesOf.set(name, [...(typesOf.get(name) ?? []), ...(type ? [type] : [])]);
  }
  const partsOf = new Map<string, string[]>();
  for (const [name, types] of typesOf) {
    const said = types.length > 0 ? ` in ${listed(types.sort())}` : '';
    partsOf.set(said, [...(partsOf.get(said) ?? []), name]);
  }
  return [...partsOf].map(([said, parts]) => `${listed(parts)}${said}`).join('; ');
}
