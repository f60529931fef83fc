import { join } from 'node:path';
import { unzipSync, zipSync } from 'fflate';
import { beforeAll, describe, expect, it } from 'vitest';
import { featuresOfMachines, tieRows } from '../../src/data';
import { demoFiles } from '../support/demo-files';
import { served } from '../support/served';

const demo = (name: string) => join('demo', name);
const { call, db, get, url } = served([
  demo('winter-stock'),
  demo('spoke-keys'),
  demo('gannet-update'),
]);

interface CatalogueItem {
  uid: string;
  name: string;
  facts: Record<string, string | number | null>;
  row_version: number;
}
interface Listed {
  study_id: string;
  name: string;
  title: string;
}

const studies = () => get<Listed[]>('/studies');
const studyOf = async (name: string) =>
  (await studies()).find((one) => one.name === name)?.study_id ?? '';
const things = (kind: string) => get<CatalogueItem[]>(`/things?kind=${kind}`);
const named = async (kind: string, name: string) => {
  const found = (await things(kind)).filter((one) => one.name === name);
  return { all: found, uid: found[0]?.uid ?? '', thing: found[0] };
};
const rows = async <Row>(study: string, table: string) =>
  get<(Row & { row_version: number })[]>(`/studies/${study}/rows/${table}`);
const page = async (path: string) => {
  const answer = await fetch(url() + path);
  return { status: answer.status, text: (await answer.text()).replaceAll('<!-- -->', '') };
};
const query = async (sql: string) => (await db().sequelize.query(sql))[0];

/** A study package of one's own: the small demo study, with its tables changed. */
function packed(name: string, change: (file: string, text: string) => string): Uint8Array {
  const files = [...demoFiles(demo('gannet-update'))].map(([path, bytes]) => {
    const isTable = /\.(?:csv|json)$/.test(path);
    if (!isTable) return [path, bytes] as const;
    const text = change(path, new TextDecoder().decode(bytes)).replaceAll('gannet-update', name);
    return [path, new TextEncoder().encode(text)] as const;
  });
  return zipSync(Object.fromEntries(files));
}
/** Takes the lasting id out of a table: its last column, for machines the one before their letter. */
const withoutUid = (file: string, text: string) => {
  if (file === 'machines.csv') return text.replace(/,[^,\n]*(,[^,\n]*)$/gm, '$1');
  return /^(?:profiles|materials|artefacts|instruments)\.csv$/.test(file)
    ? text.replace(/,[^,\n]*$/gm, '')
    : text;
};
/** Gives the last machine of a table another lasting id. */
const withLastUid = (text: string, uid: string) =>
  text.replace(/,[^,\n]*(,[^,\n]*\n)$/, `,${uid}$1`);
const imported = (content: Uint8Array) =>
  call('PUT', '/imports', content, { 'content-type': 'application/zip' });

let winter: string;
let update: string;
beforeAll(async () => {
  [winter, update] = [await studyOf('winter-stock'), await studyOf('gannet-update')];
});

describe('where a machine stands', () => {
  it('is said of the part that was printed in most studies', async () => {
    const parts = (await things('artefact')).map(({ name }) => name);
    expect(parts).toEqual(expect.arrayContaining(['Stair block', 'Tile field']));
    expect((await page('/machines')).text).toContain('Standings on the Stair block');
  });
});

