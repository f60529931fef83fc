import { expect, it } from 'vitest';
import type { App } from './app';
import { withinRequest, type RequestScope } from './http/scope';
import { openLog } from './log';

function written(): { lines: Record<string, unknown>[]; write: (text: string) => void } {
  const lines: Record<string, unknown>[] = [];
  return { lines, write: (text) => void lines.push(JSON.parse(text) as Record<string, unknown>) };
}

it('an error is written down with its words and place, without what hangs on it', () => {
  const to = written();
  const error = Object.assign(new Error('terminating connection'), {
    code: '57P01',
    client: { secretKey: 4711, password: 'let me in' },
    parameters: ['20.03', 'a reading'],
  });
  openLog('warn', to).error(error, 'job queue');
  const [line] = to.lines;
  expect(line).toMatchObject({
    level: 50,
    msg: 'job queue',
    err: { message: 'terminating connection', code: '57P01' },
  });
  expect(line?.err).toHaveProperty('stack', expect.stringContaining('log.test.ts'));
  expect(JSON.stringify(line)).not.toMatch(/4711|let me in|20\.03/);
});

it('what is thrown and is no error has words', () => {
  const to = written();
  openLog('warn', to).warn({ err: 'just a text' }, 'odd');
  expect(to.lines[0]?.err).toEqual({ message: 'just a text' });
});

it('a line says of which request it is, and by whom as soon as that is known', () => {
  const to = written();
  const log = openLog('info', to);
  const scope: RequestScope = { id: 'r-1', actor: null, app: {} as App };
  withinRequest(scope, () => {
    log.info('asked');
    scope.actor = 'person:p';
    log.info('known');
  });
  log.info('outside');
  expect(to.lines.map(({ request, actor }) => [request, actor])).toEqual([
    ['r-1', null],
    ['r-1', 'person:p'],
    [undefined, undefined],
  ]);
});
