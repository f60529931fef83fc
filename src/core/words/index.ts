export { beforeAfterSentence } from './before-after';
export { saidAgreement } from './agreement';
export { saidAdvice, type SaidAdvice } from './advice';
export { readingsFor, saidGauge } from './gauge';
export { saidVerdict } from './verdict';
export { toggled, viewOf, viewQuery, withReference, type View } from './view';
