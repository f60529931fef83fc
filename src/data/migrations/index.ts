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
import * as reports from './011-reports';
import * as workshop from './012-workshop';
import * as access from './013-access';
import * as live from './014-live';
import * as workers from './015-workers';
import * as machineKeys from './016-machine-keys';
import * as keptAnswers from './017-kept-answers';
import * as backups from './018-backups';
import * as panels from './019-panels';
import * as passkeys from './020-passkeys';
import * as uploadLimits from './021-upload-limits';
import * as namedInHistory from './022-named-in-history';
import * as latestPrints from './023-latest-prints';
import * as readingsOfSpecimens from './024-readings-of-specimens';
import * as rightPlace from './025-right-place';
import * as strata from './026-strata';
import * as toldUploads from './027-told-uploads';
import * as desk from './028-desk';

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
  { name: '011-reports', up: reports.up, down: reports.down },
  { name: '012-workshop', up: workshop.up, down: workshop.down },
  { name: '013-access', up: access.up, down: access.down },
  { name: '014-live', up: live.up, down: live.down },
  { name: '015-workers', up: workers.up, down: workers.down },
  { name: '016-machine-keys', up: machineKeys.up, down: machineKeys.down },
  { name: '017-kept-answers', up: keptAnswers.up, down: keptAnswers.down },
  { name: '018-backups', up: backups.up, down: backups.down },
  { name: '019-panels', up: panels.up, down: panels.down },
  { name: '020-passkeys', up: passkeys.up, down: passkeys.down },
  { name: '021-upload-limits', up: uploadLimits.up, down: uploadLimits.down },
  { name: '022-named-in-history', up: namedInHistory.up, down: namedInHistory.down },
  { name: '023-latest-prints', up: latestPrints.up, down: latestPrints.down },
  { name: '024-readings-of-specimens', up: readingsOfSpecimens.up, down: readingsOfSpecimens.down },
  { name: '025-right-place', up: rightPlace.up, down: rightPlace.down },
  { name: '026-strata', up: strata.up, down: strata.down },
  { name: '027-told-uploads', up: toldUploads.up, down: toldUploads.down },
  { name: '028-desk', up: desk.up, down: desk.down },
];
