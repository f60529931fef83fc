export {
  EVERY_ROLE,
  handedOnBy,
  isWithin,
  may,
  RIGHTS,
  ROLE_WORDS,
  ROLES,
  type Right,
  type Role,
} from './roles';
export { FEWEST_CHARACTERS, passwordFault } from './passwords';
