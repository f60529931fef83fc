import { createHash } from 'node:crypto';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Judging, PanelPage } from '../../src/server/panels';
import type { Results } from '../../src/core/answers/results';
import { DEMO_PAIR } from '../support/demo-files';
import { served } from '../support/served';

const api = served(DEMO_PAIR);
const { call, get, url } = api;

let study: string;
/** By contender, its spires with their photos. */
const spires = new Map<string, { specimen_id: string; path: string }[]>();
const ownerOf = new Map<string, string>();
const THREE = ['A-stock', 'B-stock', 'B-tuned'];

beforeAll(async () => {
  const studies = await get<{ study_id: string; name: string }[]>('/studies');
  study = studies.find(({ name }) => name === 'clip-bench')?.study_id ?? '';
  const photos = await get<{ path: string; filed: { specimen_id: string } | null }[]>(
    `/studies/${study}/photos`,
  );
  const facts = await get<{ specimen_id: string; contender_id: string; artefact_id: string }[]>(
    `/studies/${study}/specimens`,
  );
  for (const { specimen_id, contender_id, artefact_id } of facts) {
    ownerOf.set(specimen_id, contender_id);
    const photo = photos.find((one) => one.filed?.specimen_id === specimen_id);
    if (artefact_id !== 'spire-pair' || !photo) continue;
    spires.set(contender_id, [
      ...(spires.get(contender_id) ?? []),
      { specimen_id, path: photo.path },
    ]);
  }
});

const PHOTOS = {
  shown_as: 'photos',
  view: 'front',
  light: 'flat',
  levels: 'matched',
  x_mm: -20,
  y_mm: 5,
  w_mm: 40,
  h_mm: 30,
};

let count = 0;
/** Plans a panel of spires and opens it. @returns its id, and the link for judges */
async function opened(more: object = {}, of: readonly string[] = THREE) {
  count += 1;
  const panel_id = `panel-${count}`;
  const draft = {
    panel_id,
    kind: 'paired',
    aspect: 'Which one is cleaner?',
    artefact_id: 'spire-pair',
    target: null,
    names: 'numbers',
    judges: 24,
    questions: 3,
    asked_again: 1,
    effect: 0.65,
    closes_at: null,
    ...PHOTOS,
    items: of.flatMap((id) => spires.get(id) ?? []),
    ...more,
  };
  const planned = await call('POST', `/studies/${study}/panels`, draft);
  expect([planned.status, planned.content]).toEqual([201, { panel_id }]);
  const begun = await call('POST', `/studies/${study}/panels/${panel_id}`, { do: 'open' });
  expect([begun.status, begun.content.detail]).toEqual([200, undefined]);
  const { link } = await page(panel_id);
  return { panel_id, link: String(link).replace('/judge/', ''), draft };
}

const page = (panel: string) => get<PanelPage>(`/studies/${study}/panels/${panel}`);
const step = (panel: string, content: object) =>
  call('POST', `/studies/${study}/panels/${panel}`, content);

/** A judge's browser: it keeps its cookie, and everything that it receives. */
function browser(link: string) {
  let cookie = '';
  const received: { headers: string[]; length: number; address: string }[] = [];
  const texts: string[] = [];
  const ask = async (method: string, content?: object, query = '') => {
    const response = await fetch(`${url()}/api/v1/judging/${link}${query}`, {
      method,
      headers: {
        cookie,
        connection: 'close',
        ...(content && { 'content-type': 'application/json' }),
      },
      ...(content && { body: JSON.stringify(content) }),
    });
    cookie = response.headers.get('set-cookie')?.split(';')[0] ?? cookie;
    const text = await response.text();
    texts.push(text, ...[...response.headers].flat());
    return { status: response.status, content: JSON.parse(text) as Judging & { detail?: string } };
  };
  const picture = async (address: string) => {
    const response = await fetch(url() + address, { headers: { cookie, connection: 'close' } });
    const bytes = new Uint8Array(await response.arrayBuffer());
    const headers = [...response.headers]
      .filter(([name]) => name !== 'date' && name !== 'x-request-id' && name !== 'etag')
      .map((pair) => pair.join(': '));
    received.push({ headers, length: bytes.length, address });
    return { status: response.status, bytes };
  };
  return { ask, picture, received, texts, cookie: () => cookie };
}

