// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { PairRow } from '../../core/statistics/compare';
import {
  fillScorecard,
  type Card,
  type CriterionEvidence,
  type EvidenceOfCriteria,
} from '../../core/answers/scorecard';
import type { ContenderMark } from '../../core/model/study';
import { figureWords } from '../../core/answers/figure-names';
import { Doubts } from './Doubts';
import { Gates } from './Gates';
import { TurningPrices } from './TurningPrices';
import { VernierSlider } from './VernierSlider';

afterEach(cleanup);

const NAMES = { artefacts: {}, ladders: {}, panels: {}, currency: 'EUR' };
const wordsOf = (key: string) => figureWords(key, NAMES);
const known = (value: number, spread = 0): CriterionEvidence => ({
  value,
  z: spread > 0 ? 1.96 : 0,
  bound: null,
  low: spread > 0 ? value - spread : null,
  high: spread > 0 ? value + spread : null,
});
const mark = (contender_id: string, machineName: string): ContenderMark => ({
  contender_id,
  machineName,
  letter: contender_id,
  hue: 0,
  isTuned: false,
  variant: 'stock',
  profileName: 'stock',
  label: `${machineName} stock`,
});
const MARKS = [mark('A', 'Auklet'), mark('B', 'Gannet'), mark('C', 'Petrel')];

const CARD: Card = {
  name: 'our bench',
  criteria: [
    {
      key: 'accuracy_mm',
      weight: 50,
      points: [
        [0, 1],
        [0.1, 0],
      ],
    },
    {
      key: 'price',
      weight: 50,
      points: [
        [0, 1],
        [1000, 0],
      ],
    },
  ],
  gates: [],
  draws: 4000,
  concentration: 50,
};
/** A is cheap and coarse, B dear and true, both about the same worth; of C the accuracy is not known. */
const EVIDENCE: EvidenceOfCriteria = {
  accuracy_mm: { A: known(0.06, 0.03), B: known(0.025, 0.01) },
  price: { A: known(300), B: known(640), C: known(990) },
};
const filled = (card: Card = CARD) => fillScorecard(card, EVIDENCE, ['A', 'B', 'C'], 1);
const open = (contender: string, prints_needed: number | null) =>
  ({ contender, prints_needed, verdict: 'unsettled' }) as PairRow;

describe('what the answer hangs on', () => {
  const hints = (differences: Record<string, PairRow[]>) => {
    render(<Doubts filled={filled()} wordsOf={wordsOf} differences={differences} />);
    const rows = screen.getAllByRole('row').filter((row) => within(row).queryByRole('rowheader'));
    return Object.fromEntries(
      rows.map((row) => [
        within(row).getByRole('rowheader').textContent,
        [...row.querySelectorAll('td')].at(-1)?.textContent,
      ]),
    );
  };

  it('says what would settle it: prints, where they are known', () => {
    expect(hints({ accuracy_mm: [open('B', 12), open('A', 5)] })).toMatchObject({
      'mean deviation': '12 prints each to be sure either way',
      'the weights': 'This is your opinion, not a measurement',
      price: '',
    });
  });

  it('says that it is not known for every contender, where no number of prints is known', () => {
    expect(hints({})).toMatchObject({ 'mean deviation': 'it is not known for every contender' });
  });

  it('asks nothing of who is out', () => {
    const card: Card = { ...CARD, gates: [{ key: 'price', op: '<=', value: 900 }] };
    render(
      <Doubts
        filled={filled(card)}
        wordsOf={wordsOf}
        differences={{ accuracy_mm: [open('C', 40)] }}
      />,
    );
    expect(screen.queryByText(/prints each/)).toBeNull();
  });

  it('is nothing where nobody is in', () => {
    const card: Card = { ...CARD, gates: [{ key: 'price', op: '<=', value: 1 }] };
    const { container } = render(
      <Doubts filled={filled(card)} wordsOf={wordsOf} differences={{}} />,
    );
    expect(container.textContent).toBe('');
  });
});

describe('conditions', () => {
  const CHOICES = ['success', 'price', 'accuracy_mm'].map((key) => ({ key, words: wordsOf(key) }));

  it('are said in words with their units, and taken back', () => {
    const onChange = vi.fn();
    const gates = [
      { key: 'success', op: '>=', value: 0.9 } as const,
      { key: 'price', op: '<=', value: 700 } as const,
    ];
    render(<Gates gates={gates} known={CHOICES} onChange={onChange} />);
    expect(screen.getByText('price at most 700 EUR')).toBeTruthy();
    fireEvent.click(
      screen.getByRole('button', { name: /^No longer: success rate.* at least 90 %$/ }),
    );
    expect(onChange).toHaveBeenCalledWith([gates[1]]);
  });

  it('are added in the unit that is shown: per cent as a share, with a comma too', () => {
    const onChange = vi.fn();
    render(<Gates gates={[]} known={CHOICES} onChange={onChange} />);
    fireEvent.click(screen.getByRole('button', { name: '+ condition' }));
    const value = screen.getByLabelText('%');
    fireEvent.change(value, { target: { value: 'many' } });
    expect(screen.getByRole('alert').textContent).toBe('“many” is not a number');
    fireEvent.change(value, { target: { value: '92,5' } });
    fireEvent.submit(value);
    expect(onChange).toHaveBeenCalledWith([{ key: 'success', op: '>=', value: 0.925 }]);
  });

  it('of a figure that is better small begin with “at most”', () => {
    render(<Gates gates={[]} known={CHOICES} onChange={vi.fn()} />);
    fireEvent.click(screen.getByRole('button', { name: '+ condition' }));
    fireEvent.change(screen.getByLabelText('figure'), { target: { value: 'price' } });
    expect(screen.getByLabelText<HTMLSelectElement>('is').value).toBe('<=');
  });
});

describe('turning prices', () => {
  it('stand beside what each costs, and say why there is none', () => {
    // A and B are alike at 0.5·(0.4) + 0.5·0.7 = 0.55 and 0.5·0.75 + 0.5·0.36 = 0.555:
    // B, which is first, turns where its price is worth 0.35, at 650; A where it is worth 0.71, at 290.
    render(<TurningPrices filled={filled()} marks={MARKS} evidence={EVIDENCE} currency="EUR" />);
    const cells = (name: string) => {
      const row = screen.getByText(name, { exact: false, selector: 'th *' }).closest('tr');
      return [...(row?.querySelectorAll('td') ?? [])].slice(1).map((cell) => cell.textContent);
    };
    expect(cells('Gannet')).toEqual(['640', '650']);
    expect(cells('Auklet')).toEqual(['300', '290']);
    expect(cells('Petrel')[1]).not.toMatch(/^\d/);
  });

  it('are of no interest where no price is weighed', () => {
    const card: Card = { ...CARD, criteria: CARD.criteria.slice(0, 1) };
    const { container } = render(
      <TurningPrices filled={filled(card)} marks={MARKS} evidence={EVIDENCE} currency="EUR" />,
    );
    expect(container.textContent).toBe('');
  });
});

describe('a weight', () => {
  it('is set on a slider that has a name', () => {
    const onChange = vi.fn();
    render(<VernierSlider label="weight of price" value={20} max={100} onChange={onChange} />);
    const slider = screen.getByRole('slider', { name: 'weight of price' });
    fireEvent.change(slider, { target: { value: '35' } });
    expect(onChange).toHaveBeenCalledWith(35);
  });
});
