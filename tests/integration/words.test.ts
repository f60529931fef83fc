import { readdirSync } from 'node:fs';
import { parse, type HTMLElement, type Node } from 'node-html-parser';
import { beforeAll, describe, expect, it } from 'vitest';
import * as catalogues from '../../src/core/study/catalogues';
import { inWords } from '../../src/core/study/labels';
import { DEMO, DEMO_SWEEP } from '../support/demo-files';
import { served } from '../support/served';

const { call, get, url } = served([DEMO, DEMO_SWEEP]);

/** Every page that there is, as its file under `src/pages`. */
const FILES = readdirSync('src/pages', { recursive: true, encoding: 'utf8' })
  // Who writes programs reads of columns by their names.
  .filter((file) => file.endsWith('.astro') && file !== 'for-programs.astro')
  .sort();

/** What stands in an address for each of its parts. */
const PARTS: Record<string, string> = {
  ...{ artefact: 'stair-block', machine: 'gannet', token: 'A'.repeat(43) },
};
const uids: Record<string, string> = {};
let sweep = '';

beforeAll(async () => {
  const studies = await get<{ study_id: string; name: string }[]>('/studies');
  PARTS.study = studies.find(({ name }) => name === 'clip-bench')?.study_id ?? '';
  sweep = studies.find(({ name }) => name !== 'clip-bench')?.study_id ?? '';
  const files = await get<{ path: string }[]>(`/studies/${PARTS.study}/sliced-files`);
  PARTS['...path'] = files[0]?.path ?? '';
  const instruments = await get<{ instrument_id: string }[]>(`/studies/${PARTS.study}/rows/instruments`); // prettier-ignore
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
  'studies/[study]/report/cards.astro': '?of=1',
};

/** Pages that are shown where there is nothing, or nothing any more. */
const NOTHING_THERE = new Set(['404.astro', '500.astro']);

async function planGauge() {
  const dimensions = await get<{ artefact_id: string; dimension_id: string }[]>(`/studies/${PARTS.study}/rows/dimensions`); // prettier-ignore
  const specimens = await get<{ specimen_id: string; artefact_id: string }[]>(`/studies/${PARTS.study}/specimens`); // prettier-ignore
  const { artefact_id, dimension_id } = dimensions[0]!;
  const parts = specimens.filter((one) => one.artefact_id === artefact_id).slice(0, 3);
  const made = await call('POST', `/studies/${PARTS.study}/rows/gauge_plans`, {
    ...{
      gauge_plan_id: 'caliper-width',
      instrument_id: PARTS.instrument,
      artefact_id,
      dimension_id,
    },
    ...{ specimens: parts.map((one) => one.specimen_id).join(' '), operators: 'AB CD', trials: 2 },
  });
  expect(made.status).toBe(201);
}

/** A panel of parts that is open: it has a link for judges, and sheets. */
async function openPanel() {
  const panels = `/studies/${PARTS.study}/panels`;
  const specimens = await get<{ specimen_id: string; artefact_id: string }[]>(`/studies/${PARTS.study}/specimens`); // prettier-ignore
  const blocks = specimens.filter((one) => one.artefact_id === 'stair-block');
  PARTS.panel = 'whose-block';
  await call('POST', panels, {
    ...{ panel_id: PARTS.panel, kind: 'paired', aspect: 'Which block is neater?', target: null },
    ...{ artefact_id: 'stair-block', shown_as: 'parts', names: 'numbers', judges: 2, questions: 1 },
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

/** What a person reads on a page, or hears: texts, and the attributes that are shown or spoken. */
function readOn(element: HTMLElement): string[] {
  const said: string[] = [];
  const visit = (node: Node) => {
    if (node.nodeType === 3) said.push(node.text.trim());
    const own = node as HTMLElement;
    if (['SCRIPT', 'STYLE', 'TEMPLATE', 'CODE'].includes(own.tagName ?? '')) return;
    for (const name of ['aria-label', 'placeholder', 'title', 'data-hint', 'alt']) {
      const value = node.nodeType === 1 ? own.getAttribute(name) : undefined;
      if (value) said.push(value);
    }
    node.childNodes.forEach(visit);
  };
  visit(element);
  return said.filter((text) => text !== '');
}

/** Words of catalogues that people write otherwise: `loose-strands`. */
const KEYS = new Set(
  Object.values(catalogues)
    .flatMap((each) => (Array.isArray(each) ? (each as unknown[]) : []))
    .filter((key): key is string => typeof key === 'string' && inWords(key) !== key),
);

describe('words on the page of', () => {
  it.each(FILES)('%s are people’s: no column’s name, no key', async (file) => {
    const response = await fetch(`${url()}/${addressOf(file)}${QUERIES[file] ?? ''}`);
    if (!NOTHING_THERE.has(file)) expect([file, response.status]).toEqual([file, 200]);
    const said = readOn(parse(await response.text()));
    expect(said.length).toBeGreaterThan(3);
    const columns = said.filter((text) => /(?<![\w./-])[a-z][a-z0-9]*(?:_[a-z0-9]+)+(?![\w./-])/.test(text)); // prettier-ignore
    expect(columns).toEqual([]);
    expect(said.filter((text) => KEYS.has(text))).toEqual([]);
  });
});