/** What the questions of a panel show in truth, by their codes. */
const truth = async (panel: string) => {
  const [rows] = (await api
    .db()
    .sequelize.query(
      'select items, codes from panel_questions join panel_judges using (judge_id) where panel_id = $1',
      { bind: [panel] },
    )) as unknown as [{ items: string[]; codes: string[] }[]];
  return new Map(rows.map((row) => [row.codes.join(' '), row]));
};

/** The parts of a JPEG before its pixels, but for comments: what a decoder is told. */
function headsOf(bytes: Uint8Array): string {
  const heads: string[] = [];
  for (let at = 2; at < bytes.length;) {
    const [marker = 0, high = 0, low = 0] = [bytes[at + 1], bytes[at + 2], bytes[at + 3]];
    const size = (high << 8) + low;
    if (marker !== 0xfe) heads.push(Buffer.from(bytes.subarray(at, at + 2 + size)).toString('hex'));
    if (marker === 0xda) break;
    at += 2 + size;
  }
  return heads.join('\n');
}

describe('a panel of 24 judges', () => {
  // How often of 24 showings the first of each two is preferred, how often nobody could say.
  const PREFERRED: Record<string, [number, number]> = {
    'A-stock B-stock': [6, 3],
    'A-stock B-tuned': [4, 0],
    'B-stock B-tuned': [11, 2],
  };

  it('ends in the figures put in, balanced, and tells its judges nothing', async () => {
    const { panel_id, link } = await opened();
    const seen = { of: new Map<string, number>(), left: new Map<string, number>() };
    const add = (map: Map<string, number>, key: string) => map.set(key, (map.get(key) ?? 0) + 1);
    const pictures: {
      contender: string;
      address: string;
      length: number;
      headers: string;
      heads: string;
      place: number;
      code: string;
    }[] = [];
    const texts: string[] = [];
    for (let number = 1; number <= 24; number += 1) {
      const judge = browser(link);
      const before = await judge.ask('GET');
      expect(before.content).toMatchObject({ state: 'new', question: null, wants_initials: false });
      let state = (await judge.ask('POST', {})).content;
      expect(state).toMatchObject({ state: 'asking', name: `J${String(number).padStart(2, '0')}` });
      const known = await truth(panel_id);
      const said = new Map<string, string>();
      while (state.question) {
        const { codes, pictures: addresses, number: question, of } = state.question;
        expect(of).toBe(4);
        const items = known.get(codes.join(' '))?.items ?? [];
        const owners = items.map((item) => ownerOf.get(item) ?? '');
        for (const [place, address] of addresses.entries()) {
          const { bytes } = await judge.picture(address);
          const { headers, length } = judge.received.at(-1) ?? { headers: [], length: 0 };
          pictures.push({
            contender: owners[place] ?? '',
            address: address.split('/').at(-1) ?? '',
            length,
            headers: headers.sort().join('\n'),
            heads: headsOf(bytes),
            place,
            code: codes[place] ?? '',
          });
        }
        const [a = '', b = ''] = [...owners].sort();
        const couple = `${a} ${b}`;
        // A judge who sees the same two again says the same again.
        const again = said.get([...items].sort().join(' '));
        if (again === undefined) add(seen.of, couple);
        if (again === undefined && owners[0] === a) add(seen.left, couple);
        const shown = seen.of.get(couple) ?? 0;
        const [first = 0, ties = 0] = PREFERRED[couple] ?? [];
        const wanted =
          again ??
          (shown <= first
            ? items[owners.indexOf(a)]
            : shown <= first + ties
              ? 'none'
              : items[owners.indexOf(b)]) ??
          '';
        said.set([...items].sort().join(' '), wanted);
        const answer = wanted === 'none' ? 'none' : (codes[items.indexOf(wanted)] ?? '');
        state = (await judge.ask('PUT', { question, answer })).content;
      }
      expect(state.state).toBe(number === 24 ? 'closed' : 'done');
      texts.push(...judge.texts);
    }

    // Each two were shown as often, and each stood left as often as right, to one.
    expect([...seen.of.values()]).toEqual([24, 24, 24]);
    for (const left of seen.left.values()) expect(Math.abs(2 * left - 24)).toBeLessThanOrEqual(1);

    // Nothing that a judge received, but the pixels, goes with the contender:
    // all pictures have one length, the same headers, the same tables and sizes inside;
    expect(pictures).toHaveLength(24 * 4 * 2);
    expect(new Set(pictures.map((one) => one.length)).size).toBe(1);
    expect([...new Set(pictures.map((one) => one.headers))]).toHaveLength(1);
    expect(new Set(pictures.map((one) => one.heads)).size).toBe(1);
    // no address and no two codes of a judge come twice;
    expect(new Set(pictures.map((one) => one.address)).size).toBe(pictures.length);
    // the digits of addresses and codes are spread over contenders as chance would (chi-square at 1
    // in a thousand million, so that chance never fails);
    const digits = (of: (one: (typeof pictures)[number]) => string, at: number) => {
      const table = new Map<string, number[]>();
      for (const one of pictures) {
        const digit = of(one)[at] ?? '';
        const row = table.get(digit) ?? THREE.map(() => 0);
        const column = THREE.indexOf(one.contender);
        row[column] = (row[column] ?? 0) + 1;
        table.set(digit, row);
      }
      return chiSquare([...table.values()]);
    };
    for (let at = 0; at < 36; at += 1) {
      // 2 × 15 degrees of freedom: 101.7 at 1e-9.
      expect(digits((one) => one.address, at)).toBeLessThan(101.7);
    }
    // 2 × 9 degrees of freedom: 79.6 at 1e-9.
    for (let at = 0; at < 3; at += 1) expect(digits((one) => one.code, at)).toBeLessThan(79.6);
    expect(digits((one) => String(one.place), 0)).toBeLessThan(41.4);
    // and no name, id or path of anything stands in any answer.
    const all = texts.join('\n');
    for (const [contender, own] of spires) {
      expect(all).not.toContain(contender);
      for (const { specimen_id, path } of own)
        for (const name of [specimen_id, path]) expect(all).not.toContain(name);
    }
    for (const name of ['Auklet', 'Gannet', 'spire', 'K7-', 'stock', 'tuned'])
      expect(all).not.toContain(name);

    // Closed by its number, the result is blind; then the names come in, and are the figures put in.
    const blind = await page(panel_id);
    expect(blind).toMatchObject({ state: 'closed', setup: { closed_by: 'number' }, link: null });
    expect(
      Object.keys(blind.result?.panel.kind === 'paired' ? blind.result.panel.abilities : {}).sort(),
    ).toEqual(['P', 'Q', 'R']);
    expect((await panelResults())[panel_id]).toMatchObject({ ballots: 0 });
    expect((await step(panel_id, { do: 'reveal' })).status).toBe(200);
    const found = (await page(panel_id)).result;
    expect(found?.panel).toMatchObject({ kind: 'paired', ballots: 96, judges: 24 });
    expect(found?.habits.agreement).toMatchObject({ asked: 24, same: 24 });
    const own = (await panelResults())[panel_id];
    if (own?.kind !== 'paired') throw new Error('it is paired');
    // Without the questions asked again it would be 72 ballots with 5 ties; those asked again say the same.
    const ballots = (
      await get<{ panel_id: string; item_1: string; item_2: string; choice: string }[]>(
        `/studies/${study}/rows/ballots`,
      )
    ).filter((row) => row.panel_id === panel_id);
    const firsts = new Set<string>();
    const counted = { wins: 0, ties: 0 };
    for (const row of ballots as ((typeof ballots)[number] & { judge: string })[]) {
      const key = [row.judge, ...[row.item_1, row.item_2].sort()].join(' ');
      const owners = [row.item_1, row.item_2].map((item) => ownerOf.get(item));
      if (firsts.has(key) || !owners.includes('A-stock') || !owners.includes('B-stock')) continue;
      firsts.add(key);
      if (row.choice === 'tie') counted.ties += 1;
      else if (owners[Number(row.choice) - 1] === 'A-stock') counted.wins += 1;
    }
    expect(counted).toEqual({ wins: 6, ties: 3 });
    // Alone the pairs say ln(16.5/7.5) = 0.79 and ln(20/4) = 1.61 over A-stock, and nothing between the two.
    const [stock, tuned] = [own.abilities['B-stock'], own.abilities['B-tuned']];
    expect(own.abilities['A-stock']?.log_ability?.estimate).toBe(0);
    expect(stock?.log_ability?.estimate).toBeGreaterThan(0.8);
    expect(stock?.log_ability?.estimate).toBeLessThan(tuned?.log_ability?.estimate ?? 0);
    expect(tuned?.log_ability?.estimate).toBeLessThan(1.6);
    expect(tuned?.log_ability_by_judge?.low).toBeGreaterThan(0);
  }, 180_000);
});

