import { fillScorecard, whyNoTurningPrice, type Scorecard } from '../core/answers/scorecard';
import type { ReadersCard } from '../core/text/report';
import type { ContenderMark } from '../core/model/study';

/** So many draws keep up with the hand that moves a weight. */
const DRAWS_WHILE_MOVED = 3000;

/**
 * The script of a published report: a reader moves the weights of the scorecard and sees the order
 * change, and can read without the names. Without it the page says all that it has to say.
 */
function start(): void {
  offerNoNames();
  const source = document.getElementById('card-data')?.textContent;
  const weights = document.getElementById('weights');
  const stated = document.getElementById('stated');
  if (!source || !weights || !stated) return;
  const card = JSON.parse(source) as ReadersCard & { contenderMarks: readonly ContenderMark[] };
  const said = document.createElement('p');
  said.className = 'moved';
  said.setAttribute('role', 'status');
  const back = document.createElement('button');
  back.type = 'button';
  back.textContent = 'As stated';
  back.disabled = true;
  const caption = weights.querySelector('caption');
  if (caption) caption.textContent = 'Its weights: move them, and see who comes first for you';
  weights.after(said, back);
  const original = [...stated.querySelectorAll('tbody tr')].map((row) => row.cloneNode(true));
  const sliders = [...weights.querySelectorAll<HTMLElement>('tr[data-criterion]')].map((row) => {
    const slider = document.createElement('input');
    slider.type = 'range';
    slider.min = '0';
    slider.max = '100';
    slider.step = '1';
    slider.setAttribute('aria-label', `weight of ${row.querySelector('th')?.textContent ?? ''}`);
    row.querySelector('td')?.before(cellWith(slider));
    return { key: row.dataset.criterion ?? '', slider, shown: row.querySelector('td.number') };
  });
  const total = sum(card.card.criteria.map((one) => one.weight));
  const reset = () => {
    for (const { key, slider } of sliders) {
      const own = card.card.criteria.find((one) => one.key === key)?.weight ?? 0;
      slider.value = String(Math.round((100 * own) / (total || 1)));
    }
  };
  reset();
  const nameOf = (id: string) => {
    const mark = card.contenderMarks.find((one) => one.contender_id === id);
    return mark ? `${mark.machineName} ${mark.variant}` : id;
  };
  const weigh = () => {
    const values = sliders.map(({ slider }) => Number(slider.value));
    const all = sum(values);
    sliders.forEach(({ shown }, at) => {
      if (shown) shown.textContent = `${((100 * (values[at] ?? 0)) / (all || 1)).toFixed(0)} %`;
    });
    back.disabled = false;
    if (all === 0) {
      said.textContent = 'At least one weight must be over 0.';
      return;
    }
    const criteria = card.card.criteria.map((one) => {
      const at = sliders.findIndex(({ key }) => key === one.key);
      return { ...one, weight: values[at] ?? 0 };
    });
    const asked = { ...card.card, criteria, draws: DRAWS_WHILE_MOVED };
    show(stated, fillScorecard(asked, card.evidence, card.contenders, card.seed), said, nameOf);
  };
  for (const { slider } of sliders) slider.addEventListener('input', weigh);
  back.addEventListener('click', () => {
    reset();
    stated.querySelector('tbody')?.replaceChildren(...original.map((row) => row.cloneNode(true)));
    sliders.forEach(({ slider, shown }) => {
      if (shown) shown.textContent = `${slider.value} %`;
    });
    said.textContent = '';
    back.disabled = true;
  });
}

function cellWith(child: HTMLElement): HTMLTableCellElement {
  const cell = document.createElement('td');
  cell.append(child);
  return cell;
}

const sum = (values: readonly number[]): number => values.reduce((all, one) => all + one, 0);

/** Puts the rows into the order of the reader’s weights. */
function show(
  stated: HTMLElement,
  filled: Scorecard,
  said: HTMLElement,
  nameOf: (contender: string) => string,
): void {
  const body = stated.querySelector('tbody');
  if (!body) return;
  const rows = [...body.querySelectorAll<HTMLTableRowElement>('tr[data-contender]')];
  const of = (row: HTMLElement) => filled.contenders[row.dataset.contender ?? ''];
  rows.sort((a, b) => {
    const [own, other] = [of(a), of(b)];
    return (
      Number(other?.in ?? false) - Number(own?.in ?? false) ||
      (other?.score.low ?? 0) - (own?.score.low ?? 0)
    );
  });
  for (const row of rows) {
    const own = of(row);
    const [score, first, turning] = row.querySelectorAll('td');
    if (!own || !score || !first || !turning) continue;
    const [low, high] = [own.score.low.toFixed(1), own.score.high.toFixed(1)];
    score.textContent = low === high ? low : `${low} … ${high}`;
    first.textContent =
      own.first_place_share === null ? 'out' : `${(100 * own.first_place_share).toFixed(0)} %`;
    turning.textContent =
      own.turning_price === null ? whyNoTurningPrice(own) : own.turning_price.toFixed(0);
  }
  body.append(...rows);
  said.textContent =
    filled.winner === null
      ? 'With these weights no contender meets the conditions.'
      : `By these weights: ${nameOf(filled.winner)}.`;
}

/** A button that hides the names of the machines, so that figures and photos speak first. */
function offerNoNames(): void {
  const contents = document.querySelector('nav ol');
  if (!contents) return;
  const button = document.createElement('button');
  button.type = 'button';
  button.textContent = 'Read without names';
  button.setAttribute('aria-pressed', 'false');
  button.addEventListener('click', () => {
    const isUnnamed = document.body.classList.toggle('unnamed');
    button.setAttribute('aria-pressed', String(isUnnamed));
  });
  const item = document.createElement('li');
  item.append(button);
  contents.append(item);
}

start();
