import { readdirSync } from 'node:fs';
import { parse } from 'node-html-parser';
import { beforeAll, describe, expect, it } from 'vitest';
import { DEMO_PAIR } from '../support/demo-files';
import { served } from '../support/served';
import { isForPrograms, readOn } from '../support/words';

const { call, get, url } = served(DEMO_PAIR);

/** Every page that there is, as its file under `src/pages`. */
const FILES = readdirSync('src/pages', { recursive: true, encoding: 'utf8' })
  // Who writes programs reads of columns by their names.
  .filter((file) => file.endsWith('.astro') && file !== 'for-programs.astro')
  .sort();

/** What stands in an address for each of its parts. */
const PARTS: Record<string, string> = {
  artefact: 'stair-block',
  machine: 'gannet',
  token: 'A'.repeat(43),
};
const uids: Record<string, string> = {};
let sweep = '';

beforeAll(async () => {
  const studies = await get<{ study_id: string; name: string }[]>('/studies');
  PARTS.study = studies.find(({ name }) => name === 'clip-bench')?.study_id ?? '';
  sweep = studies.find(({ name }) => name !== 'clip-bench')?.study_id ?? '';
  const files = await get<{ path: string }[]>(`/studies/${PARTS.study}/sliced-files`);
  PARTS['...path'] = files[0]?.path ?? '';
  const instruments = await get<{ instrument_id: string }[]>(
    `/studies/${PARTS.study}/rows/instruments`,
  );
  PARTS.instrument = instruments[0]?.instrument_id ?? '';
  for (const table of ['machines', 'artefacts', 'materials', 'instruments', 'profiles']) {
    const rows = await get<{ uid: string }[]>(`/studies/${PARTS.study}/rows/${table}`);
    uids[table] = rows[0]?.uid ?? '';
  }
  await openPanel();
  await planGauge();
});

/** What is asked for behind the `?` of a page that shows nothing without it. */
const QUERIES: Record<string, string> = {
  'studies/[study]/measure/gauge.astro': '?plan=caliper-width',
};

/** Pages that say why there is nothing to see; cards are made of a report, and are read where there is one. */
const STATUS: Record<string, number> = {
  '404.astro': 404,
  '500.astro': 500,
  'refused.astro': 403,
  'enter/[token].astro': 410,
  'studies/[study]/report/cards.astro': 404,
};

async function planGauge() {
  const dimensions = await get<{ artefact_id: string; dimension_id: string }[]>(
    `/studies/${PARTS.study}/rows/dimensions`,
  );
  const specimens = await get<{ specimen_id: string; artefact_id: string }[]>(
    `/studies/${PARTS.study}/specimens`,
  );
  const { artefact_id, dimension_id } = dimensions[0]!;
  const parts = specimens.filter((one) => one.artefact_id === artefact_id).slice(0, 3);
  const made = await call('POST', `/studies/${PARTS.study}/rows/gauge_plans`, {
    gauge_plan_id: 'caliper-width',
    instrument_id: PARTS.instrument,
    artefact_id,
    dimension_id,
    specimens: parts.map((one) => one.specimen_id).join(' '),
    operators: 'AB CD',
    trials: 2,
  });
  expect(made.status).toBe(201);
}

/** A panel of parts that is open: it has a link for judges, and sheets. */
async function openPanel() {
  const panels = `/studies/${PARTS.study}/panels`;
  const specimens = await get<{ specimen_id: string; artefact_id: string }[]>(
    `/studies/${PARTS.study}/specimens`,
  );
  const blocks = specimens.filter((one) => one.artefact_id === 'stair-block');
  PARTS.panel = 'whose-block';
  await call('POST', panels, {
    panel_id: PARTS.panel,
    kind: 'paired',
    aspect: 'Which block is neater?',
    target: null,
    artefact_id: 'stair-block',
    shown_as: 'parts',
    names: 'numbers',
    judges: 2,
    questions: 1,
    items: blocks.map(({ specimen_id }) => ({ specimen_id, path: null })),
  });
  await call('POST', `${panels}/${PARTS.panel}`, { do: 'open' });
  const { link } = await get<{ link: string }>(`${panels}/${PARTS.panel}`);
  PARTS.link = link.replace('/judge/', '');
}

function addressOf(file: string): string {
  const [first = ''] = file.split('/');
  const path = file.replace(/\.astro$/, '').replace(/(^|\/)index$/, '');
  return path.replaceAll(/\[([^\]]+)\]/g, (_, name: string) => {
    if (file.endsWith('/sweep.astro')) return sweep;
    const part = name === 'uid' ? uids[first] : PARTS[name];
    if (!part) throw new Error(`nothing stands for [${name}] of ${file}`);
    return part;
  });
}

describe('words on the page of', () => {
  it.each(FILES)('%s are people’s: no column’s name, no key', async (file) => {
    const response = await fetch(`${url()}/${addressOf(file)}${QUERIES[file] ?? ''}`);
    expect(response.status).toBe(STATUS[file] ?? 200);
    const said = readOn(parse(await response.text()));
    expect(said.length).toBeGreaterThan(3);
    expect(said.filter(isForPrograms)).toEqual([]);
  });
});
