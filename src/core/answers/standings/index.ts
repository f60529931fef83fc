export { SHARED, type SharedName, type StandingRow } from './row';
export { sameArtefacts, type KnownArtefact, type MeshKnown } from './same-artefact';
export {
  plainStandings,
  standingsOf,
  type ArtefactStandings,
  type DrawnRow,
  type Standings,
  type StandingStudy,
} from './standings';
