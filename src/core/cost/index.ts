export { noiseOfAll } from './noise';
export { wasteOfAll, type Waste } from './waste';
