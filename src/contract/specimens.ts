export type { SpecimenFacts, SpecimenMeasurements } from '../data';
