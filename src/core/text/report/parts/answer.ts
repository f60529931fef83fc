import { groupBy, inWords } from '../../../model/study';
import { caveatsOf } from '../caveats';
import type { ReportContext } from '../context';
import type { Block, Cell, Text } from '../model';

/** The words: the answer, for whom it is, what speaks for and against, what holds it back. */
export function answerPart(context: ReportContext): Block[] {
  const { settings, study } = context;
  const answer = context.sentences('answer');
  const blocks: Block[] = answer.length > 0 ? [{ kind: 'answer', sentences: answer }] : [];
  const said = [
    ['for-whom', 'For whom', 'plain'],
    ['plus', 'What speaks for it', 'for'],
    ['minus', 'What speaks against it', 'against'],
    ['advice', 'What to fit and to set', 'plain'],
  ] as const;
  for (const [kind, title, tone] of said) {
    const items = context.sentences(kind);
    if (items.length > 0) blocks.push({ kind: 'said', title, tone, items });
  }
  const own = context.sentences('caveat');
  if (own.length > 0) {
    blocks.push({ kind: 'said', title: 'What holds this back', tone: 'holds', items: own });
  }
  const sentences = caveatsOf(context).map(({ name, text }) => ({ name, text }));
  if (sentences.length > 0) {
    const title = own.length > 0 ? 'Collected from the data' : 'What holds this back';
    blocks.push({ kind: 'made', title, sentences });
  }
  const obtained = howObtained(study.tables.machines);
  const disclosure: Text[] = [
    ...(obtained === '' ? [] : [[obtained]]),
    ...(settings.disclosure ? [[settings.disclosure]] : []),
  ];
  if (disclosure.length > 0) blocks.push({ kind: 'list', title: 'Disclosure', items: disclosure });
  return blocks;
}

const OBTAINED: Readonly<Record<string, string>> = {
  bought: 'bought',
  loaned: 'on loan from its maker or a shop',
  given: 'given by its maker or a shop',
  owned: 'owned before',
};

function howObtained(machines: readonly { name: string; obtained: string | null }[]): string {
  const groups = groupBy(machines, (row) => row.obtained);
  return [...groups]
    .map(([how, own]) => {
      const names = own.map((row) => row.name).join(', ');
      return `${names}: ${how === null ? 'how it was obtained is not stated' : (OBTAINED[how] ?? how)}.`;
    })
    .join(' ');
}

/** Everything at a glance; figures on photos stand with the surface. */
export function glancePart(context: ReportContext): Block[] {
  const charts = [...context.charts.values()].filter(
    ({ criterion }) => !criterion.startsWith('photo:'),
  );
  return charts.length === 0 ? [] : [{ kind: 'glance', charts: charts.map(({ id }) => id) }];
}

/** Who competes: what is known of each machine and profile. */
export function lineUpPart(context: ReportContext): Block[] {
  const { index, marks, study, names } = context;
  const rowsOf = (label: string, find: (contender: string) => string | null) => {
    const cells = marks.map(({ contender_id }): Cell => {
      const text = find(contender_id);
      return text === null ? { unknown: 'not known' } : { text: [text] };
    });
    return cells.every((cell) => 'unknown' in cell) ? [] : [{ head: [label], cells }];
  };
  const machine = (contender: string) => index.machines.get(context.machineOf(contender));
  const profile = (contender: string) =>
    index.profiles.get(index.contenders.get(contender)?.profile_id ?? '');
  const number = (value: number | null | undefined, unit: string) =>
    value == null ? null : `${Number(value.toPrecision(6))} ${unit}`.trim();
  const priceOf = (contender: string, which: 'price_paid' | 'price_list') => {
    const own = machine(contender);
    return number(own?.[which], own?.currency ?? names.currency);
  };
  const firmware = (contender: string): string | null => {
    const used = (index.printsOfContender.get(contender) ?? []).flatMap(
      (print) => print.firmware ?? [],
    );
    const list = [...new Set(used)].sort();
    return list.length > 0 ? list.join(', ') : (machine(contender)?.firmware ?? null);
  };
  const box = (contender: string): string | null => {
    const own = machine(contender);
    if (!own || own.build_x_mm === null || own.build_z_mm === null) return null;
    return own.kinematics === 'delta'
      ? `⌀ ${own.build_x_mm} × ${own.build_z_mm} mm`
      : `${own.build_x_mm} × ${own.build_y_mm ?? '?'} × ${own.build_z_mm} mm`;
  };
  const kinematics = (contender: string) => {
    const own = machine(contender)?.kinematics;
    return own ? inWords(own) : null;
  };
  const rows = [
    ...rowsOf('maker', (id) => machine(id)?.maker ?? null),
    ...rowsOf('kind', kinematics),
    ...rowsOf('build volume', box),
    ...rowsOf('nozzle', (id) => number(machine(id)?.nozzle_mm, 'mm')),
    ...rowsOf('list price', (id) => priceOf(id, 'price_list')),
    ...rowsOf('price paid', (id) => priceOf(id, 'price_paid')),
    ...rowsOf('obtained', (id) => machine(id)?.obtained ?? null),
    ...rowsOf('firmware of its prints', firmware),
    ...rowsOf('profile', (id) => profile(id)?.name ?? null),
    ...rowsOf('sliced with', (id) =>
      profile(id)?.slicer
        ? [profile(id)?.slicer, profile(id)?.slicer_version].filter(Boolean).join(' ')
        : null,
    ),
    ...rowsOf('changed', (id) => index.contenders.get(id)?.change ?? null),
    ...rowsOf('claimed speed', (id) => number(machine(id)?.claimed_speed_mm_s, 'mm/s')),
  ];
  return [
    {
      kind: 'table',
      caption: `${study.tables.contenders.length} contenders`,
      heads: marks.map(({ contender_id }): Text => [{ contender: contender_id }]),
      rows,
    },
  ];
}
