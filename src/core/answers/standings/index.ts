export { sameArtefacts, type KnownArtefact, type MeshKnown } from './same-artefact';
export {
  plainStandings,
  standingsOf,
  type ArtefactStandings,
  type DrawnRow,
  type StandingStudy,
} from './standings';
