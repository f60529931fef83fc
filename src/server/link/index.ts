export { openLink } from './listener';
export type { Link } from './link';
