export { dueEvery, leftOver, type KeptFile } from './keeping';
