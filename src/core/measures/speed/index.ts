export { logPrintTimes, speedOfAll, timedPrints, type ArtefactSpeed, type Speed } from './speed';
