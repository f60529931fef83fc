import { beforeAll, describe, expect, it } from 'vitest';
import { resultsAreKept } from '../support/kept-results';
import { DEMO_PAIR } from '../support/demo-files';
import { served } from '../support/served';

const { call, db, get, url } = served(DEMO_PAIR);
let bench: string;
let speeds: string;

interface About {
  row_version: number;
  revision: string;
  scorecard: { criteria: { key: string; weight: number }[] };
}

beforeAll(async () => {
  const studies = await get<{ study_id: string; name: string }[]>('/studies');
  const idOf = (name: string) => studies.find((one) => one.name === name)?.study_id ?? '';
  [bench, speeds] = [idOf('clip-bench'), idOf('gannet-speeds')];
});

const page = async (path: string) => {
  const answer = await fetch(`${url()}/studies/${path}`);
  return { status: answer.status, text: await answer.text() };
};
const revisionsOf = async (sections: readonly string[]) =>
  Promise.all(
    sections.map(async (section) => {
      const answer = await fetch(`${url()}/api/v1/studies/${bench}/results/${section}`);
      return [answer.status, await answer.text()] as const;
    }),
  );

describe('the answer', () => {
  it.each([
    ['glance', 'All figures of all contenders'],
    ['head-to-head?of=A-tuned&with=B-tuned', 'is better than'],
    ['machine-or-profile', 'what the profile does depends on the machine'],
    ['scorecard', 'What counts'],
  ])('has its page: %s', async (path, words) => {
    const { status, text } = await page(`${bench}/results/${path}`);
    expect(status).toBe(200);
    expect(text).toContain(words);
  });

  it('of a sweep says how far it can be taken', async () => {
    const { text } = await page(`${speeds}/results/sweep`);
    expect(text).toContain('can go to 200 mm/s without loss against 120 mm/s');
    expect((await page(`${bench}/results/sweep`)).text).toContain('This study asks something else');
  });

  it('is given by the API, section by section', async () => {
    const sections = ['effects', 'criteria', 'differences', 'scorecard', 'sweep', 'ability'];
    const answers = await revisionsOf(sections);
    expect(answers.map(([status]) => status)).toEqual(sections.map(() => 200));
  });
});

describe('weights', () => {
  it('changed make the card anew, and no figure', async () => {
    const before = await get<About>(`/studies/${bench}`);
    const figures = ['accuracy', 'cost', 'criteria', 'differences'] as const;
    await revisionsOf([...figures, 'scorecard']);
    await resultsAreKept(db(), bench, [...figures, 'deviations']);
    const kept = async () => {
      const [rows] = await db().sequelize.query(
        "select section, revision from results where study_id = $1 and section <> 'scorecard'",
        { bind: [bench] },
      );
      return (rows as { section: string; revision: string }[])
        .map((row) => JSON.stringify(row))
        .sort();
    };
    const keptBefore = await kept();
    const criteria = before.scorecard.criteria.map((one) =>
      one.key === 'price' ? { ...one, weight: 90 } : one,
    );
    const change = { scorecard: { ...before.scorecard, criteria } };
    const { status } = await call('PATCH', `/studies/${bench}`, {
      version: before.row_version,
      change,
    });
    expect(status).toBe(200);
    interface Kept {
      stale: string[];
      scorecard: { criteria: { key: string; weight: number }[] };
    }
    const card = () => get<Kept>(`/studies/${bench}/results/scorecard`);
    await expect.poll(async () => (await card()).stale, { timeout: 30_000 }).toEqual([]);
    const price = (await card()).scorecard.criteria.find(({ key }) => key === 'price');
    await revisionsOf(figures);
    expect(await kept()).toEqual(keptBefore);
    // 90 of 30 + 20 + 15 + 20 + 90.
    expect(price?.weight).toBeCloseTo(90 / 175, 12);
  });

  it.each([
    [
      {
        criteria: [
          {
            key: 'price',
            weight: 0,
            points: [
              [0, 1],
              [1, 0],
            ],
          },
        ],
      },
      'at least one weight',
    ],
    [
      {
        criteria: [
          {
            key: 'price',
            weight: 1,
            points: [
              [1, 1],
              [0, 0],
            ],
          },
        ],
      },
      'must ascend',
    ],
    [
      {
        criteria: [
          {
            key: 'price',
            weight: 1,
            points: [
              [0, 1],
              [1, 0],
            ],
          },
        ],
        gates: [{ key: 'beauty', op: '>=', value: 1 }],
      },
      'is no criterion that a scorecard can weigh',
    ],
  ])('that cannot be are refused in words: %j', async (scorecard, words) => {
    const { row_version } = await get<About>(`/studies/${bench}`);
    const answer = await call('PATCH', `/studies/${bench}`, {
      version: row_version,
      change: { scorecard },
    });
    expect(answer.status).toBeGreaterThanOrEqual(400);
    expect(answer.status).toBeLessThan(500);
    expect(JSON.stringify(answer.content)).toContain(words);
  });
});

