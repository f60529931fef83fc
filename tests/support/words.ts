import type { HTMLElement, Node } from 'node-html-parser';
import * as catalogues from '../../src/core/model/study/catalogues';
import { inWords } from '../../src/core/model/study/labels';

/** What a person reads on a page, or hears: texts, and the attributes that are shown or spoken. */
export function readOn(element: HTMLElement): string[] {
  const said: string[] = [];
  const visit = (node: Node) => {
    if (node.nodeType === 3) said.push(node.text.trim());
    const own = node as HTMLElement;
    if (['SCRIPT', 'STYLE', 'TEMPLATE', 'CODE'].includes(own.tagName ?? '')) return;
    for (const name of ['aria-label', 'placeholder', 'title', 'data-hint', 'alt']) {
      const value = node.nodeType === 1 ? own.getAttribute(name) : undefined;
      if (value) said.push(value);
    }
    node.childNodes.forEach(visit);
  };
  visit(element);
  return said.filter((text) => text !== '');
}

/** Words of catalogues that people write otherwise: `loose-strands`. */
const KEYS = new Set(
  Object.values(catalogues)
    .flatMap((each) => (Array.isArray(each) ? (each as unknown[]) : []))
    .filter((key): key is string => typeof key === 'string' && inWords(key) !== key),
);

const COLUMN = /(?<![\w./-])[a-z][a-z0-9]*(?:_[a-z0-9]+)+(?![\w./-])/;

/** Whether a text names a column, or is a key of a catalogue: words of programs, which no person reads. */
export const isForPrograms = (text: string): boolean => COLUMN.test(text) || KEYS.has(text);
