export type { CellTally } from '../data';
export type { OrderedPrint } from '../server/plan/page';