describe('a sweep set up from one contender', () => {
  const asked = { contender_id: 'B-tuned', setting: 'speed_outer_wall_mm_s', unit: 'mm/s' };
  let study: string;

  beforeAll(async () => {
    const made = await call('POST', '/studies', {
      title: 'A sweep of walls',
      intent: 'machines',
    });
    study = String(made.content.study_id);
    const rows: [string, object][] = [
      ['machines', { machine_id: 'm', name: 'Machine' }],
      ['profiles', { profile_id: 'p', name: 'Shipped', kind: 'stock' }],
      ['profile_settings', { profile_id: 'p', key: 'speed_outer_wall_mm_s', value: '120' }],
      ['profile_settings', { profile_id: 'p', key: 'walls', value: '3' }],
      ['contenders', { contender_id: 'B-tuned', label: 'B', machine_id: 'm', profile_id: 'p' }],
      ['materials', { material_id: 'pla', type: 'PLA' }],
      ['artefacts', { artefact_id: 'wall', name: 'Wall' }],
      ['planned', { contender_id: 'B-tuned', artefact_id: 'wall', material_id: 'pla', repeats: 3 }],
    ];
    for (const [table, row] of rows) await call('POST', `/studies/${study}/rows/${table}`, row);
  });

  it('asks about steps that go both ways, and makes nothing of them', async () => {
    const answer = await call('POST', `/studies/${study}/sweep`, {
      ...asked,
      values: [120, 200, 160],
    });
    expect(answer.status).toBe(422);
    expect(JSON.stringify(answer.content)).toContain('must ascend, or descend, from step to step');
    expect(await get<object[]>(`/studies/${study}/rows/profiles`)).toHaveLength(1);
    const two = await call('POST', `/studies/${study}/sweep`, { ...asked, values: [120, 160] });
    expect(JSON.stringify(two.content)).toContain('at least three steps');
    const nobody = { ...asked, contender_id: 'Z', values: [120, 160, 200] };
    expect((await call('POST', `/studies/${study}/sweep`, nobody)).status).toBe(422);
  });

  it('cannot be asked for without its steps', async () => {
    const { row_version } = await get<About>(`/studies/${study}`);
    const answer = await call('PATCH', `/studies/${study}`, {
      version: row_version,
      change: { intent: 'sweep' },
    });
    expect(answer.status).toBe(422);
    expect(JSON.stringify(answer.content)).toContain('set them up below');
  });

  it('has a profile, a contender and a plan for each, the first being the one that there is', async () => {
    const answer = await call('POST', `/studies/${study}/sweep`, {
      ...asked,
      values: [120, 160, 200],
    });
    expect(answer.status).toBe(201);
    expect(answer.content).toMatchObject({
      steps: [
        { contender_id: 'B-tuned', value: 120 },
        { contender_id: 'B-tuned-160', value: 160 },
        { contender_id: 'B-tuned-200', value: 200 },
      ],
    });
    const about = await get<object>(`/studies/${study}`);
    expect(about).toMatchObject({ intent: 'sweep', reference: 'B-tuned' });
    const settings = await get<{ profile_id: string; key: string; value: string }[]>(
      `/studies/${study}/rows/profile_settings`,
    );
    const own = settings.filter((row) => row.profile_id === 'p-200');
    expect(own.map(({ key, value }) => `${key} ${value}`).sort()).toEqual([
      'speed_outer_wall_mm_s 200',
      'walls 3',
    ]);
    const plan = await get<{ contender_id: string; repeats: number }[]>(
      `/studies/${study}/rows/planned`,
    );
    expect(plan.map(({ contender_id, repeats }) => `${contender_id} ${repeats}`).sort()).toEqual([
      'B-tuned 3',
      'B-tuned-160 3',
      'B-tuned-200 3',
    ]);
  });

  it('asked for again is the same, and keeps its steps and its reference', async () => {
    const again = await call('POST', `/studies/${study}/sweep`, {
      ...asked,
      values: [120, 160, 200],
    });
    expect(again.status).toBe(201);
    expect(await get<object[]>(`/studies/${study}/rows/contenders`)).toHaveLength(3);
    const contender = await get<{ row_version: number }>(
      `/studies/${study}/rows/contenders/B-tuned-200`,
    );
    const gone = await call('DELETE', `/studies/${study}/rows/contenders/B-tuned-200`, {
      version: contender.row_version,
    });
    expect(gone.status).toBe(422);
    const { row_version } = await get<About>(`/studies/${study}`);
    const turned = await call('PATCH', `/studies/${study}`, {
      version: row_version,
      change: { reference: 'B-tuned-200' },
    });
    expect(JSON.stringify(turned.content)).toContain('is its first step, B-tuned');
    const { text } = await page(`${study}/results/sweep`);
    expect(text).toContain('How far can it be taken?');
  });
});