describe('a thing of several studies', () => {
  it('is one where it carries one lasting id', async () => {
    const { all } = await named('machine', 'Gannet X24');
    expect(all).toHaveLength(1);
    const { text } = await page(`/machines/${all[0]?.uid}`);
    expect(text).toContain('prints in 2 studies');
    expect(text).toContain('Winter stock run on the Gannet');
  });

  it('is found by its name, and so is everything else', async () => {
    const found = (q: string, study = '') =>
      get<{ kind: string; name: string; href: string }[]>(
        `/find?q=${encodeURIComponent(q)}${study}`,
      );
    expect((await found('razor'))[0]).toMatchObject({ kind: 'machine', name: 'Razorbill S' });
    expect((await found('W4-0', `&study=${winter}`)).map((one) => one.kind)).toContain('specimen');
    expect((await found('winter'))[0]).toMatchObject({ kind: 'study' });
    expect(await found('100% of _nothing_')).toEqual([]);
    expect((await call('GET', `/find?q=${'x'.repeat(201)}`)).status).toBe(422);
  });

  it('learns what is written down in a study as long as the two are in step', async () => {
    const [machine] = await rows<{ machine_id: string }>(winter, 'machines');
    const change = (value: string, version: number) =>
      call('PATCH', `/studies/${winter}/rows/machines/gannet`, {
        version,
        change: { firmware: value },
      });
    expect((await change('2.0.0', machine?.row_version ?? 0)).status).toBe(200);
    const { thing, uid } = await named('machine', 'Gannet X24');
    expect(thing?.facts.firmware).toBe('2.0.0');
    // The other study keeps what it has, and says what is another today.
    expect((await rows<{ firmware: string }>(update, 'machines'))[0]?.firmware).toBe('1.9.2');
    expect((await page(`/studies/${update}/line-up`)).text).toContain('is 2.0.0 today');
    // Once the workshop knows better, a study no longer changes it.
    const known = await call('PATCH', `/things/${uid}`, {
      version: thing?.row_version,
      change: { firmware: '2.1.0' },
    });
    expect(known.status).toBe(200);
    await change('2.0.1', (machine?.row_version ?? 0) + 1);
    expect((await named('machine', 'Gannet X24')).thing?.facts.firmware).toBe('2.1.0');
  });

  it('is changed from the version that was read, and within its domains', async () => {
    const { thing, uid } = await named('machine', 'Gannet X24');
    const send = (change: object, version = thing?.row_version) =>
      call('PATCH', `/things/${uid}`, { version, change });
    expect((await send({ maker: 'X' }, 1)).status).toBe(409);
    expect((await send({ price_paid: -1 })).content.detail).toBe('price_paid must not be below 0');
    expect((await send({ name: null })).content.detail).toBe('name must not be empty.');
    expect((await send({ wings: 2 })).content.detail).toBe('wings is no fact of a machine.');
    expect((await send({ mesh_sha256: 'x' })).status).toBe(422);
  });
});

describe('a package without lasting ids', () => {
  let twin: string;

  it('brings things of its own, and leaves as it came', async () => {
    const answer = await imported(packed('twin', withoutUid));
    expect(answer.status).toBe(201);
    twin = String(answer.content.study_id);
    expect((await named('machine', 'Gannet X24')).all).toHaveLength(2);
    const zip = await fetch(`${url()}/api/v1/studies/${twin}/package`);
    const files = unzipSync(new Uint8Array(await zip.arrayBuffer()));
    const machines = new TextDecoder().decode(files['machines.csv']);
    expect(machines).not.toMatch(/[0-9a-f]{8}-[0-9a-f]{4}-7/);
  });

  it('is asked about: what is plainly the same is proposed, and nothing is put together by itself', async () => {
    const { text } = await page('/machines');
    expect(text).toContain('Is this one machine?');
    expect(text).toContain('the same name and maker');
    expect((await page('/artefacts')).text).toContain('the same mesh');
  });

  it('is put together with what is there, and taken apart again', async () => {
    const [one, other] = (await named('machine', 'Gannet X24')).all;
    const act = (uid: string | undefined, content: object) =>
      call('POST', `/things/${uid}`, content);
    expect((await act(one?.uid, { action: 'merge', other: other?.uid })).status).toBe(204);
    const { all, uid } = await named('machine', 'Gannet X24');
    expect(all).toHaveLength(1);
    expect((await page(`/machines/${uid}`)).text).toContain('prints in 3 studies');
    // Either id leads to it.
    expect((await get<CatalogueItem>(`/things/${other?.uid}`)).uid).toBe(
      (await get<CatalogueItem>(`/things/${one?.uid}`)).uid,
    );
    const merged = uid === one?.uid ? other?.uid : one?.uid;
    expect((await act(merged, { action: 'split' })).status).toBe(204);
    expect((await named('machine', 'Gannet X24')).all).toHaveLength(2);
    expect((await act(merged, { action: 'split' })).status).toBe(404);
    expect((await act(one?.uid, { action: 'apart', other: other?.uid })).status).toBe(204);
    expect((await page('/machines')).text).not.toContain('Is this one machine?');
  });

  it('now carries lasting ids where a person decided on them', async () => {
    const zip = await fetch(`${url()}/api/v1/studies/${twin}/package`);
    const files = unzipSync(new Uint8Array(await zip.arrayBuffer()));
    expect(new TextDecoder().decode(files['machines.csv'])).toMatch(/[0-9a-f]{8}-[0-9a-f]{4}-7/);
  });
});

