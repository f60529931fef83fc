import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Judging, PanelPage } from '../../src/server/panels';
import { DEMO_PAIR } from '../support/demo-files';
import { apiOf } from '../support/api';
import { freshDatabase } from '../support/database';
import { kill, startServer, type Server } from '../support/server';

let fresh: Awaited<ReturnType<typeof freshDatabase>>;
let server: Server;
let study = '';
const api = apiOf(() => server.url);
const { call, get } = api;

beforeAll(async () => {
  fresh = await freshDatabase(DEMO_PAIR);
  server = await startServer(fresh.url, { studies: DEMO_PAIR });
  const studies = await get<{ study_id: string; name: string }[]>('/studies');
  study = studies.find(({ name }) => name === 'clip-bench')?.study_id ?? '';
});
afterAll(async () => {
  await kill(server.child);
  await fresh.drop();
});

let count = 0;
/** Opens a panel of the stair block’s photos. @returns its id and its open link */
async function opened(judges: number) {
  count += 1;
  const panel_id = `doors-${count}`;
  const photos = await get<{ path: string; filed: { specimen_id: string; view: string } | null }[]>(
    `/studies/${study}/photos`,
  );
  const facts = await get<{ specimen_id: string; contender_id: string; artefact_id: string }[]>(
    `/studies/${study}/specimens`,
  );
  const items = facts.flatMap(({ specimen_id, artefact_id, contender_id }) => {
    const photo = photos.find((one) => one.filed?.specimen_id === specimen_id);
    const isIn = artefact_id === 'spire-pair' && ['A-stock', 'B-stock'].includes(contender_id);
    return photo && isIn ? [{ specimen_id, path: photo.path }] : [];
  });
  const draft = {
    panel_id,
    kind: 'paired',
    aspect: 'Which one is cleaner?',
    artefact_id: 'spire-pair',
    target: null,
    names: 'numbers',
    judges,
    questions: 3,
    asked_again: 0,
    effect: 0.65,
    closes_at: null,
    shown_as: 'photos',
    view: 'front',
    light: 'flat',
    levels: 'matched',
    x_mm: -20,
    y_mm: 5,
    w_mm: 40,
    h_mm: 30,
    items,
  };
  expect((await call('POST', `/studies/${study}/panels`, draft)).status).toBe(201);
  const path = `/studies/${study}/panels/${panel_id}`;
  const step = (content: object) => call('POST', path, content);
  const begun = await step({ do: 'open' });
  expect(begun.content.detail).toBeUndefined();
  const page = () => get<PanelPage>(path);
  return { step, page, panel_id, link: String((await page()).link).replace('/judge/', '') };
}

/** A browser that judges, with the cookie that it was given; or with one of its own making. */
function browser(link: string, cookie = '') {
  const ask = async (method: string, content?: object, query = '') => {
    const response = await fetch(`${server.url}/api/v1/judging/${link}${query}`, {
      method,
      headers: {
        connection: 'close',
        ...(cookie && { cookie }),
        ...(content && { 'content-type': 'application/json' }),
      },
      ...(content && { body: JSON.stringify(content) }),
    });
    cookie = response.headers.get('set-cookie')?.split(';')[0] ?? cookie;
    return {
      status: response.status,
      content: (await response.json()) as Judging & { detail?: string },
    };
  };
  return {
    begin: () => ask('POST', {}),
    look: (question?: number) =>
      ask('GET', undefined, question === undefined ? '' : `?question=${question}`),
    answer: (question: number, answer: string) => ask('PUT', { question, answer }),
    cookie: () => cookie,
  };
}

describe('a question', () => {
  it('that was not shown yet cannot be answered', async () => {
    const { link } = await opened(6);
    const judge = browser(link);
    await judge.begin();
    const { content } = await judge.look();
    expect(content.question?.number).toBe(1);
    const early = await judge.answer(2, 'none');
    expect([early.status, early.content.detail]).toEqual([
      409,
      'This question has not been shown to you yet: read the panel again.',
    ]);
    expect((await judge.answer(1, 'none')).content.question?.number).toBe(2);
    expect((await judge.answer(2, 'none')).status).toBe(200);
  });
});

describe('who begins to judge', () => {
  it('is counted, also with a cookie of their own making', async () => {
    const { link } = await opened(200);
    const mark = browser(link);
    await mark.begin();
    const made = `${mark.cookie().split('=')[0] ?? ''}=${'A'.repeat(43)}`;
    const statuses: number[] = [];
    for (let at = 0; at < 62; at += 1) statuses.push((await browser(link, made).begin()).status);
    expect(statuses).toContain(429);
    // Whoever judges already goes on.
    expect((await mark.begin()).status).toBe(200);
    await fresh.db.sequelize.query('delete from sign_in_tries');
  });
});

describe('cards', () => {
  it('let one judge in each, on whatever device, and close the open link', async () => {
    const { link, step, page, panel_id } = await opened(3);
    const first = browser(link);
    await first.begin();
    expect((await step({ do: 'make-cards' })).status).toBe(200);
    expect(await page()).toMatchObject({ link: null, cards: 3 });
    const [cards] = (await fresh.db.sequelize.query(
      `select link from panel_cards where panel_id = '${panel_id}' order by "number"`,
    )) as [{ link: string }[], unknown];
    expect(cards).toHaveLength(3);
    const late = browser(link);
    expect((await late.look()).content.state).toBe('by card');
    expect((await late.begin()).status).toBe(403);
    const card = cards[0]?.link ?? '';
    const phone = browser(card);
    await phone.begin();
    await phone.look();
    const answered = await phone.answer(1, 'none');
    expect(answered.content.question?.number).toBe(2);
    // The same card on another device is the same judge.
    const laptop = browser(card);
    expect((await laptop.look()).content.question?.number).toBe(2);
    const names = (await page()).judges.filter((one) => one.answered > 0);
    expect(names).toHaveLength(1);
    // Made again, there are no more of them.
    await step({ do: 'make-cards' });
    expect((await page()).cards).toBe(3);
  });
});

describe('answers that come fast', () => {
  it('keep a panel from a verdict until its organiser has looked, which the report says', async () => {
    const { link, step, page } = await opened(6);
    const judge = browser(link);
    await judge.begin();
    for (let at = 1; at <= 3; at += 1) {
      await judge.look();
      await judge.answer(at, 'none');
    }
    await step({ do: 'end', note: 'enough' });
    await step({ do: 'reveal' });
    expect((await page()).result).toMatchObject({ isWithheld: true });
    expect((await step({ do: 'check-pace' })).status).toBe(400);
    expect((await step({ do: 'check-pace', note: 'they know the parts' })).status).toBe(200);
    const checked = await page();
    expect(checked.result).toMatchObject({ isWithheld: false });
    expect(checked.notes.map((one) => one.what)).toEqual(['ended-early', 'pace-checked']);
  });
});
