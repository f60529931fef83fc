export { canCompile } from './compiled';
export { HotLines } from './hot-lines';
export { HotMotion } from './hot-motion';
