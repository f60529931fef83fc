import { describe, expect, it } from 'vitest';
import { changedDemo, demoFiles } from '../../../../tests/support/demo-files';
import { formatFault, warningLines, memorySource, readPackage, type Fault } from '.';

type Change = Parameters<typeof changedDemo>[0];

async function faultsOf(change: Change): Promise<Fault[]> {
  const result = await readPackage(memorySource(changedDemo(change)));
  expect(result.content).toBeNull();
  return result.faults;
}

const placeOf = ({ file, line, column }: Fault) => `${file}:${line}:${column}`;

/** Edits a line (header = 1) of a CSV text. */
const line = (number: number, edit: (cells: string[]) => string[]) => (text: string) => {
  const lines = text.split('\r\n');
  lines[number - 1] = edit((lines[number - 1] ?? '').split(',')).join(',');
  return lines.join('\r\n');
};

const cell = (number: number, at: number, value: string) =>
  line(number, (cells) => cells.map((each, index) => (index === at ? value : each)));

const json = (edit: (value: Record<string, Record<string, unknown>>) => void) => (text: string) => {
  const value = JSON.parse(text) as Record<string, Record<string, unknown>>;
  edit(value);
  return JSON.stringify(value);
};

describe('a fault that stands in many lines', () => {
  it('is told of each, also where thousands of other texts stand between', async () => {
    const more = (text: string) => {
      const lines = text.trimEnd().split('\r\n');
      const sample = (lines[1] ?? '').split(',');
      const at = (lines[0] ?? '').split(',').indexOf('value_mm');
      const trial = (lines[0] ?? '').split(',').indexOf('trial');
      const added = Array.from({ length: 5000 }, (_, n) =>
        sample
          .map((cell, place) =>
            place === trial
              ? String(n + 100)
              : place === at
                ? n % 2500 === 7
                  ? 'wide'
                  : `20.${n}1`
                : cell,
          )
          .join(','),
      );
      return [...lines, ...added, ''].join('\r\n');
    };
    const before = new TextDecoder().decode(demoFiles().get('readings.csv')).trimEnd();
    const lines = before.split('\r\n').length;
    const faults = await faultsOf({ 'readings.csv': more });
    expect(faults.map((fault) => fault.line)).toEqual([lines + 8, lines + 2508]);
  });
});

describe('a valid package', () => {
  it('is read without a fault or warning', async () => {
    const result = await readPackage(memorySource(demoFiles()));
    expect(result.faults).toEqual([]);
    expect(result.warnings).toEqual([]);
    expect(result.content?.study.tables.contenders).toHaveLength(6);
  });

  it('may have a byte order mark, LF, no line end at the end and quoted line breaks', async () => {
    const result = await readPackage(
      memorySource(
        changedDemo({
          'materials.csv': (text) => `\uFEFF${text.replaceAll('\r\n', '\n').trimEnd()}`,
          'artefacts.csv': (text) => text.replace('"Two slim cones', '"Two\r\nslim\ncones'),
        }),
      ),
    );
    expect(result.faults).toEqual([]);
    const spire = result.content?.study.tables.artefacts.find(
      (row) => row.artefact_id === 'spire-pair',
    );
    expect(spire?.notes).toContain('Two\r\nslim\ncones');
  });
});

