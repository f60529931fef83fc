import type { TableName } from '../../core/model/study';
import { enteredBy, type Write } from '../../data';
import { RequestError } from '../http/problem';
import { mayNow, presentWorker } from '../http/actor';

/**
 * Lets those who only enter at the bench correct what is theirs, and nobody else's.
 *
 * @throws RequestError 403
 */
export async function checkOwn(write: Write, table: TableName, key: object): Promise<void> {
  if (mayNow('edit')) return;
  const by = await enteredBy(write.db, write.studyId, table, key);
  const worker = presentWorker();
  if (by === null || by !== worker?.id) {
    throw new RequestError(403, 'Somebody else entered this: an evaluator may correct it.');
  }
}

/**
 * Lets those who only enter at the bench change what is theirs or nobody's: a photo that filed itself is free.
 *
 * @throws RequestError 403
 */
export async function checkNotOthers(write: Write, table: TableName, key: object): Promise<void> {
  if (mayNow('edit')) return;
  if ((await enteredBy(write.db, write.studyId, table, key)) !== null)
    await checkOwn(write, table, key);
}
