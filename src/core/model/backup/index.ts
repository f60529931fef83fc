export { dueEvery, hasRoom, leftOver, type KeptFile } from './keeping';
