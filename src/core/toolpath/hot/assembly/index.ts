export { setAccelerations, setDeviation, setJerks, setMoves, setSpeeds } from './limits';
export { arc, home, line, moveFilament, setFactors, setModes, setMoveRoles, shift } from './motion';
export { rest } from './queue';
export { input, lineEnd, lines, lineStart, room, run } from './read';
export {
  bookRetract,
  extruded,
  hasMotion,
  maxX,
  maxY,
  maxZ,
  minX,
  minY,
  minZ,
  purged,
  retracted,
  retractions,
  runHighest,
  runSum,
  setNotes,
  setRoles,
  setTool,
  takeMoved,
  travel,
} from './travelled';
export {
  atClaim,
  atCommanded,
  commandedMax,
  constant,
  endLayers,
  extrudingXy,
  filamentCommandedMax,
  filamentReachedMax,
  heldAcceleration,
  heldAxis,
  heldCommand,
  heldCorner,
  moving,
  planeTimeOfRole,
  reachedMax,
  roleAt,
  roleCount,
  setClaim,
  timeOfRole,
} from './tally';
export { binCount, binsOf, highestOf } from './distribution';