/** The section of the study's results, waited for where it is being made anew. */
async function panelResults(): Promise<NonNullable<Results['panels']>> {
  for (;;) {
    const answer = await get<Pick<Results, 'panels'> & { stale: string[] }>(
      `/studies/${study}/results/panels`,
    );
    if (answer.stale.length === 0 && answer.panels) return answer.panels;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

/** Pearson's statistic of a table of counts. */
function chiSquare(rows: readonly (readonly number[])[]): number {
  const columns = (rows[0] ?? []).map((_, at) =>
    rows.reduce((sum, row) => sum + (row[at] ?? 0), 0),
  );
  const all = columns.reduce((sum, count) => sum + count, 0);
  let statistic = 0;
  for (const row of rows) {
    const own = row.reduce((sum, count) => sum + count, 0);
    for (const [at, count] of row.entries()) {
      const expected = (own * (columns[at] ?? 0)) / all;
      statistic += (count - expected) ** 2 / expected;
    }
  }
  return statistic;
}

describe('a judge', () => {
  it('goes on after a break, changes their mind, and counts once however often it is sent', async () => {
    const { panel_id, link } = await opened({
      judges: 2,
      questions: 2,
      asked_again: null,
      names: 'initials',
    });
    const judge = browser(link);
    expect((await judge.ask('POST', {})).status).toBe(422);
    // What others are called by is nobody's initials.
    expect((await judge.ask('POST', { initials: 'J02' })).status).toBe(422);
    const first = (await judge.ask('POST', { initials: 'KM' })).content;
    expect(first).toMatchObject({ name: 'KM', question: { number: 1, of: 2, answer: null } });
    // The same browser that begins again is the same judge.
    expect((await judge.ask('POST', { initials: 'KM' })).content).toEqual(first);
    const [left = '', right = ''] = first.question?.codes ?? [];
    const sent = await Promise.all(
      Array.from({ length: 8 }, () => judge.ask('PUT', { question: 1, answer: left })),
    );
    expect(sent.map(({ status }) => status)).toEqual(Array(8).fill(200));
    expect((await judge.ask('GET')).content.question).toMatchObject({ number: 2, answer: null });
    // Back one, and another answer takes the place of the first.
    expect((await judge.ask('GET', undefined, '?question=1')).content.question).toMatchObject({
      number: 1,
      answer: left,
    });
    await judge.ask('PUT', { question: 1, answer: right });
    expect((await judge.ask('GET', undefined, '?question=1')).content.question?.answer).toBe(right);
    // One question further than they have come there is nothing to see.
    expect((await judge.ask('GET', undefined, '?question=9')).content.question?.number).toBe(2);
    expect((await page(panel_id)).ballots).toBe(1);
    // Another browser is another judge, whatever initials it says.
    const other = browser(link);
    expect((await other.ask('POST', { initials: 'KM' })).content.name).toBe('KM 2');
    // They stop: what was said counts, and the panel is complete once all have ended.
    expect((await other.ask('PUT', { question: 1, answer: 'none' })).status).toBe(200);
    expect((await other.ask('DELETE')).content.state).toBe('stopped');
    expect((await other.ask('POST', {})).content.question?.number).toBe(2);
    await other.ask('DELETE');
    expect((await page(panel_id)).state).toBe('open');
    await judge.ask('DELETE');
    expect(await page(panel_id)).toMatchObject({ state: 'closed', ballots: 2 });
  });

  it('is refused what is not in the panel', async () => {
    const { link } = await opened({
      judges: 2,
      kind: 'guess',
      target: 'B-tuned',
      questions: 1,
      asked_again: null,
    });
    const judge = browser(link);
    expect(await judge.ask('PUT', { question: 1, answer: '123' })).toMatchObject({ status: 401 });
    const state = (await judge.ask('POST', {})).content;
    const [code = ''] = state.question?.codes ?? [];
    const wrong = ['102', '317', '846'].find((one) => !state.question?.codes.includes(one)) ?? '';
    for (const answer of [wrong, 'none', '', 'K7-001']) {
      expect(await judge.ask('PUT', { question: 1, answer })).toMatchObject({ status: 422 });
    }
    expect((await judge.ask('PUT', { question: 7, answer: code })).status).toBe(404);
    expect((await judge.ask('PUT', { question: 1, answer: code, judge: 'J02' })).status).toBe(400);
    // Pictures are there for the judge who is asked, and for nobody else.
    const [address = ''] = state.question?.pictures ?? [];
    expect((await judge.picture(address)).status).toBe(200);
    expect((await browser(link).picture(address)).status).toBe(404);
    const elsewhere = browser((await opened({ judges: 2 })).link);
    await elsewhere.ask('POST', {});
    expect((await elsewhere.picture(address)).status).toBe(404);
    // No link, or half of one, leads nowhere.
    for (const none of ['x', link.slice(1), createHash('sha256').update('x').digest('base64url')]) {
      expect((await browser(none).ask('GET')).status).toBe(404);
    }
  });

  it('finds no place where as many as were wanted are at it, and learns that it is closed', async () => {
    const { panel_id, link } = await opened({ judges: 1, questions: 1, asked_again: null });
    const judge = browser(link);
    const state = (await judge.ask('POST', {})).content;
    const late = browser(link);
    expect((await late.ask('GET')).content.state).toBe('full');
    expect((await late.ask('POST', {})).status).toBe(409);
    const answer = { question: 1, answer: state.question?.codes[0] ?? '' };
    expect((await judge.ask('PUT', answer)).content.state).toBe('closed');
    // The answer that was lost on its way and comes again is the one that counts; another one is not taken.
    expect((await judge.ask('PUT', answer)).status).toBe(200);
    expect((await judge.ask('PUT', { question: 1, answer: 'none' })).status).toBe(409);
    expect((await late.ask('GET')).content.state).toBe('closed');
    expect((await late.ask('POST', {})).content.state).toBe('closed');
    expect((await page(panel_id)).ballots).toBe(1);
  });
});

describe('an organiser', () => {
  it('plans again and again until it is opened, and then it stays', async () => {
    const draft = {
      panel_id: 'plan',
      kind: 'triangle',
      aspect: 'Which one is not like the others?',
      artefact_id: 'spire-pair',
      target: null,
      names: 'numbers',
      judges: 6,
      questions: 1,
      asked_again: 0,
      effect: 0.3,
      closes_at: null,
      ...PHOTOS,
      items: ['A-stock', 'B-stock'].flatMap((id) => (spires.get(id) ?? []).slice(0, 1)),
    };
    const base = `/studies/${study}/panels`;
    const faults: [object, string][] = [
      [{}, 'wants a second specimen'],
      [{ kind: 'guess' }, 'must name its target'],
      [{ kind: 'paired', items: draft.items.slice(0, 1) }, 'at least two contenders'],
      [{ kind: 'paired', questions: 2 }, 'ask at most 1'],
      [{ kind: 'paired', light: 'back' }, 'has another view or light'],
      [{ kind: 'paired', w_mm: null }, 'which place of it is shown'],
      [{ kind: 'paired', items: [draft.items[0], draft.items[0]] }, 'is listed twice'],
      [{ kind: 'paired', artefact_id: 'stair-block' }, 'is no specimen of this artefact'],
      [
        { kind: 'paired', items: draft.items.map((one) => ({ ...one, path: 'photos/x.jpg' })) },
        'has no such photo',
      ],
    ];
    for (const [more, words] of faults) {
      const answer = await call('POST', base, { ...draft, ...more });
      expect([answer.status, answer.content.detail]).toEqual([422, expect.stringContaining(words)]);
    }
    expect((await call('POST', base, { ...draft, kind: 'paired', aspect: ' ' })).status).toBe(400);
    expect((await call('POST', base, { ...draft, kind: 'paired' })).status).toBe(201);
    expect(
      (await call('PUT', `${base}/plan`, { ...draft, kind: 'paired', w_mm: 4000 })).status,
    ).toBe(204);
    // A place that a photo does not show is found when the pictures are made, and nothing is opened.
    expect((await step('plan', { do: 'open' })).content.detail).toContain(
      'does not show all of the place',
    );
    expect((await page('plan')).state).toBe('draft');
    expect((await call('DELETE', `${base}/plan`)).status).toBe(204);
    const { panel_id, draft: planned } = await opened({ judges: 2 });
    expect((await call('PUT', `${base}/${panel_id}`, planned)).status).toBe(409);
    expect((await call('DELETE', `${base}/${panel_id}`)).status).toBe(409);
    expect((await step(panel_id, { do: 'open' })).status).toBe(409);
    // Nor can it be changed beside its page.
    for (const [table, key] of [
      ['panels', panel_id],
      ['panel_setups', panel_id],
    ]) {
      const change = { version: 1, change: {} };
      expect((await call('PATCH', `/studies/${study}/rows/${table}/${key}`, change)).status).toBe(
        409,
      );
    }
    const [a, b] = planned.items;
    const ballot = {
      panel_id,
      judge: 'me',
      item_1: a?.specimen_id,
      item_2: b?.specimen_id,
      choice: '1',
    };
    expect((await call('POST', `/studies/${study}/rows/ballots`, ballot)).status).toBe(409);
  });

  it('names a panel after its question, and two at once are two', async () => {
    const draft = {
      kind: 'paired',
      aspect: 'Which of these is neater?',
      artefact_id: 'spire-pair',
      target: null,
      shown_as: 'parts',
      names: 'numbers',
      judges: 2,
      questions: 1,
      items: (spires.get('A-stock') ?? [])
        .slice(0, 1)
        .concat((spires.get('B-stock') ?? []).slice(0, 1)),
    };
    const made = await Promise.all(
      [1, 2, 3].map(() => call('POST', `/studies/${study}/panels`, draft)),
    );
    expect(made.map(({ status }) => status)).toEqual([201, 201, 201]);
    expect(made.map(({ content }) => content.panel_id).sort()).toEqual([
      'of-these-is-neater',
      'of-these-is-neater-2',
      'of-these-is-neater-3',
    ]);
  });

  it('neither looks nor ends nor takes anything out without a reason that stays', async () => {
    const { panel_id, link, draft } = await opened({ judges: 5 });
    expect((await page(panel_id)).result).toBeNull();
    expect((await step(panel_id, { do: 'reveal' })).content.detail).toContain('its rule ends it');
    expect((await step(panel_id, { do: 'look', note: ' ' })).status).toBe(400);
    const judge = browser(link);
    let state = (await judge.ask('POST', {})).content;
    const known = await truth(panel_id);
    const [shown = ''] = known.get(state.question?.codes.join(' ') ?? '')?.items ?? [];
    state = (await judge.ask('PUT', { question: 1, answer: 'none' })).content;
    // A photo that judges see is not taken back under their hands.
    const { path = '' } = draft.items.find((one) => one.specimen_id === shown) ?? {};
    const refused = await call(
      'DELETE',
      `/studies/${study}/photos?path=${encodeURIComponent(path)}`,
    );
    expect([refused.status, refused.content.detail]).toEqual([
      409,
      expect.stringContaining('Judges see this photo'),
    ]);
    // Taken out with a reason, it is passed over, and what was said of it does not count.
    const of = state.question?.of ?? 0;
    expect(
      (
        await step(panel_id, {
          do: 'take-out',
          specimen_id: shown,
          note: 'wrong part in the picture',
        })
      ).status,
    ).toBe(200);
    expect((await judge.ask('GET')).content.question?.of).toBeLessThan(of);
    expect((await step(panel_id, { do: 'look', note: 'to see whether it works' })).status).toBe(
      200,
    );
    expect((await step(panel_id, { do: 'end', note: 'the shop closes' })).status).toBe(200);
    expect((await judge.ask('GET')).content.state).toBe('closed');
    await step(panel_id, { do: 'reveal' });
    const ended = await page(panel_id);
    expect(ended).toMatchObject({ state: 'revealed', setup: { closed_by: 'hand' } });
    expect(ended.notes.map(({ what, note }) => [what, note])).toEqual([
      ['taken-out', `${shown}: wrong part in the picture`],
      ['looked', 'to see whether it works'],
      ['ended-early', 'the shop closes'],
    ]);
    expect(ended.result?.panel.ballots).toBe(0);
    expect((await step(panel_id, { do: 'reveal' })).status).toBe(409);
  });

  it('closes it at its date', async () => {
    const tomorrow = new Date(Date.now() + 86_400_000).toISOString();
    const { panel_id, link } = await opened({ judges: 5, closes_at: tomorrow });
    const judge = browser(link);
    expect((await judge.ask('POST', {})).content.state).toBe('asking');
    // A day later.
    await api.db().sequelize.query('update panel_setups set closes_at = $2 where panel_id = $1', {
      bind: [panel_id, new Date(Date.now() - 1000).toISOString()],
    });
    expect((await judge.ask('GET')).content.state).toBe('closed');
    expect((await judge.ask('PUT', { question: 1, answer: 'none' })).status).toBe(409);
    expect(await page(panel_id)).toMatchObject({ state: 'closed', setup: { closed_by: 'date' } });
    const past = {
      ...PHOTOS,
      panel_id: 'past',
      kind: 'paired',
      aspect: 'x',
      artefact_id: 'spire-pair',
      target: null,
      names: 'numbers',
      judges: 2,
      questions: 1,
      asked_again: null,
      effect: null,
      closes_at: '2026-01-01T00:00:00Z',
      items: THREE.flatMap((id) => spires.get(id) ?? []),
    };
    await call('POST', `/studies/${study}/panels`, past);
    expect((await step('past', { do: 'open' })).content.detail).toContain(
      'closed before it begins',
    );
  });

  it('closes it when as many as were wanted have gone, and not before', async () => {
    const { panel_id, link } = await opened({ judges: 1, questions: 2, asked_again: null });
    const judge = browser(link);
    await judge.ask('POST', {});
    await judge.ask('PUT', { question: 1, answer: 'none' });
    const answered = (minutes: number) =>
      api
        .db()
        .sequelize.query(
          'update panel_judges set answered_at = now() - make_interval(mins => $2) where panel_id = $1',
          { bind: [panel_id, minutes] },
        );
    await answered(59);
    expect((await judge.ask('GET')).content.state).toBe('asking');
    expect((await page(panel_id)).judges).toMatchObject([{ state: 'at it', answered: 1, of: 2 }]);
    await answered(61);
    expect((await page(panel_id)).judges).toMatchObject([{ state: 'left' }]);
    expect((await judge.ask('GET')).content.state).toBe('closed');
    expect(await page(panel_id)).toMatchObject({ setup: { closed_by: 'number' }, ballots: 1 });
  });

  it('has parts laid out at places, each with its own sheet', async () => {
    const { panel_id, link } = await opened(
      { shown_as: 'parts', kind: 'triangle', judges: 3, questions: 2, asked_again: null },
      ['A-stock', 'B-stock'],
    );
    const judge = browser(link);
    expect((await judge.ask('GET')).content).toMatchObject({
      state: 'new',
      free_places: [1, 2, 3],
    });
    expect((await judge.ask('POST', {})).status).toBe(422);
    const state = (await judge.ask('POST', { place: 2 })).content;
    expect(state.question).toMatchObject({ pictures: [], codes: { length: 3 } });
    const other = browser(link);
    expect((await other.ask('POST', { place: 2 })).content.detail).toContain('sits at place 2');
    expect((await other.ask('GET')).content.free_places).toEqual([1, 3]);
    expect((await page(panel_id)).judges.map((one) => one.state)).toEqual([
      'waiting',
      'at it',
      'waiting',
    ]);
  });
});

describe('a thousand from one address', () => {
  it('are let in as a class would be, then wait; whoever judges goes on', async () => {
    const { panel_id, link } = await opened({ judges: 500, questions: 1, asked_again: null });
    const judge = browser(link);
    await judge.ask('POST', {});
    const statuses: number[] = [];
    for (let more = 0; more < 70; more += 1) {
      statuses.push((await browser(link).ask('POST', {})).status);
      if (statuses.at(-1) === 429) break;
    }
    expect(statuses.at(-1)).toBe(429);
    expect(new Set(statuses.slice(0, -1))).toEqual(new Set([200]));
    expect((await judge.ask('POST', {})).content.question?.number).toBe(1);
    const late = await browser(link).ask('POST', {});
    expect([late.status, late.content.detail]).toEqual([429, expect.stringContaining('Too many')]);
    expect((await page(panel_id)).ballots).toBe(0);
  });
});
