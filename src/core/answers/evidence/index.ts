export {
  accuracyEvidence,
  accuracyPairEvidence,
  fitEvidence,
  groupEvidence,
  toleranceEvidence,
} from './accuracy';
export { evidenceTable, type Evidence, type EvidenceColumn, type EvidenceTable } from './evidence';
export { surfaceEvidence, surfacePairEvidence, zoneEvidence } from './surface';
export { costEvidence, reliabilityEvidence, speedEvidence, timePairEvidence } from './runs';
export { panelEvidence } from './panels';
