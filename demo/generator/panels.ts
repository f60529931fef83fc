import { questionsOf, type PanelPlan, type PanelQuestion } from '../../src/core/measures/panels';
import type { Row, Tables } from '../../src/core/model/study';
import { drawsFrom, round, type Draws } from './random';

type Bench = Pick<Tables, 'prints' | 'specimens'>;
type PanelTables = Pick<
  Tables,
  'panels' | 'panel_setups' | 'panel_notes' | 'ballots' | 'ballot_times'
>;

/** How clean a front looks to people who do not know whose it is, on the scale that ballots are on. */
const LOOKS: Record<string, number> = {
  'A-stock': 0,
  'A-tuned': 0.7,
  'B-stock': 1.5,
  'B-tuned': 1.4,
  'C-stock': 0.4,
  'D-stock': -0.9,
};

/** How often people who see little difference say that they see none. */
const SEES_NONE = 0.35;

/** A panel as it was held one evening: its rows, its plan, and how its judges answer. */
interface Evening {
  panel: Row<'panels'>;
  setup: Partial<Row<'panel_setups'>> &
    Pick<Row<'panel_setups'>, 'shown_as' | 'judges' | 'questions' | 'asked_again' | 'effect'>;
  contenders: readonly string[];
  /** When its first judge began. */
  from: string;
  seed: number;
  answer: (owners: readonly string[], draws: Draws) => number | null;
}

const MINUTE = 60_000;

const logistic = (x: number) => 1 / (1 + Math.exp(-x));

const EVENINGS: readonly Evening[] = [
  {
    panel: {
      panel_id: 'smooth-front',
      kind: 'paired',
      aspect: 'On which one is the wall smoother?',
      artefact_id: 'echo-wall',
      target: null,
    },
    setup: {
      shown_as: 'photos',
      view: 'front',
      light: 'raking-left',
      x_mm: -60,
      y_mm: 3,
      w_mm: 120,
      h_mm: 57,
      levels: 'as-taken',
      judges: 24,
      questions: 8,
      asked_again: 1,
      effect: 0.65,
    },
    contenders: ['A-stock', 'A-tuned', 'B-stock', 'B-tuned', 'C-stock', 'D-stock'],
    from: '2026-03-24T18:00:00+01:00',
    seed: 31,
    answer: ([left = '', right = ''], draws) => {
      const ahead = (LOOKS[left] ?? 0) - (LOOKS[right] ?? 0);
      if (Math.abs(ahead) < 0.5 && draws.chance(SEES_NONE)) return null;
      return draws.chance(logistic(ahead)) ? 0 : 1;
    },
  },
  {
    panel: {
      panel_id: 'odd-block',
      kind: 'triangle',
      aspect: 'Which block is not like the other two?',
      artefact_id: 'stair-block',
      target: null,
    },
    setup: { shown_as: 'parts', judges: 48, questions: 1, asked_again: null, effect: 0.3 },
    contenders: ['B-stock', 'B-tuned'],
    from: '2026-03-25T17:30:00+01:00',
    seed: 77,
    // Nobody can tell: they guess.
    answer: (owners, draws) =>
      Math.min(owners.length - 1, Math.floor(draws.between(0, owners.length))),
  },
  {
    panel: {
      panel_id: 'whose-spires',
      kind: 'guess',
      aspect: 'Which pair was printed on the large machine?',
      artefact_id: 'spire-pair',
      target: 'D-stock',
    },
    setup: {
      shown_as: 'photos',
      view: 'front',
      light: 'flat',
      x_mm: -22,
      y_mm: 4,
      w_mm: 44,
      h_mm: 36,
      levels: 'matched',
      judges: 30,
      questions: 2,
      asked_again: null,
      effect: 0.3,
    },
    contenders: ['A-tuned', 'D-stock'],
    from: '2026-03-26T18:00:00+01:00',
    seed: 5,
    // Its strings give it away to two of three people.
    answer: (owners, draws) =>
      draws.chance(0.82) ? owners.indexOf('D-stock') : 1 - owners.indexOf('D-stock'),
  },
];

