import { expect, it } from 'vitest';
import type { StudyChange } from '../../data';
import type { App } from '../app';
import { liveStream } from './stream';

const STUDY = '0193b3c0-0000-7000-8000-000000000001';

it('tells of no change that is already in how it said the study stands', async () => {
  let stand: (rows: object[]) => void = () => undefined;
  const standing = new Promise<object[]>((resolve) => (stand = resolve));
  const answers = [Promise.resolve([{ revision: '5', touched: {} }]), standing];
  let news: (change: StudyChange) => void = () => undefined;
  const app = {
    db: { sequelize: { query: () => answers.shift() } },
    broadcaster: {
      size: 0,
      listen: (_study: string, heard: typeof news) => {
        news = heard;
        return () => undefined;
      },
    },
  } as unknown as App;
  const change = (revision: string): StudyChange => ({
    study_id: STUDY,
    revision,
    is_gone: false,
    tab: null,
    parts: ['prints'],
  });
  const leaving = new AbortController();
  const { body } = await liveStream(app, STUDY, leaving.signal);
  // It is heard of before it is known how the study stands.
  news(change('6'));
  stand([{ revision: '6', touched: { prints: 6 } }]);
  await new Promise((resolve) => setImmediate(resolve));
  news(change('7'));
  leaving.abort();
  const told = await new Response(body).text();
  const events = [...told.matchAll(/^event: (\w+)\ndata: (.*)$/gm)].map(([, name, data]) => [
    name,
    (JSON.parse(data ?? '') as { revision: string }).revision,
  ]);
  expect(events).toEqual([
    ['revision', '6'],
    ['change', '7'],
  ]);
});