describe('every planted fault is named with its place', () => {
  const cases: [string, Change, string[]][] = [
    [
      'a decimal comma',
      { 'dimensions.csv': cell(2, 5, '"20,1"') },
      ['dimensions.csv:2:nominal_mm'],
    ],
    [
      'a blank in a number',
      { 'dimensions.csv': cell(2, 5, ' 20') },
      ['dimensions.csv:2:nominal_mm'],
    ],
    [
      'a number that is no number',
      { 'dimensions.csv': cell(2, 5, 'inf') },
      ['dimensions.csv:2:nominal_mm'],
    ],
    [
      'a number too large',
      { 'dimensions.csv': cell(2, 5, '1e309') },
      ['dimensions.csv:2:nominal_mm'],
    ],
    ['a nominal of 0', { 'dimensions.csv': cell(2, 5, '0') }, ['dimensions.csv:2:nominal_mm']],
    ['an unknown word', { 'dimensions.csv': cell(3, 3, 'w') }, ['dimensions.csv:3:axis']],
    ['an empty required cell', { 'machines.csv': cell(2, 1, '') }, ['machines.csv:2:name']],
    [
      'a currency that is none',
      { 'machines.csv': cell(2, 13, 'EURO') },
      ['machines.csv:2:currency'],
    ],
    ['a fraction of a repeat', { 'prints.csv': cell(2, 4, '1.5') }, ['prints.csv:2:repeat']],
    [
      'a time without offset',
      { 'prints.csv': cell(2, 6, '2026-03-02T10:00:00') },
      ['prints.csv:2:started_at'],
    ],
    [
      'a day that is none',
      { 'prints.csv': cell(2, 6, '2026-02-30T10:00:00Z') },
      ['prints.csv:2:started_at'],
    ],
    [
      'an end before its start',
      { 'prints.csv': cell(2, 7, '2020-01-01T00:00:00Z') },
      ['prints.csv:2:ended_at'],
    ],
    ['more waste than filament', { 'prints.csv': cell(2, 13, '999') }, ['prints.csv:2:waste_g']],
    [
      'limits the wrong way round',
      { 'dimensions.csv': cell(2, 6, '3') },
      ['dimensions.csv:2:lower_tol_mm'],
    ],
    [
      'a path that leaves the folder',
      { 'artefacts.csv': cell(2, 3, '../x.stl') },
      ['artefacts.csv:2:mesh'],
    ],
    [
      'a path with a backslash',
      { 'artefacts.csv': cell(2, 3, 'a\\x.stl') },
      ['artefacts.csv:2:mesh'],
    ],
    ['a path from the root', { 'artefacts.csv': cell(2, 3, '/x.stl') }, ['artefacts.csv:2:mesh']],
    ['a path with a drive', { 'artefacts.csv': cell(2, 3, 'C:/x.stl') }, ['artefacts.csv:2:mesh']],
    ['a grade of 5', { 'findings.csv': cell(2, 4, '5') }, ['findings.csv:2:grade']],
    ['a print of nobody', { 'prints.csv': cell(2, 1, 'Z-stock') }, ['prints.csv:2:contender_id']],
    [
      'a reading of another artefact’s dimension',
      { 'readings.csv': cell(2, 1, 'tile-q') },
      ['readings.csv:2:dimension_id'],
    ],
    [
      'a step that its ladder lacks',
      { 'ladder_results.csv': cell(2, 2, '99') },
      ['ladder_results.csv:2:step'],
    ],
    [
      'a profile that is its own parent',
      { 'profiles.csv': (text) => text.replace('tuned,a-stock', 'tuned,a-tuned') },
      ['profiles.csv:3:parent_id'],
    ],
    [
      'an incident on another machine',
      { 'incidents.csv': cell(2, 1, 'fulmar') },
      ['incidents.csv:2:machine_id'],
    ],
    [
      'a row with a cell too few',
      { 'machines.csv': line(3, (cells) => cells.slice(0, -1)) },
      ['machines.csv:3:-'],
    ],
    [
      'an empty line',
      { 'claims.csv': (text) => text.replace('\r\n', '\r\n\r\n') },
      ['claims.csv:2:-'],
    ],
    ['a duplicate id', { 'claims.csv': cell(3, 0, 'first-layer-b') }, ['claims.csv:3:claim_id']],
    [
      'a lasting id that stands twice',
      { 'machines.csv': cell(3, 24, '019A00A1-e000-7caa-82cb-e308e74ae896') },
      ['machines.csv:3:uid'],
    ],
    [
      'a lasting id that is none',
      { 'machines.csv': cell(2, 24, 'gannet') },
      ['machines.csv:2:uid'],
    ],
    ['a column named twice', { 'claims.csv': cell(1, 7, 'unit') }, ['claims.csv:1:unit']],
    ['a required column missing', { 'noise.csv': cell(1, 3, 'level') }, ['noise.csv:1:db_a']],
    ['an unclosed quote', { 'noise.csv': cell(9, 0, '"fulmar') }, ['noise.csv:9:-']],
    ['an empty file', { 'noise.csv': () => '' }, ['noise.csv:1:-']],
    ['a listed file that is missing', { 'noise.csv': null }, ['noise.csv:1:-']],
    [
      'a required table without rows',
      { 'materials.csv': (text) => `${text.split('\r\n')[0]}\r\n` },
      ['materials.csv:1:-'],
    ],
    ['no descriptor', { 'datapackage.json': null }, ['datapackage.json:1:-']],
    ['a broken descriptor', { 'datapackage.json': () => '{' }, ['datapackage.json:1:-']],
    [
      'a reference that is no contender',
      {
        'datapackage.json': json((value) => {
          (value.vergleich ?? {}).reference = 'nobody';
        }),
      },
      ['datapackage.json:1:-'],
    ],
    [
      'an intent that is none',
      {
        'datapackage.json': json((value) => {
          (value.vergleich ?? {}).intent = 'fun';
        }),
      },
      ['datapackage.json:1:-'],
    ],
    ['a finding without inspection', { 'findings.csv': cell(2, 2, 'XX') }, ['findings.csv:2:-']],
  ];
  it.each(cases)('%s', async (_, change, places) => {
    expect((await faultsOf(change)).map(placeOf)).toEqual(places);
  });

  it('a required table that is missing, told once', async () => {
    const places = await faultsOf({
      'materials.csv': null,
      'datapackage.json': json((value) => {
        const resources = value.resources as unknown as { name: string }[];
        (value as Record<string, unknown>).resources = resources.filter(
          (r) => r.name !== 'materials',
        );
      }),
    });
    expect(places.map(placeOf)).toEqual(['materials.csv:1:-']);
  });

  it('bytes that are not UTF-8, each line once', async () => {
    const files = demoFiles();
    const bytes = Uint8Array.from(files.get('noise.csv') ?? []);
    const second = bytes.indexOf(0x0a) + 1;
    bytes[second] = 0xff;
    bytes[second + 2] = 0xfe;
    files.set('noise.csv', bytes);
    const { faults } = await readPackage(memorySource(files));
    expect(faults.map(placeOf)).toEqual(['noise.csv:2:-']);
  });

  it('ballots that do not fit their panel', async () => {
    const files = demoFiles();
    const add = (name: string, text: string) => files.set(name, new TextEncoder().encode(text));
    add(
      'panels.csv',
      'panel_id,kind,aspect,artefact_id,target\npair,paired,finish,,\ntri,triangle,finish,,\nwho,guess,finish,,\n',
    );
    const header = 'panel_id,judge,item_1,item_2,item_3,choice';
    // K7-001 is of C-stock; K7-002 and K7-003 of one contender, K7-014 of another.
    add(
      'ballots.csv',
      `${header}\npair,a,K7-002,K7-003,,1\npair,b,K7-001,K7-002,K7-003,1\n` +
        'tri,c,K7-002,K7-003,,1\ntri,d,K7-002,K7-003,K7-004,tie\n' +
        'pair,e,K7-001,K7-002,,3\n',
    );
    // The demo's own panels are not there any more, nor what was noted of them.
    for (const name of ['panel_setups.csv', 'panel_notes.csv', 'ballot_times.csv']) {
      add(name, `${new TextDecoder().decode(files.get(name)).split('\n')[0]}\n`);
    }
    const { faults } = await readPackage(memorySource(files));
    expect(faults.map(placeOf)).toEqual([
      'ballots.csv:2:-',
      'ballots.csv:3:item_3',
      'ballots.csv:4:item_3',
      'ballots.csv:5:choice',
      'ballots.csv:6:choice',
      'panels.csv:4:target',
    ]);
  });

  it('a faulty row still counts as there for references to it', async () => {
    const places = (await faultsOf({ 'machines.csv': cell(2, 4, 'wide') })).map(placeOf);
    expect(places).toEqual(['machines.csv:2:build_x_mm']);
  });

  it('all at once, in order, the first 200 and how many there are', async () => {
    const result = await readPackage(
      memorySource(
        changedDemo({
          'readings.csv': (text) => text.replaceAll(/,[\d.]+,caliper/g, ',x,caliper'),
        }),
      ),
    );
    expect(result.faults).toHaveLength(200);
    expect(result.faultCount).toBeGreaterThan(1000);
    expect(placeOf(result.faults[0] as Fault)).toBe('readings.csv:2:value_mm');
    expect(placeOf(result.faults[199] as Fault)).toBe('readings.csv:201:value_mm');
  });

  it('quotes the value and says what to do', async () => {
    const [fault] = await faultsOf({ 'dimensions.csv': cell(2, 5, '"20,1"') });
    expect(formatFault(fault as Fault)).toBe(
      'dimensions.csv:2:nominal_mm: "20,1" is not a number: write it with a decimal point, 20.1',
    );
  });
});