/** Three evenings at the co-operative on which people judged parts without knowing whose they were. */
export function panelEvenings({ prints, specimens }: Bench): PanelTables {
  const tables: PanelTables = {
    panels: [],
    panel_setups: [],
    panel_notes: [],
    ballots: [],
    ballot_times: [],
  };
  for (const evening of EVENINGS) {
    const { panel, setup, contenders, seed } = evening;
    const own = contenders.map((contender_id) => ({
      contender_id,
      specimens: specimensOf({ prints, specimens }, panel.artefact_id ?? '', contender_id),
    }));
    const ownerOf = new Map(
      own.flatMap((one) => one.specimens.map((id) => [id, one.contender_id])),
    );
    const plan: PanelPlan = {
      kind: panel.kind,
      contenders: own,
      target: panel.target,
      seed,
      questions: setup.questions,
      repeats: setup.asked_again ?? 0,
    };
    const draws = drawsFrom(seed);
    const began = Date.parse(evening.from);
    let last = began;
    for (const [number, questions] of questionsOf(plan, setup.judges).entries()) {
      let at = began + number * 2.5 * MINUTE;
      const judge = `J${String(number + 1).padStart(2, '0')}`;
      for (const [place, question] of questions.entries()) {
        const seconds = round(3 + Math.exp(1.6 + draws.noise(0.5)), 1);
        at += seconds * 1000;
        const keys = keysOf(panel.panel_id, judge, question);
        const choice = choiceOf(evening, questions, place, ownerOf, draws);
        tables.ballots.push({ ...keys, choice, at: local(at) });
        tables.ballot_times.push({ ...keys, seconds });
        // The same question is answered as before nine times in ten.
        question.codes = choice === 'tie' ? [] : [question.items[Number(choice) - 1] ?? ''];
        last = Math.max(last, at);
      }
    }
    tables.panels.push(panel);
    tables.panel_setups.push({
      view: null,
      light: null,
      x_mm: null,
      y_mm: null,
      w_mm: null,
      h_mm: null,
      levels: null,
      panel_id: panel.panel_id,
      names: 'numbers',
      closes_at: null,
      ...setup,
      opened_at: local(began - 4 * MINUTE),
      closed_at: local(last),
      closed_by: 'number',
      revealed_at: local(last + 12 * MINUTE),
    });
  }
  tables.panel_notes.push({
    panel_id: 'whose-spires',
    at: local(Date.parse(EVENINGS[2]?.from ?? '') + 6 * MINUTE),
    what: 'looked',
    operator: 'TS',
    note: 'to see whether the first three phones had sent anything',
  });
  return tables;
}

function choiceOf(
  { answer }: Evening,
  questions: readonly PanelQuestion[],
  place: number,
  ownerOf: ReadonlyMap<string, string>,
  draws: Draws,
): Row<'ballots'>['choice'] {
  const { items, repeats } = questions[place] as PanelQuestion;
  const before = repeats === null ? null : questions[repeats]?.codes;
  if (before && draws.chance(0.9)) {
    const [chosen] = before;
    return chosen === undefined ? 'tie' : (String(items.indexOf(chosen) + 1) as '1');
  }
  const found = answer(
    items.map((item) => ownerOf.get(item) ?? ''),
    draws,
  );
  return found === null ? 'tie' : (String(found + 1) as '1');
}

const keysOf = (panel_id: string, judge: string, { items }: PanelQuestion) => ({
  panel_id,
  judge,
  item_1: items[0] ?? '',
  item_2: items[1] ?? '',
  item_3: items[2] ?? null,
});

/** The specimens of an artefact that a contender printed in one piece. */
function specimensOf({ prints, specimens }: Bench, artefact: string, contender: string): string[] {
  const own = new Set(
    prints
      .filter((one) => one.artefact_id === artefact && one.contender_id === contender)
      .filter((one) => one.outcome === 'success' || one.outcome === 'rescued')
      .filter((one) => one.material_id.includes('pla') || artefact !== 'spire-pair')
      .map((one) => one.print_id),
  );
  return specimens.filter((one) => own.has(one.print_id)).map((one) => one.specimen_id);
}

/** A moment as the co-operative's clock writes it. */
const local = (ms: number): string =>
  new Date(Math.round(ms / 1000) * 1000 + 60 * MINUTE).toISOString().replace('.000Z', '+01:00');
