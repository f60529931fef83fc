import * as studies from './001-studies';

/** All migrations in order. A migration is never edited once it has landed. */
export const MIGRATIONS: readonly { name: string; up: string; down: string }[] = [
  { name: '001-studies', up: studies.up, down: studies.down },
];
