export { type MeshFacts } from './facts';
export { factsOfMesh, readMesh } from './read';
export { MeshError } from './soup';
