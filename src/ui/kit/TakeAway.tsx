import { nearest } from './event-target';
import { useEffect, useState } from 'react';
import { fileName, saveFile } from './save-file';
import { rowsOfTable, tabbed } from './table-text';

type Rows = readonly (readonly (string | number | null)[])[];

/** The figures of what is taken away: those that it names, else those of its table. */
function rowsOf(held: HTMLElement): string[][] {
  const named = held.dataset.figures;
  if (named !== undefined) {
    return (JSON.parse(named) as Rows).map((row) => row.map((cell) => String(cell ?? '')));
  }
  const table = held.querySelector('table');
  return table ? rowsOfTable(table) : [];
}

/** What it is called: by itself, by the heading over it, else by the page. */
function titleOf(held: HTMLElement): string {
  const heading = held.closest('section, figure, main')?.querySelector('h1, h2, h3');
  return held.dataset.leavable || heading?.textContent || document.title;
}

async function leave(held: HTMLElement, way: string): Promise<string> {
  const name = fileName(titleOf(held));
  if (way === 'copy') {
    await navigator.clipboard.writeText(tabbed(rowsOf(held)));
    return 'copied';
  }
  if (way === 'csv') {
    const { csvText } = await import('../../core/model/csv');
    const text = csvText(rowsOf(held), { isForSpreadsheets: true });
    saveFile(`${name}.csv`, text, 'text/csv');
    return `${name}.csv`;
  }
  const { pngOf, svgOf, svgText } = await import('./picture');
  const drawing = svgOf(held);
  if (way === 'svg') saveFile(`${name}.svg`, svgText(drawing), 'image/svg+xml');
  else saveFile(`${name}.png`, await pngOf(drawing), 'image/png');
  return `${name}.${way}`;
}

const SHOWN_MS = 2500;

/** Does what the buttons of `Leaving` ask for, wherever on the page they stand; says that it is done. */
export function TakeAway() {
  const [said, setSaid] = useState('');
  useEffect(() => {
    const onClick = (event: MouseEvent) => {
      const button = nearest(event, '[data-leave]');
      const held = button?.closest<HTMLElement>('[data-leavable]');
      if (!button?.dataset.leave || !held) return;
      leave(held, button.dataset.leave).then(setSaid, () =>
        setSaid('This browser would not do it.'),
      );
    };
    document.addEventListener('click', onClick);
    document.documentElement.dataset.takeAway = 'ready';
    return () => document.removeEventListener('click', onClick);
  }, []);
  useEffect(() => {
    if (said === '') return undefined;
    const timer = setTimeout(() => setSaid(''), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [said]);
  return (
    <div
      role="status"
      className="pointer-events-none fixed bottom-3 left-1/2 z-50 -translate-x-1/2"
    >
      {said && (
        <span className="rounded-sm border border-line bg-ink px-3 py-1 text-xs text-sheet shadow-lg">
          {said}
        </span>
      )}
    </div>
  );
}
