import * as studies from './001-studies';
import * as evidence from './002-evidence';
import * as keeping from './003-keeping';

/** All migrations in order. A migration is never edited once it has landed. */
export const MIGRATIONS: readonly { name: string; up: string; down: string }[] = [
  { name: '001-studies', up: studies.up, down: studies.down },
  { name: '002-evidence', up: evidence.up, down: evidence.down },
  { name: '003-keeping', up: keeping.up, down: keeping.down },
];