describe('what cannot be', () => {
  it('two that stand side by side in one study are two', async () => {
    const [a, b] = [
      (await named('machine', 'Razorbill S')).uid,
      (await named('machine', 'Turnstone mini')).uid,
    ];
    const { status, content } = await call('POST', `/things/${a}`, { action: 'merge', other: b });
    expect(status).toBe(409);
    expect(content.detail).toMatch(
      /are compared with each other in “Two small machines for spoke keys”/,
    );
    expect((await named('machine', 'Turnstone mini')).all).toHaveLength(1);
  });

  it('a machine is no part', async () => {
    const [a, b] = [
      (await named('machine', 'Razorbill S')).uid,
      (await named('artefact', 'Stair block')).uid,
    ];
    expect((await call('POST', `/things/${a}`, { action: 'merge', other: b })).status).toBe(409);
  });

  it('a package whose lasting id is that of a thing of another kind is refused whole', async () => {
    const { uid } = await named('artefact', 'Stair block');
    const before = (await studies()).length;
    const content = packed('odd', (file, text) =>
      file === 'machines.csv' ? withLastUid(text, uid) : text,
    );
    const { status, content: answer } = await imported(content);
    expect([status, answer.detail]).toEqual([
      409,
      expect.stringMatching(
        /machines\.csv: gannet has the lasting id \(uid\) of the artefact Stair block/,
      ),
    ]);
    expect((await studies()).length).toBe(before);
  });

  it('a name that is there already is asked about', async () => {
    const ask = (more: object = {}) =>
      call('POST', '/things', { kind: 'machine', facts: { name: 'razorbill s' }, ...more });
    const { status, content } = await ask();
    expect(status).toBe(409);
    expect(content.current).toMatchObject({ name: 'Razorbill S' });
    expect((await ask({ evenIfNamed: true })).status).toBe(201);
  });
});

describe('a thing that is taken out of the lists', () => {
  it('stays where studies have it, and is put back', async () => {
    const { uid } = await named('machine', 'Turnstone mini');
    const spokes = await studyOf('spoke-keys');
    expect((await call('DELETE', `/things/${uid}`)).status).toBe(204);
    expect((await named('machine', 'Turnstone mini')).all).toEqual([]);
    expect((await page('/machines')).text).not.toContain('Turnstone mini');
    expect((await page(`/studies/${spokes}/line-up`)).text).toContain('Turnstone mini');
    expect((await page(`/machines/${uid}`)).text).toContain('It is archived.');
    expect((await call('POST', `/things/${uid}`, { action: 'restore' })).status).toBe(204);
    expect((await named('machine', 'Turnstone mini')).all).toHaveLength(1);
  });
});

