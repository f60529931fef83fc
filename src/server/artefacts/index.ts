export { addArtefact, artefactContent, changeMesh, PARTS } from './keep';
export { LARGEST_MESH_MB, openMesh, sheetOfFile, storeMesh } from './meshes';
export { artefactsOf, type ArtefactData } from './page';
