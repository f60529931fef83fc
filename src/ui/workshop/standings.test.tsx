// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, describe, expect, it } from 'vitest';
import type { ShownStanding } from '../../contract/workshop';
import { ordinal, place } from './say';
import { Standings } from './Standings';

afterEach(cleanup);

const interval = (
  estimate: number | null,
  low: number | null = null,
  high: number | null = null,
) => ({ estimate, low, high });
const row = (machine: string, more: Partial<ShownStanding>): ShownStanding => ({
  study: 's',
  study_id: 's',
  study_title: 'Bench',
  contender: machine,
  machine,
  machine_uid: machine,
  profile: 'As shipped',
  isTuned: false,
  hue: 0,
  prints: 3,
  mae_mm: interval(0.1),
  bias_mm: interval(0),
  print_s: interval(3600),
  success: interval(1, 0.3, 1),
  surface: interval(null),
  limits: {},
  materials: ['PLA'],
  firmware: [],
  from: '2026-03-01T08:00:00Z',
  to: '2026-03-04T08:00:00Z',
  near_best: null,
  differs: [],
  own: {},
  dots: { mae_mm: [], print_s: [], surface: [] },
  ...more,
});
const ROWS = [
  row('Gannet', {
    mae_mm: interval(0.02, 0.01, 0.03),
    print_s: interval(1800),
    limits: { gap: 0.3, droop: 60 },
  }),
  row('Auklet', {
    mae_mm: interval(0.025, 0.018, 0.032),
    print_s: interval(4200),
    limits: { gap: 0.25, droop: 50 },
    to: '2026-10-04T08:00:00Z',
  }),
  row('Fulmar', {
    mae_mm: interval(0.09, 0.08, 0.1),
    print_s: interval(null),
    limits: { gap: null, droop: 70 },
    differs: ['material_lot', 'layer_height_mm'],
    own: { material_lot: ['L2'], layer_height_mm: [0.16] },
  }),
];
const LADDERS = {
  gap: { name: 'Clearance', unit: 'mm', isMore: false },
  droop: { name: 'Overhang', unit: '°', isMore: true },
};
const names = () =>
  screen.getAllByRole('rowheader').map((head) => within(head).getAllByRole('link')[0]?.textContent);
const tab = (name: string) => fireEvent.click(screen.getByRole('tab', { name }));

describe('standings', () => {
  it('put the truest first, and mark who cannot be told from it', () => {
    render(<Standings rows={ROWS} ladders={{}} />);
    expect(names()).toEqual(['Gannet', 'Auklet', 'Fulmar']);
    const places = screen
      .getAllByRole('row')
      .slice(1, 4)
      .map((one) => one.querySelector('td')?.textContent);
    // 0.02 lies between 0.018 and 0.032, and not between 0.08 and 0.1.
    expect(places).toEqual(['1–2', '1–2', '3']);
  });

  it('are ordered by what is asked for, who is not known last', () => {
    render(<Standings rows={[...ROWS].reverse()} ladders={LADDERS} />);
    tab('time');
    expect(names()).toEqual(['Gannet', 'Auklet', 'Fulmar']);
    expect(screen.getByText('30:00')).toBeTruthy();
    // A small clearance is hard, and so is a large overhang.
    tab('clearance');
    const selected = screen.getAllByRole('tab', { selected: true });
    expect(selected.map((one) => one.textContent)).toEqual(['clearance']);
    expect(names()).toEqual(['Auklet', 'Gannet', 'Fulmar']);
    tab('overhang');
    expect(names()).toEqual(['Fulmar', 'Gannet', 'Auklet']);
  });

  it('offer no figure that nobody has', () => {
    render(<Standings rows={ROWS} ladders={{}} />);
    expect(screen.getAllByRole('tab').map((one) => one.textContent)).toEqual([
      'deviation',
      'time',
      'successes',
    ]);
  });

  it('say from when to when, and what a row does not share with the first', () => {
    render(<Standings rows={ROWS} ladders={{}} />);
    expect(screen.getByText('2026-03 … 2026-10 · Bench')).toBeTruthy();
    expect(screen.getByText('lot of the material L2 · layer height 0.16')).toBeTruthy();
  });

  it('tell a machine’s profiles of one kind in one study apart by their names', () => {
    const twins = [
      row('Gannet', { isTuned: true, profile: 'Outer wall 120' }),
      row('Gannet', { contender: 'b', isTuned: true, profile: 'Outer wall 200' }),
    ];
    render(<Standings rows={[...twins, row('Auklet', { isTuned: true })]} ladders={{}} />);
    for (const text of ['Outer wall 120', 'Outer wall 200', 'ours, tuned']) {
      expect(screen.getByText(text)).toBeTruthy();
    }
  });
});

describe('a place', () => {
  it('is said in words', () => {
    expect([1, 2, 3, 4, 11, 12, 13, 21, 22, 103, 111].map(ordinal)).toEqual([
      '1st',
      '2nd',
      '3rd',
      '4th',
      '11th',
      '12th',
      '13th',
      '21st',
      '22nd',
      '103rd',
      '111th',
    ]);
    expect(place({ place: 2, of: 9 })).toBe('2nd of 9');
  });
});