describe('what is not known is kept and warned of', () => {
  it('unknown columns, unknown files, paths whose file is not there', async () => {
    const files = changedDemo({
      'machines.csv': (text) => text.replaceAll('\r\n', ',blue\r\n').replace(',blue', ',colour'),
      'artefacts.csv': cell(2, 3, 'mesh/echo-wall.stl'),
    });
    files.set('notes.txt', new TextEncoder().encode('hello'));
    const result = await readPackage(memorySource(files));
    expect(result.faults).toEqual([]);
    expect(result.warnings.map(placeOf)).toEqual([
      'artefacts.csv:2:mesh',
      'machines.csv:1:colour',
      'meshes/echo-wall.3mf:1:-',
      'notes.txt:1:-',
    ]);
    expect(
      result.content?.extraFiles.filter((file) => !/^(sliced|meshes|photos)\//.test(file)),
    ).toEqual(['notes.txt']);
    expect(result.content?.study.tables.machines[0]?.extras).toEqual({ colour: 'blue' });
  });

  it('those of one kind are said once, with the first; each where that is asked for', async () => {
    const lost = (text: string) => text.replaceAll('.jpg', '-lost.jpg');
    const files = changedDemo({
      'photos.csv': lost,
      'machines.csv': (text) => text.replaceAll('\r\n', ',blue\r\n').replace(',blue', ',colour'),
    });
    files.set('one.txt', new TextEncoder().encode('1'));
    files.set('two.txt', new TextEncoder().encode('2'));
    const report = await readPackage(memorySource(files));
    const rows = [...files].find(([name]) => name === 'photos.csv')?.[1];
    const count = new TextDecoder().decode(rows).match(/-lost\.jpg/g)?.length ?? 0;
    const lines = warningLines(report, false);
    expect(count).toBeGreaterThan(1);
    expect(lines).toContain(
      'warning: machines.csv:1:colour: unknown column "colour": it is kept, and not used',
    );
    const first = new RegExp(
      `^warning: photos\\.csv: ${count} files are not in the package, the first \\S+-lost\\.jpg ` +
        '\\(line 2\\); --all names each$',
    );
    expect(lines.filter((line) => first.test(line))).toHaveLength(1);
    const unnamed =
      /^warning: \d+ files are named nowhere \(they are kept, and not used\), the first \S+; --all names each$/;
    expect(lines.filter((line) => unnamed.test(line))).toHaveLength(1);
    expect(warningLines(report, true)).toHaveLength(report.warnings.length);
    expect(report.warnings.length).toBeGreaterThan(lines.length);
  });
});
