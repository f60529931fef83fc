export { logPrintTimes, speedOfAll, timedPrints, type Speed } from './speed';