describe('a line-up from nothing', () => {
  let study: string;
  const add = (content: object) => call('POST', `/studies/${study}/line-up`, content);
  beforeAll(async () => {
    const { content } = await call('POST', '/studies', {
      title: 'From nothing',
      intent: 'machines',
    });
    study = String(content.study_id);
  });

  it('takes a machine of the workshop as it is today, with its stock profile', async () => {
    const { uid } = await named('machine', 'Razorbill S');
    expect((await add({ add: 'machine', picked: { uid } })).status).toBe(201);
    expect(await rows(study, 'machines')).toMatchObject([
      { machine_id: 'razorbill-s', maker: 'Sandbar & Daughters', uid },
    ]);
    expect(await rows(study, 'contenders')).toMatchObject([{ label: 'Razorbill S stock' }]);
    expect(await rows(study, 'profile_settings')).toMatchObject([
      { key: 'layer_height_mm', value: '0.2' },
    ]);
    const about = await get<{ reference: string }>(`/studies/${study}`);
    expect(about.reference).toBe('razorbill-s-stock');
    expect((await add({ add: 'machine', picked: { uid } })).content.detail).toBe(
      'Razorbill S is in this study already.',
    );
  });

  it('makes a new machine of a name, and asks where the workshop has one', async () => {
    expect((await add({ add: 'machine', picked: { name: 'Dunlin 5' } })).status).toBe(201);
    expect((await named('machine', 'Dunlin 5')).all).toHaveLength(1);
    const twin = await add({ add: 'machine', picked: { name: 'turnstone MINI' } });
    expect([twin.status, (twin.content.current as CatalogueItem).name]).toEqual([
      409,
      'Turnstone mini',
    ]);
    const own = await add({
      add: 'machine',
      picked: { name: 'turnstone MINI', evenIfNamed: true },
    });
    expect(own.status).toBe(201);
  });

  it('takes our own profile beside the stock one, to be changed', async () => {
    expect((await add({ add: 'tuned', contender_id: 'razorbill-s-stock' })).status).toBe(201);
    const profiles = await rows<{ profile_id: string; kind: string; parent_id: string | null }>(
      study,
      'profiles',
    );
    const tuned = profiles.find((row) => row.kind === 'tuned');
    expect(tuned?.parent_id).not.toBeNull();
    const set = (key: string, value: string | null) =>
      call('PUT', `/studies/${study}/line-up/settings`, {
        profile_id: tuned?.profile_id,
        key,
        value,
      });
    expect((await set('Layer Height', '0.12')).content).toMatchObject({
      key: 'layer_height_mm',
      value: '0.12',
    });
    expect((await set('perimeters', '4')).content).toMatchObject({ key: 'walls' });
    expect((await set('walls', null)).status).toBe(200);
    const own = (
      await rows<{ profile_id: string; key: string; value: string }>(study, 'profile_settings')
    ).filter((row) => row.profile_id === tuned?.profile_id);
    expect(own.map(({ key, value }) => [key, value])).toEqual([['layer_height_mm', '0.12']]);
  });

  it('takes a part of the library with all that is looked at on it', async () => {
    const { uid } = await named('artefact', 'Stair block');
    expect((await add({ add: 'artefact', picked: { uid } })).status).toBe(201);
    expect(await rows(study, 'dimensions')).toHaveLength(17);
    expect(await rows(study, 'dimension_places')).toHaveLength(17);
    expect((await page(`/studies/${study}/artefacts/stair-block`)).status).toBe(200);
    const mesh = await fetch(`${url()}/api/v1/studies/${study}/artefacts/stair-block/mesh`);
    expect(mesh.status).toBe(200);
    // What is printed of it there is printed of the same thing.
    expect((await named('artefact', 'Stair block')).all).toHaveLength(1);
  });

  it('takes materials and instruments of the workshop', async () => {
    const { uid } = await named('material', 'Ropewalk PLA, slate · RW-0611');
    expect((await add({ add: 'material', picked: { uid } })).status).toBe(201);
    expect(await rows(study, 'materials')).toMatchObject([{ lot: 'RW-0611', price_per_kg: 20.5 }]);
    const caliper = await named('instrument', 'Caliper 1');
    expect((await add({ add: 'instrument', picked: { uid: caliper.uid } })).status).toBe(201);
    expect(await rows(study, 'instruments')).toMatchObject([{ certificate: '2025-08' }]);
    expect((await add({ add: 'material', picked: { uid: caliper.uid } })).status).toBe(422);
  });

  it('is shown with what is known, and hatched where nothing is', async () => {
    const { text, status } = await page(`/studies/${study}/line-up`);
    expect(status).toBe(200);
    expect(text).toContain('Razorbill S tuned, layer height, mm: 0.12');
    expect(text).toContain('Dunlin 5 stock, maker: not known');
  });
});

describe('a study again as another', () => {
  it('takes line-up, parts, plan and question, and a machine more, and nothing that was printed', async () => {
    const { uid } = await named('machine', 'Razorbill S');
    const { status, content } = await call('POST', '/studies', {
      title: 'Again',
      again: winter,
      with: uid,
    });
    expect(status).toBe(201);
    const study = String(content.study_id);
    const about = await get<{ intent: string; question: string; reference: string }>(
      `/studies/${study}`,
    );
    expect(about).toMatchObject({
      intent: 'machines',
      reference: 'B-stock',
      question: 'Is the Gannet as true as in spring, and which other materials can it print?',
    });
    const contenders = await rows<{ label: string }>(study, 'contenders');
    expect(contenders.map((row) => row.label)).toEqual(['Gannet X24 stock', 'Razorbill S stock']);
    expect(await rows(study, 'dimensions')).toHaveLength(17);
    expect([await rows(study, 'prints'), await rows(study, 'specimens')]).toEqual([[], []]);
    expect((await page(`/studies/${study}/line-up`)).status).toBe(200);
    // The copied rows are the same things.
    expect((await named('material', 'Ropewalk PLA, slate · RW-0611')).all).toHaveLength(1);
  });

  it('of a study that is not there is refused, and none is made', async () => {
    const before = (await studies()).length;
    const again = '0193b3c0-0000-7000-8000-000000000000';
    expect((await call('POST', '/studies', { title: 'No', again })).status).toBe(404);
    expect((await studies()).length).toBe(before);
  });
});

