export type { SlicedFile, SlicedSummary } from '../data';
