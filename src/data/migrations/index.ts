import * as studies from './001-studies';
import * as evidence from './002-evidence';
import * as keeping from './003-keeping';
import * as slicedFiles from './004-sliced-files';
import * as bench from './005-bench';
import * as linkJob from './006-link-job';
import * as artefacts from './007-artefacts';
import * as firmGround from './008-firm-ground';
import * as laterEvidence from './009-later-evidence';
import * as photos from './010-photos';

/** All migrations in order. A migration is never edited once it has landed. */
export const MIGRATIONS: readonly { name: string; up: string; down: string }[] = [
  { name: '001-studies', up: studies.up, down: studies.down },
  { name: '002-evidence', up: evidence.up, down: evidence.down },
  { name: '003-keeping', up: keeping.up, down: keeping.down },
  { name: '004-sliced-files', up: slicedFiles.up, down: slicedFiles.down },
  { name: '005-bench', up: bench.up, down: bench.down },
  { name: '006-link-job', up: linkJob.up, down: linkJob.down },
  { name: '007-artefacts', up: artefacts.up, down: artefacts.down },
  { name: '008-firm-ground', up: firmGround.up, down: firmGround.down },
  { name: '009-later-evidence', up: laterEvidence.up, down: laterEvidence.down },
  { name: '010-photos', up: photos.up, down: photos.down },
];
