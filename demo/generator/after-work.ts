import { fullRow, type Row, type Tables } from '../../src/core/model/study';
import { drawsFrom, round } from './random';

const SEED = 903;

/** Minutes of hands on a part, by artefact: what they do, how long, and how much worse with whom. */
const WORK: Readonly<
  Record<string, readonly [Row<'aftercare'>['kind'], number, Readonly<Record<string, number>>]>
> = {
  'spire-pair': ['strings', 1.2, { 'A-stock': 2, 'C-stock': 3.4, 'D-stock': 2.2, 'B-tuned': 0 }],
  lantern: ['support', 4, { 'A-stock': 1.4, 'D-stock': 1.9, 'B-tuned': 0.8 }],
  'stair-block': ['brim', 0.8, { 'D-stock': 2.5, 'B-stock': 0, 'B-tuned': 0, 'A-tuned': 0 }],
};

/** What hands did to the parts once they were printed; KM held the clock. */
export function afterWork({
  prints,
  specimens,
}: Pick<Tables, 'prints' | 'specimens'>): Row<'aftercare'>[] {
  const draws = drawsFrom(SEED);
  const printOf = new Map(prints.map((print) => [print.print_id, print]));
  return specimens.flatMap(({ specimen_id, print_id }) => {
    const print = printOf.get(print_id);
    const work = print && WORK[print.artefact_id];
    if (!print || !work || print.outcome !== 'success') return [];
    const [kind, usual, by] = work;
    const factor = by[print.contender_id] ?? 1;
    const minutes = factor === 0 ? 0 : Math.max(0.2, usual * factor * (1 + draws.noise(0.15)));
    const damage = minutes > 6 ? 2 : minutes > 3 ? 1 : 0;
    const row = { specimen_id, kind, minutes: round(minutes, 1), damage, operator: 'KM' };
    return [fullRow('aftercare', row)];
  });
}
