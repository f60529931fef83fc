export { drawableOf, drawFrom, type Drawable, type Drawing } from './drawing';
export { type MeshFacts } from './facts';
export {
  measuringPlaces,
  type Corner,
  type FlatFace,
  type MeasuringPlaces,
  type RoundFace,
} from './places';
export { proposeCorners, proposePair, proposeRound, type ProposedDimension } from './propose';
export { factsOfMesh, readMesh } from './read';
export { sectionAt } from './section';
export { MeshError, Soup } from './soup';
export { vectorOf, type Vector } from './vector';
export { VIEW_NAMES, VIEWS, viewFrom, type View, type ViewName } from './view';
export { writeStl } from './write-stl';
export { writeThreeMf } from './write-three-mf';
export { sameVertices } from './same';
export { sheetOf, sheetOfSoup, type MeshSheet } from './sheet';
