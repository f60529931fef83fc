export { addArtefact, artefactContent, changeMesh, PARTS } from './keep';
export { LARGEST_MESH_MB, openMesh, sheetOfFile, storeMesh } from './meshes';
export { addDimension, addZone, dimensionContent, zoneContent } from './parts';
export { artefactsOf } from './page';
