/** What a cell says: its own figure where it names one, what is typed in it, else its text. */
function textOf(cell: Element): string {
  const named = cell.querySelector('[data-figure-text]') ?? cell;
  const own = named.getAttribute('data-figure-text');
  if (own !== null) return own;
  if (cell.classList.contains('unknown') || cell.querySelector('.unknown')) return '';
  const typed = [
    ...cell.querySelectorAll<HTMLInputElement | HTMLSelectElement | HTMLTextAreaElement>(
      'input, select, textarea',
    ),
  ].flatMap((field) => {
    if (field instanceof HTMLInputElement && field.type === 'checkbox') {
      return [field.checked ? 'yes' : 'no'];
    }
    if (field instanceof HTMLSelectElement) return [field.selectedOptions[0]?.text ?? ''];
    return [field.value];
  });
  if (typed.length > 0) return typed.join(' ').trim();
  const copy = document.createElement('div');
  copy.append(...[...cell.childNodes].map((node) => node.cloneNode(true)));
  for (const hidden of copy.querySelectorAll('svg, [aria-hidden="true"], script, style')) {
    hidden.remove();
  }
  return plain(copy.textContent ?? '');
}

/** Text on one line, with the minus that programs read. */
const plain = (text: string): string =>
  text
    .replace(/\s+/g, ' ')
    .replace(/\u2212(?=\d)/g, '-')
    .trim();

/**
 * A table of the page as rows of text: its heads first, every row as wide as the widest. A cell that
 * spans columns stands in the first of them; what is not known is empty.
 */
export function rowsOfTable(table: HTMLTableElement): string[][] {
  const rows = [...table.rows].map((row) =>
    [...row.cells].flatMap((cell) => [
      textOf(cell),
      ...Array.from({ length: Math.max(0, cell.colSpan - 1) }, () => ''),
    ]),
  );
  const width = rows.reduce((widest, row) => Math.max(widest, row.length), 0);
  return rows
    .filter((row) => row.some((cell) => cell !== ''))
    .map((row) => [...row, ...Array.from({ length: width - row.length }, () => '')]);
}

/** Rows as a spreadsheet takes them from the clipboard. */
export const tabbed = (rows: readonly (readonly string[])[]): string =>
  rows.map((row) => row.map((cell) => cell.replace(/[\t\n]/g, ' ')).join('\t')).join('\n');
