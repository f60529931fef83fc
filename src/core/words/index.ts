export { saidAdvice, type SaidAdvice } from './advice';
export { saidVerdict } from './verdict';
