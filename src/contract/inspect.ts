export type { AgreementData } from '../server/inspect/agreement';
export type { InspectorsWord, EnteredFinding } from '../server/inspect/inspections';
export type { BenchZone, InspectBenchData } from '../server/inspect/page';
