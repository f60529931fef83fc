// @vitest-environment happy-dom
import { fireEvent } from '@testing-library/dom';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Card, EvidenceOfCriteria } from '../core/answers/scorecard';

const known = (value: number) => ({ value, low: null, high: null, z: 0, bound: null });
const CARD: Card = {
  name: 'our bench',
  criteria: [
    {
      key: 'accuracy_mm',
      weight: 60,
      points: [
        [0, 1],
        [0.1, 0],
      ],
    },
    {
      key: 'price',
      weight: 40,
      points: [
        [0, 1],
        [1000, 0],
      ],
    },
  ],
  gates: [{ key: 'price', op: '<=', value: 900 }],
  draws: 20_000,
  concentration: 50,
};
/** B is true and dear, A coarse and cheap; C costs too much to be in. */
const EVIDENCE: EvidenceOfCriteria = {
  accuracy_mm: { A: known(0.08), B: known(0.01), C: known(0.01) },
  price: { A: known(100), B: known(600), C: known(950) },
};

/** The page as it is published, with its script run. */
async function open(hasCard = true): Promise<void> {
  const row = (id: string) =>
    `<tr data-contender="${id}"><th>${id}</th><td>as stated</td><td>as stated</td><td>as stated</td></tr>`;
  const weight = (key: string, label: string, value: number) =>
    `<tr data-criterion="${key}"><th>${label}</th><td class="number">${value} %</td></tr>`;
  const data = {
    card: CARD,
    evidence: EVIDENCE,
    contenders: ['A', 'B', 'C'],
    seed: 1,
    contenderMarks: ['A', 'B', 'C'].map((id) => ({
      contender_id: id,
      machineName: `Machine ${id}`,
      variant: 'stock',
    })),
  };
  document.body.innerHTML = `<nav><ol><li>Contents</li></ol></nav>
    <span class="contender"><span>A</span><span>Machine A</span></span>
    <table id="stated"><tbody>${row('B')}${row('A')}${row('C')}</tbody></table>
    <table id="weights"><caption>Its weights</caption><tbody>
      ${weight('accuracy_mm', 'mean deviation', 60)}${weight('price', 'price', 40)}</tbody></table>`;
  if (hasCard) {
    const script = document.createElement('script');
    script.type = 'application/json';
    script.id = 'card-data';
    script.textContent = JSON.stringify(data);
    document.body.append(script);
  }
  vi.resetModules();
  await import('./reader');
}
beforeEach(() => {
  document.body.className = '';
});

const slider = (label: string) => {
  const found = document.querySelector<HTMLInputElement>(`input[aria-label="weight of ${label}"]`);
  if (!found) throw new Error(`no slider of ${label}`);
  return found;
};
const move = (label: string, value: number) =>
  fireEvent.input(slider(label), { target: { value: String(value) } });
const order = () =>
  [...document.querySelectorAll<HTMLElement>('#stated tbody tr')].map(
    (row) => row.dataset.contender,
  );
const said = () => document.querySelector('.moved')?.textContent;
const button = (name: string) => {
  const found = [...document.querySelectorAll('button')].find((one) => one.textContent === name);
  if (!found) throw new Error(`no button ${name}`);
  return found;
};

describe('a reader', () => {
  it('finds the weights as they are stated', async () => {
    await open();
    expect([slider('mean deviation').value, slider('price').value]).toEqual(['60', '40']);
    expect(order()).toEqual(['B', 'A', 'C']);
    expect(button('As stated').disabled).toBe(true);
  });

  it('moves a weight, and sees who comes first: by hand, 0.2·20 + 0.9·80 against 0.9·20 + 0.4·80', async () => {
    await open();
    move('mean deviation', 20);
    move('price', 80);
    expect(order()).toEqual(['A', 'B', 'C']);
    expect(said()).toBe('By these weights: Machine A stock.');
    const [score, first] = document.querySelectorAll('tr[data-contender="A"] td');
    expect(score?.textContent).toBe('76.0');
    expect(first?.textContent).toMatch(/^\d+ %$/);
    // Who fails a condition stays out, and last, whatever is weighed.
    expect(document.querySelectorAll('tr[data-contender="C"] td')[1]?.textContent).toBe('out');
  });

  it('sees shares of what is left, and is told where nothing is', async () => {
    await open();
    move('mean deviation', 30);
    move('price', 10);
    const shown = [...document.querySelectorAll('#weights td.number')].map(
      (one) => one.textContent,
    );
    expect(shown).toEqual(['75 %', '25 %']);
    move('mean deviation', 0);
    move('price', 0);
    expect(said()).toBe('At least one weight must be over 0.');
  });

  it('goes back to what is stated', async () => {
    await open();
    move('mean deviation', 0);
    move('price', 100);
    expect(order()[0]).toBe('A');
    fireEvent.click(button('As stated'));
    expect(order()).toEqual(['B', 'A', 'C']);
    expect(document.querySelector('tr[data-contender="B"] td')?.textContent).toBe('as stated');
    expect([slider('mean deviation').value, said()]).toEqual(['60', '']);
  });

  it('reads without the names, and with them again', async () => {
    await open();
    const toggle = button('Read without names');
    fireEvent.click(toggle);
    expect(document.body.classList.contains('unnamed')).toBe(true);
    expect(toggle.getAttribute('aria-pressed')).toBe('true');
    fireEvent.click(toggle);
    expect(document.body.classList.contains('unnamed')).toBe(false);
  });

  it('finds a page without a card as it is', async () => {
    await open(false);
    expect(document.querySelectorAll('input')).toHaveLength(0);
    expect(button('Read without names')).toBeTruthy();
  });
});
