import {
  brokenConstraints,
  damagedContents,
  KNOWN_MIGRATIONS,
  listStudies,
  loadStudy,
} from '../data';
import { ranOn } from '../server/backup/dump';
import { inWords } from './in-words';
import { InputError } from './input-error';
import { withDatabase } from './with-database';

/** `vergleich check`: that constraints hold, contents are what their hashes say, and results can be made. */
export const runCheck = (): Promise<void> =>
  withDatabase(async (db) => {
    const ran = await ranOn(db).catch(inWords);
    if (KNOWN_MIGRATIONS.some((name) => !ran.includes(name))) {
      throw new InputError(
        'The database is of an older program: start this one once, or check it with that one.',
      );
    }
    const faults = [
      ...(await brokenConstraints(db)).map((name) => `rows break a constraint: ${name}`),
      ...(await damagedContents(db)).map((sha256) => `content does not match its hash: ${sha256}`),
    ];
    const studies = await listStudies(db);
    const { evaluate } = await import('../core/answers/results');
    for (const { study_id, title } of studies) {
      try {
        evaluate((await loadStudy(db, study_id)).study);
      } catch (error) {
        faults.push(
          `no results of ${title}: ${error instanceof Error ? error.message : String(error)}`,
        );
      }
    }
    if (faults.length > 0) throw new InputError(faults.join('\n'));
    process.stdout.write(
      `${studies.length} studies: constraints hold, contents are whole, results can be made\n`,
    );
  }, 'nothing');
