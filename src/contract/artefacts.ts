export type { KeptMesh } from '../server/artefacts/meshes';
export type { ArtefactData } from '../server/artefacts/page';
