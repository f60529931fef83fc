export { artefactContent, changeMesh, keepArtefact } from './keep';
export { keepMesh, LARGEST_MESH_MB, meshOfArtefact, sheetOfFile } from './meshes';
export { artefactsOf, type ArtefactData } from './page';
