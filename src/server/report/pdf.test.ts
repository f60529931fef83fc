import { describe, expect, it } from 'vitest';
import { withoutFileLinks } from './pdf';

describe('the page that is printed', () => {
  it('keeps links within it and to addresses, and none that would name a folder of this computer', () => {
    const html =
      '<a class="x" href="figures.json">figures</a> <a href="#data">data</a> <a ' +
      'href="../2/">newer</a> <a href="https://example.org/a">out</a>';
    expect(withoutFileLinks(html)).toBe(
      '<a class="x">figures</a> <a href="#data">data</a> <a>newer</a> <a href="https://example.org/a">out</a>',
    );
  });
});
