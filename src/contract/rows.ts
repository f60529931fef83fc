export type { Stored } from '../data';
