import { gatherValues, meanOf, type PrintValues } from '../../../statistics/stats';
import { groupBy } from '../../../model/study';
import type { SectionContext } from '../section';

/** The figure on photos `artefact/measure/light[/feature]` of each print of a contender, specimens averaged. */
export const photoValues =
  ({ index, resultOf }: SectionContext, key: string) =>
  (contender: string): PrintValues => {
    const byPrint = groupBy(
      resultOf('photo')?.[contender]?.[key]?.by_specimen ?? [],
      (one) => index.specimens.get(one.specimen_id)?.print_id ?? '',
    );
    return gatherValues(
      [...byPrint].flatMap(([id, own]) => {
        const print = index.prints.get(id);
        return print ? [[index.stratumOf(print), meanOf(own, (one) => one.value)] as const] : [];
      }),
    );
  };