describe('standings', () => {
  it('hold everyone who printed the part, over all studies, and say what differs', async () => {
    const { uid } = await named('artefact', 'Stair block');
    const { text } = await page(`/artefacts/${uid}`);
    expect(text).toContain('3 rows from 2 studies, 12 prints');
    expect(text).toContain('lot of the material RW-0611');
    expect(text).toContain('layer height 0.16');
  });

  it('are refused for what is no thing', async () => {
    expect((await page('/artefacts/nothing')).status).toBe(404);
    expect((await page('/machines/0193b3c0-0000-7000-8000-000000000000')).status).toBe(404);
    const { uid } = await named('machine', 'Razorbill S');
    expect((await page(`/materials/${uid}`)).status).toBe(404);
  });
});

describe('what is known of a thing', () => {
  it('is of the study begun last, whichever comes in last', async () => {
    const uid = '0193b3c0-1111-7000-8000-00000000aaaa';
    const given = (name: string, created: string, firmware: string) =>
      packed(name, (file, text) => {
        if (file === 'machines.csv') return withLastUid(text.replace(/1\.9\.2/, firmware), uid);
        return file === 'datapackage.json'
          ? text.replace('2026-03-12T16:10:00+01:00', created)
          : withoutUid(file, text);
      });
    await imported(given('late', '2026-09-01T10:00:00Z', '3.0.0'));
    await imported(given('early', '2026-05-01T10:00:00Z', '2.5.0'));
    const thing = await get<CatalogueItem>(`/things/${uid}`);
    expect(thing.facts.firmware).toBe('3.0.0');
    await imported(given('latest', '2026-10-01T10:00:00Z', '3.1.0'));
    expect((await get<CatalogueItem>(`/things/${uid}`)).facts.firmware).toBe('3.1.0');
    // The studies have what they had.
    expect(
      (await rows<{ firmware: string }>(await studyOf('early'), 'machines'))[0]?.firmware,
    ).toBe('2.5.0');
    expect((await page(`/machines/${uid}`)).text).toContain('firmware was 2.5.0, is 3.1.0');
  });

  it('is filled in from what was merged into it, and not overruled by it', async () => {
    const make = async (facts: object) =>
      String(
        (await call('POST', '/things', { kind: 'machine', facts, evenIfNamed: true })).content.uid,
      );
    const kept = await make({ name: 'Snipe', maker: 'Own', firmware: null });
    const merged = await make({ name: 'Snipe', maker: 'Other', firmware: '1.0', nozzle_mm: 0.6 });
    await call('POST', `/things/${kept}`, { action: 'merge', other: merged });
    expect((await get<CatalogueItem>(`/things/${merged}`)).facts).toMatchObject({
      maker: 'Own',
      firmware: '1.0',
      nozzle_mm: 0.6,
    });
    await call('POST', `/things/${merged}`, { action: 'split' });
    expect((await get<CatalogueItem>(`/things/${kept}`)).facts).toMatchObject({
      maker: 'Own',
      firmware: null,
    });
  });

  it('is one name by one, though two give it at once', async () => {
    const make = () => call('POST', '/things', { kind: 'instrument', facts: { name: 'Dial 9' } });
    const answers = await Promise.all(Array.from({ length: 6 }, make));
    expect(answers.map((one) => one.status).sort()).toEqual([201, 409, 409, 409, 409, 409]);
  });
});

describe('two rows of one study', () => {
  it('are never one thing: not by a lasting id that is sent, nor by one that was merged', async () => {
    const [machine] = await rows<{ machine_id: string; uid: string }>(winter, 'machines');
    const add = (uid: string) =>
      call('POST', `/studies/${winter}/rows/machines`, {
        machine_id: 'second',
        name: 'Second',
        uid,
      });
    const sent = await add(machine?.uid ?? '');
    expect([sent.status, sent.content.detail]).toEqual([
      409,
      expect.stringContaining('gannet and second are one thing of this workshop'),
    ]);
    const made = await call('POST', '/things', {
      kind: 'machine',
      facts: { name: 'Gannet the second' },
    });
    const other = String(made.content.uid);
    await call('POST', `/things/${machine?.uid}`, { action: 'merge', other });
    expect((await add(other)).status).toBe(409);
    await call('POST', `/things/${other}`, { action: 'split' });
    expect((await add(other)).status).toBe(201);
    expect(await rows(winter, 'machines')).toHaveLength(2);
  });
});

