export { openLink, type Link } from './listener';
