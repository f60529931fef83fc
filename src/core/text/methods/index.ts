export { METHODS, methodOf, type Method, type MethodGroup } from './methods';
