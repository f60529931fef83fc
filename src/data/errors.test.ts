import { ConnectionRefusedError, DatabaseError } from 'sequelize';
import { describe, expect, it } from 'vitest';
import { isDatabaseAway, isDiskFull } from './errors';

/** As the driver makes them of what the server says. */
const said = (code: string, message: string) =>
  Object.assign(new Error(message), { code, severity: 'FATAL' });
const socket = (code: string) =>
  Object.assign(new Error(`connect ${code} 127.0.0.1:5432`), { code });
const ofModels = (original: Error) => new DatabaseError(Object.assign(original, { sql: '' }));

describe('that the database is away', () => {
  it.each([
    ['a connection that is refused', new ConnectionRefusedError(socket('ECONNREFUSED'))],
    ['an administrator’s word', ofModels(said('57P01', 'terminating connection'))],
    ['its start', said('57P03', 'the database system is starting up')],
    ['too many connections', said('53300', 'sorry, too many clients already')],
    ['a connection that broke under a question', new Error('Connection terminated unexpectedly')],
    [
      'a connection that was broken before it was asked',
      ofModels(new Error('Client has encountered a connection error and is not queryable')),
    ],
    ['a socket that broke', ofModels(socket('ECONNRESET'))],
  ])('is %s', (_, error) => {
    expect(isDatabaseAway(error)).toBe(true);
  });

  it.each([
    ['a row that is there already', ofModels(said('23505', 'duplicate key'))],
    ['a deadlock', ofModels(said('40P01', 'deadlock detected'))],
    ['somebody else’s socket', socket('ECONNREFUSED')],
    ['an error of ours', new Error('no such study')],
    ['no error', 'Connection terminated'],
  ])('is not %s', (_, error) => {
    expect(isDatabaseAway(error)).toBe(false);
  });
});

describe('that a disk is full', () => {
  it.each([
    [
      'the database says so',
      ofModels(said('53100', 'could not extend file: No space left on device')),
    ],
    ['the driver says so', said('53100', 'could not write to file')],
    ['a file cannot be written', socket('ENOSPC')],
    ['the user may not write more', socket('EDQUOT')],
  ])('is seen where %s', (_, error) => {
    expect(isDiskFull(error)).toBe(true);
  });

  it.each([
    ['memory that runs out', ofModels(said('53200', 'out of memory'))],
    ['a file that is not there', socket('ENOENT')],
    ['what is no error', { code: 'ENOSPC' }],
  ])('is not %s', (_, error) => {
    expect(isDiskFull(error)).toBe(false);
  });
});
