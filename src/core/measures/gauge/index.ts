export { gaugeOfAll, type GaugeStudy } from './gauge';
