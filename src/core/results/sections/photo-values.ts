import { meanOf, type PrintValues } from '../../stats';
import { groupBy } from '../../study';
import type { SectionContext } from '../section';

/** The figure on photos `artefact/measure/light[/feature]` of each print of a contender, specimens averaged. */
export const photoValues =
  ({ index, resultOf }: SectionContext, key: string) =>
  (contender: string): PrintValues => {
    const byPrint = groupBy(
      resultOf('photo')?.[contender]?.[key]?.by_specimen ?? [],
      (one) => index.specimens.get(one.specimen_id)?.print_id ?? '',
    );
    const values = new Map<string, number[]>();
    for (const [id, own] of byPrint) {
      const print = index.prints.get(id);
      if (!print) continue;
      const stratum = index.stratumOf(print);
      const value = meanOf(own, (one) => one.value);
      values.set(stratum, [...(values.get(stratum) ?? []), value]);
    }
    return values;
  };
