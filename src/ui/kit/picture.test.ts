// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { svgOf } from './picture';

/** Gives elements the boxes that a page would: there is no layout in tests. */
function placed(html: string, boxes: Readonly<Record<string, readonly number[]>>): HTMLElement {
  document.body.innerHTML = html;
  for (const [selector, [x = 0, y = 0, width = 0, height = 0]] of Object.entries(boxes)) {
    for (const element of document.querySelectorAll(selector)) {
      element.getBoundingClientRect = () => new DOMRect(x, y, width, height);
    }
  }
  return document.body.firstElementChild as HTMLElement;
}

describe('an element as a drawing of its own', () => {
  const range = Object.getOwnPropertyDescriptors(Range.prototype);
  beforeEach(() => {
    Range.prototype.getClientRects = () => [new DOMRect(14, 22, 60, 12)] as unknown as DOMRectList;
    Range.prototype.getBoundingClientRect = () => new DOMRect(14, 22, 60, 12);
  });
  afterEach(() => {
    Object.defineProperties(Range.prototype, range);
  });

  it('is as large as what scrolls within it, with text as text where it stands', () => {
    const root = placed('<div><p>0.021 mm</p></div>', {
      div: [10, 20, 300, 80],
      p: [14, 22, 60, 16],
    });
    const svg = svgOf(root);
    expect([svg.getAttribute('width'), svg.getAttribute('height')]).toEqual([
      String(Math.max(root.scrollWidth, 0)),
      '80',
    ]);
    const [text] = svg.querySelectorAll('text');
    expect(text?.textContent).toContain('0.021 mm');
    // Where it stands within the element, not on the page.
    expect(Number(text?.getAttribute('x'))).toBeCloseTo(4, 5);
  });

  it('leaves out what is only for readers aloud, and the ways to take it away', () => {
    const root = placed(
      '<div><p class="sr-only">aloud</p><p data-leaving>CSV</p><p style="display:none">gone</p><b>stays</b></div>',
      { div: [0, 0, 100, 40], p: [0, 0, 50, 10], b: [0, 10, 50, 10] },
    );
    const text = svgOf(root).textContent ?? '';
    expect(text).toContain('stays');
    expect(text).not.toMatch(/aloud|CSV|gone/);
  });

  it('holds drawings with their looks written into them', () => {
    const root = placed(
      '<div><svg class="hue-1"><rect class="x" style="fill: rgb(1, 2, 3)" width="5"></rect></svg></div>',
      { div: [5, 5, 100, 40], svg: [15, 25, 30, 10] },
    );
    const inner = svgOf(root).querySelector('svg');
    expect(inner?.getAttribute('x')).toBe('10');
    expect(inner?.getAttribute('y')).toBe('20');
    const [rect] = inner?.querySelectorAll('rect') ?? [];
    expect(rect?.getAttribute('fill')).toBe('rgb(1, 2, 3)');
    expect(rect?.hasAttribute('class')).toBe(false);
  });
});
