export { PART_DESIGNS } from './designs';
export { faultsOf, usualValues } from './part';
export type { Part, PartDesign, PartValues } from './part';
export { realise, type Kernel } from './realise';
export { partRows, type PartRows } from './rows';
