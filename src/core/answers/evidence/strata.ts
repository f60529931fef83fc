import { partsOfStratum, type StudyIndex } from '../../model/study';

/** A stratum as a person says it: `Spire pair in PETG`; without a type its artefact. */
export function stratumName(index: StudyIndex, stratum: string): string {
  const { artefact_id, type } = partsOfStratum(stratum);
  const name = index.artefacts.get(artefact_id)?.name ?? artefact_id;
  return type === null ? name : `${name} in ${type}`;
}

/** Rows of prints, those of one stratum beside each other, under its name. */
export const byStratum = <Item>(
  index: StudyIndex,
  items: readonly Item[],
  printIdOf: (item: Item) => string,
): { item: Item; stratum: string }[] =>
  items
    .map((item) => {
      const print = index.prints.get(printIdOf(item));
      return { item, stratum: print ? stratumName(index, index.stratumOf(print)) : '' };
    })
    .sort((a, b) => (a.stratum < b.stratum ? -1 : a.stratum > b.stratum ? 1 : 0));
