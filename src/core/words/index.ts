export { beforeAfterSentence } from './before-after';
export { saidAdvice, type SaidAdvice } from './advice';
export { readingsFor, saidGauge } from './gauge';
export { saidVerdict } from './verdict';
export { toggled, viewOf, viewQuery, withReference, type View } from './view';
