export { addressesIn, addressOf, parseAddress, restsOn, type FigureAddress } from './address';
export { addressOfCriterion, addressOfDifference, isReportable } from './criteria';
export { namedFigure, type NamedFigure } from './named-figure';
