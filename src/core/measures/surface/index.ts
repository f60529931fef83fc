export { aftercareOfAll, type Aftercare } from './aftercare';
export { defectsOfAll, type Defects, type ZoneDefects } from './defects';
export { ordinalAlpha, surfaceAgreement, type SurfaceAgreement } from './agreement';
export { photoFigureKey, photosOfAll, type PhotoFigure } from './photo';
export { inspectedSpecimens, type InspectedSpecimen } from './severity';
export { surfaceInterval, surfaceOfAll, surfaceValues, type Surface } from './surface';
export {
  disagreements,
  inspectorsShares,
  type Disagreement,
  type InspectorsShare,
} from './disagreements';
export { findingsOnSides, zoneBox, type PlacedFinding, type SideFindings } from './places';
