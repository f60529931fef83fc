// @vitest-environment happy-dom
import { act, cleanup, fireEvent, render, screen, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { GlanceCell, GlanceRow } from '../../../core/answers/glance';
import type { ContenderMark } from '../../../core/model/study';
import { rowsOfTable } from '../../kit/table-text';
import { SCANNER_MS } from '../../lib/not-scanned';
import { pickedIn } from '../../report/picked';
import { GlanceTable } from './GlanceTable';

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

const row = (
  key: string,
  group: GlanceRow['words']['group'],
  label: string,
  values: (number | null)[],
): GlanceRow => ({
  key,
  words: { group, label, unit: 'mm', factor: 1, digits: 2, isLargerBetter: false },
  cells: values.map((value, at): GlanceCell => ({
    contender: MARKS[at]?.contender_id ?? '',
    value,
    low: null,
    high: null,
    text: value === null ? null : value.toFixed(2),
    prints_needed: null,
    prints_as_seen: null,
    fairness: null,
    verdict: at === 1 && value !== null ? 'better' : null,
  })),
  band: null,
  scale: [0, 1],
});
const ROWS = [
  row('accuracy_mm', 'Accuracy', 'mean deviation', [0.08, 0.02, 0.05]),
  row('worst_mm', 'Accuracy', 'largest deviation', [0.25, 0.11, 0.17]),
  row('price', 'Cost', 'price', [231, 689, null]),
];

beforeEach(() => {
  localStorage.clear();
});
afterEach(cleanup);

const opened = () =>
  render(<GlanceTable studyId="s" query="" marks={MARKS} rows={ROWS} reference="A" />);
/** Longer than a scanner waits between two keys, as a hand does. */
const pause = () => act(() => new Promise((resolve) => setTimeout(resolve, 2 * SCANNER_MS)));
const press = async (key: string, more: object = {}) => {
  fireEvent.keyDown(document.activeElement ?? document.body, { key, ...more });
  await pause();
};
const cellAt = (place: string) => document.querySelector<HTMLElement>(`[data-cell="${place}"]`);
const figures = () =>
  [...document.querySelectorAll('[data-cell$=" 0"]')].map(
    (cell) => (cell as HTMLElement).dataset.row,
  );

describe('the table of everything at a glance', () => {
  it('is taken away as it stands: heads, figures in full, nothing for what is not known', () => {
    opened();
    const table = document.querySelector('table');
    if (!table) throw new Error('no table');
    const rows = rowsOfTable(table);
    expect(rows[0]?.slice(0, 3)).toEqual(['group', 'figure', expect.stringContaining('Auklet')]);
    const deviation = rows.find((cells) => cells.some((cell) => cell.startsWith('mean deviation')));
    expect(deviation?.slice(-3)).toEqual(['0.08', '0.02', '0.05']);
    const price = rows.find((cells) => cells.some((cell) => cell.startsWith('price')));
    expect(price?.slice(-3)).toEqual(['231.00', '689.00', '']);
  });

  it('is walked by keys, and a row moves within its group and stays moved', async () => {
    const { unmount } = opened();
    await press('j');
    expect(document.activeElement).toBe(cellAt('0 0'));
    await press('ArrowDown', { altKey: true });
    expect(figures().slice(0, 3)).toEqual(['worst_mm', 'accuracy_mm', 'price']);
    // The last of a group stays in it.
    cellAt('1 0')?.focus();
    await press('ArrowDown', { altKey: true });
    expect(figures().slice(0, 3)).toEqual(['worst_mm', 'accuracy_mm', 'price']);
    unmount();
    opened();
    expect(figures().slice(0, 3)).toEqual(['worst_mm', 'accuracy_mm', 'price']);
  });

  it('sorts contenders by a row, those without a figure last, and goes back', async () => {
    opened();
    cellAt('2 0')?.focus();
    await press('s');
    const heads = () =>
      within(document.querySelector('thead') as HTMLElement)
        .getAllByRole('link')
        .map((link) => link.textContent);
    expect(heads().map((head) => head?.includes('Auklet'))).toEqual([true, false, false]);
    cellAt('0 0')?.focus();
    await press('s');
    expect(heads()[0]).toContain('Gannet');
    fireEvent.click(screen.getByRole('button', { name: 'In the order of the line-up' }));
    expect(heads()[0]).toContain('Auklet');
  });

  it('picks a figure for the report by a key', async () => {
    opened();
    cellAt('0 1')?.focus();
    await press('u');
    expect(pickedIn(localStorage.getItem('vergleich:picked:s') ?? '')).toEqual([
      { address: 'accuracy:B:mae_mm', title: 'Gannet stock: mean deviation' },
    ]);
    expect(screen.getByRole('status').textContent).toContain('is picked for the report');
  });

  it('keeps which figures are left out', () => {
    const { unmount } = opened();
    fireEvent.click(screen.getByRole('button', { name: 'Choose figures' }));
    fireEvent.click(screen.getByRole('checkbox', { name: 'price' }));
    expect(figures()).not.toContain('price');
    unmount();
    opened();
    expect(figures()).not.toContain('price');
  });

  it('does not take the keys of a scanner for commands', async () => {
    opened();
    cellAt('0 1')?.focus();
    for (const key of ['s', 'u', 'x']) {
      fireEvent.keyDown(document.activeElement ?? document.body, { key });
    }
    await pause();
    expect(localStorage.getItem('vergleich:picked:s')).toBeNull();
    expect(screen.queryByRole('button', { name: 'In the order of the line-up' })).toBeNull();
  });
});