describe('a feature of a machine', () => {
  it('is as the study says that was begun last, whichever was written last', async () => {
    const say = (study: string, state: string) =>
      call('POST', `/studies/${study}/rows/features`, {
        machine_id: 'gannet',
        feature: 'spare belt',
        state,
        price: null,
        note: null,
      });
    expect((await say(winter, 'has')).status).toBe(201);
    expect((await say(update, 'lacks')).status).toBe(201);
    const known = (await featuresOfMachines(db())).filter((one) => one.feature === 'spare belt');
    expect(known.map(({ name, state }) => [name, state])).toEqual([['Gannet X24', 'has']]);
  });
});

describe('a step of the set-up', () => {
  it('has a number of its own, though two write down the next one at once; sent again it is one', async () => {
    const step = (what: string) => ({
      machine_id: 'gannet',
      step: 1,
      kind: 'other',
      what,
      minutes: null,
      hands_s: null,
      snag: null,
      help: null,
      at: `2026-10-01T10:00:0${what}+02:00`,
      note: null,
    });
    const send = (what: string) => call('POST', `/studies/${winter}/rows/setup_steps`, step(what));
    const answers = await Promise.all(['1', '2', '3', '4'].map(send));
    expect(answers.map((one) => one.status)).toEqual([201, 201, 201, 201]);
    expect(answers.map((one) => one.content.step).sort()).toEqual([1, 2, 3, 4]);
    for (const what of ['1', '2', '3', '4']) await send(what);
    expect(await rows(winter, 'setup_steps')).toHaveLength(4);
  });
});

describe('a row of a table whose rows may repeat', () => {
  it('is taken out by all that it says, one at a time; others by their key', async () => {
    const heat = {
      machine_id: 'gannet',
      what: 'bed',
      from_c: 21,
      to_c: 60,
      seconds: 108,
      ambient_c: null,
      at: null,
    };
    const path = `/studies/${winter}/rows/heat_ups`;
    for (let at = 0; at < 2; at += 1) await call('POST', path, heat);
    expect((await call('DELETE', path, heat)).status).toBe(204);
    expect(await rows(winter, 'heat_ups')).toHaveLength(1);
    expect((await call('DELETE', path, { ...heat, seconds: 109 })).status).toBe(404);
    expect((await call('DELETE', `/studies/${winter}/rows/machines`, heat)).status).toBe(422);
  });
});

describe('kept standings', () => {
  it('are made anew after a reading, and are the same for who asks twice', async () => {
    const { uid } = await named('artefact', 'Stair block');
    const before = await page(`/artefacts/${uid}`);
    expect((await page(`/artefacts/${uid}`)).text.match(/Razorbill S: [^"]*/)?.[0]).toBe(
      before.text.match(/Razorbill S: [^"]*/)?.[0],
    );
    const spokes = await studyOf('spoke-keys');
    const reading = {
      reading_id: '0193b3c0-2222-7000-8000-00000000aaaa',
      specimen_id: 'S1-01',
      dimension_id: 'x1',
      trial: 9,
      value_mm: 22.5,
      instrument_id: 'caliper-2',
      operator: 'TS',
      at: '2026-10-01T10:00:00Z',
    };
    const sent = await call('POST', `/studies/${spokes}/readings`, reading);
    expect(sent.content).toMatchObject({ trial: 9 });
    expect((await page(`/artefacts/${uid}`)).text.match(/Razorbill S: [^"]*/)?.[0]).not.toBe(
      before.text.match(/Razorbill S: [^"]*/)?.[0],
    );
  });
});

describe('rows from before there was a workshop', () => {
  it('get their things at the next start', async () => {
    await query('update machines set thing = null');
    await tieRows(db(), null, { knownAt: new Date(), isKept: false });
    const [left] = (await query('select count(*)::int as n from machines where thing is null')) as {
      n: number;
    }[];
    expect(left?.n).toBe(0);
    expect((await page('/machines')).status).toBe(200);
  });
});