describe('marks by hand', () => {
  const mark = {
    machine_id: 'gannet',
    aspect: 'looks',
    sign: 'plus',
    value: 8,
    text: 'clear',
    evidence: null,
    operator: 'KM',
    at: null,
  };
  const marks = () => get<object[]>(`/studies/${bench}/rows/marks`);
  const weighed = async () => {
    for (;;) {
      const [[, text]] = (await revisionsOf(['criteria'])) as [[number, string]];
      const { stale } = JSON.parse(text) as { stale: string[] };
      if (stale.length === 0) return text.includes('mark:looks');
    }
  };

  it('are weighed at once, and one of two that are the same is taken back', async () => {
    expect(await weighed()).toBe(false);
    const before = (await marks()).length;
    await call('POST', `/studies/${bench}/rows/marks`, mark);
    await call('POST', `/studies/${bench}/rows/marks`, mark);
    expect(await marks()).toHaveLength(before + 2);
    expect(await weighed()).toBe(true);
    expect((await call('DELETE', `/studies/${bench}/rows/marks`, mark)).status).toBe(204);
    expect(await marks()).toHaveLength(before + 1);
    expect((await call('DELETE', `/studies/${bench}/rows/marks`, mark)).status).toBe(204);
    expect((await call('DELETE', `/studies/${bench}/rows/marks`, mark)).status).toBe(404);
    expect(await weighed()).toBe(false);
  });

  it('are from 0 to 10', async () => {
    const answer = await call('POST', `/studies/${bench}/rows/marks`, { ...mark, value: 11 });
    expect(answer.status).toBe(400);
    expect(JSON.stringify(answer.content)).toContain('must be from 0 to 10');
  });
});

describe('a study again as another', () => {
  it('plans the same prints, and leaves open from which files', async () => {
    const planned = (id: string) =>
      get<{ contender_id: string; artefact_id: string; toolpath: string | null }[]>(
        `/studies/${id}/rows/planned`,
      );
    const first = await planned(bench);
    expect(first.every((row) => row.toolpath !== null)).toBe(true);
    const { status, content } = await call('POST', '/studies', { title: 'Again', again: bench });
    expect(status).toBe(201);
    const again = await planned(String(content.study_id));
    const places = (rows: typeof first) =>
      rows.map((row) => `${row.contender_id} ${row.artefact_id}`).sort();
    expect(places(again)).toEqual(places(first));
    expect(again.every((row) => row.toolpath === null)).toBe(true);
  });
});

describe('the plan', () => {
  it('says in what the files of a part differ and must not', async () => {
    const files = async () =>
      (await get<{ state: string }[]>(`/studies/${bench}/sliced-files`)).filter(
        ({ state }) => state === 'waiting' || state === 'reading',
      ).length;
    await expect.poll(files, { timeout: 90_000 }).toBe(0);
    const { text } = await page(`${bench}/plan`);
    expect(text).toContain(
      'The files differ in what must be equal: top layers (6 for Auklet 19 tuned; 5 elsewhere).',
    );
  });

  it('says what is not settled yet, and how many prints would settle it', async () => {
    const { text } = await page(`${bench}/plan`);
    const [, unsettled = ''] = text.split('Too close to call');
    const own = (unsettled.split('How many prints, for reliability')[0] ?? '')
      .replaceAll(/<[^>]*>/g, ' ')
      .replaceAll(/\s+/g, ' ');
    expect(own).toMatch(/mean deviation Petrel G27 stock \d+ prints each to be sure either way/);
    // What is settled, and what rests on one print, has no number.
    expect(own).not.toContain('Gannet');
  });
});
