export { artefactContent, changeMesh, keepArtefact } from './keep';
export { keepMesh, LARGEST_MESH_MB, meshOfArtefact, sheetOfArtefact, sheetOfFile } from './meshes';
export { artefactsOf, type ArtefactData } from './page';
export { retireDimension } from './retire';
