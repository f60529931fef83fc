export { withAfterWork } from './after-work';
export { cheapestOf } from './cheapest';
export { costOfAll, type Cost } from './cost';
export { priceEquipped } from './equipped';
export { noiseOfAll } from './noise';
export { wasteOfAll, type Waste } from './waste';
