import { meanOf, type PrintValues } from '../../stats';
import { groupBy } from '../../study';
import type { SectionContext } from '../section';

/** The figure on photos `artefact/measure/light` of each print of a contender, specimens averaged. */
export const photoValues =
  ({ index, resultOf }: SectionContext, key: string) =>
  (contender: string): PrintValues => {
    const byPrint = groupBy(
      resultOf('photo')?.[contender]?.[key]?.by_specimen ?? [],
      (one) => index.specimens.get(one.specimen_id)?.print_id ?? '',
    );
    const values = [...byPrint.values()].map((own) => meanOf(own, (one) => one.value));
    return values.length === 0 ? new Map() : new Map([[key, values]]);
  };
