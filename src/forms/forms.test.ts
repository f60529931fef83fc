import fc from 'fast-check';
import { parse } from 'node-html-parser';
import { describe, expect, it, vi } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../tests/support/small-study';
import { evaluate } from '../core/answers/results';
import { buildReport, openReport, type ReportModel } from '../core/text/report';
import { fitted, linesOf, widthOf } from './cards/letters';
import { Pen } from './cards/pen';
import { cardSubjects, drawCard, drawFigure, markdownOf, pageOf, SMALLEST } from '.';

/** Text that would be markup, a script or a way out of a file name wherever it is not guarded. */
const HOSTILE =
  '</script><script>alert(1)</script><img src=x onerror=alert(2)> "\'& ' +
  '[a](javascript:alert(3)) | `x` ../../etc \u202e Ω 漢字 🙂';

function hostileModel(): ReportModel {
  const text = HOSTILE;
  const study = smallStudy(
    {
      ...TWO_SIDES,
      machines: [
        { machine_id: 'mr', name: text, maker: text, obtained: 'given', firmware: text },
        { machine_id: 'mc', name: text, price_paid: 200, price_list: 210, currency: 'EUR' },
      ],
      profiles: [{ profile_id: 'p', name: text, kind: 'stock', slicer: text }],
      artefacts: [{ artefact_id: 'part', name: text, version: text }],
      instruments: [{ instrument_id: 'i', name: text }],
      prints: [
        ...['p1', 'p2'].map((id) => print(id, 'R', { print_s: 3600, firmware: text })),
        ...['p3', 'p4'].map((id) => print(id, 'C', { print_s: 1800 })),
      ],
      claims: [{ claim_id: 'c', machine_id: 'mr', statement: text, evidence: text }],
      marks: [{ machine_id: 'mr', aspect: 'noise', sign: 'minus', text }],
      borrowed: [{ borrowed_id: 'b', machine_id: 'mc', source: text, statement: text }],
      verdicts: [
        {
          verdict_id: 'v1',
          kind: 'answer',
          order: 1,
          text,
          evidence: `${text} pairs:C:ln_print_s`,
        },
        { verdict_id: 'v2', kind: 'caveat', contender_id: 'C', order: 1, text },
      ],
    },
    {
      title: text,
      question: text,
      name: 'small',
      report: { author: text, disclosure: text },
      scorecard: {
        name: text,
        criteria: [
          {
            key: 'price',
            weight: 1,
            points: [
              [0, 1],
              [900, 0],
            ],
          },
        ],
      },
    },
  );
  return buildReport(openReport(study, evaluate(study)), {
    number: 1,
    frozen_at: '2026-03-28T17:20:00+01:00',
    drawings: new Map(),
    since: null,
    data: { sha256: 'a'.repeat(64), bytes: 1, tables: { prints: 4 }, files: {} },
  });
}

describe('the report as programs read it', () => {
  it('is its data and its review in terms of schema.org: who, when, what, and which file it follows from', () => {
    const root = parse(pageOf(hostileModel()));
    const text = root.querySelector('script[type="application/ld+json"]')?.textContent ?? '';
    const graph = (JSON.parse(text) as { '@graph': Record<string, unknown>[] })['@graph'];
    const of = (type: string) => graph.find((one) => one['@type'] === type);
    expect(of('Dataset')).toMatchObject({
      version: '1',
      dateCreated: '2026-03-28T17:20:00+01:00',
      creator: { '@type': 'Organization', name: HOSTILE },
      distribution: { contentUrl: 'data.zip', sha256: 'a'.repeat(64) },
    });
    expect(of('Review')).toMatchObject({
      reviewBody: HOSTILE,
      datePublished: '2026-03-28T17:20:00+01:00',
      isBasedOn: { '@id': of('Dataset')?.['@id'] },
      // Two machines of one name are named once.
      itemReviewed: [{ '@type': 'Product', name: HOSTILE }],
    });
  });
});

describe('hostile words', () => {
  it('are text on the page, whatever they look like', () => {
    const root = parse(pageOf(hostileModel()), { comment: true });
    const scripts = root
      .querySelectorAll('script')
      .map((one) => one.getAttribute('type') ?? one.getAttribute('src'));
    expect(scripts).toEqual(['application/ld+json', 'application/json', 'report.js']);
    expect(root.querySelectorAll('img')).toEqual([]);
    for (const element of root.querySelectorAll('*')) {
      const names = Object.keys(element.attributes);
      expect(names.filter((name) => /^on|^style$/i.test(name))).toEqual([]);
      expect(element.getAttribute('href') ?? '').toMatch(
        /^(?:$|#|[a-z/.-]+\.(?:zip|json|css|svg)$|figures\/[\w-]+\.svg$|data:,$)/,
      );
    }
    expect(root.querySelector('h1')?.text).toBe(HOSTILE);
    for (const data of root.querySelectorAll('script[type]')) {
      expect(() => JSON.parse(data.textContent) as unknown).not.toThrow();
      expect(data.textContent).not.toContain('<');
    }
  });

  it('are text in Markdown: no tag, no link, no row of a table', () => {
    const text = markdownOf(hostileModel());
    expect(text.replace(/!\[(?:\\.|[^\]\\])*\]\(figures\/[\w-]+\.svg\)/g, '')).not.toMatch(
      /(?<!\\)\]\(/,
    );
    expect(text).not.toMatch(/<(?!\/?$)/);
    for (const line of text.split('\n').filter((one) => one.startsWith('| '))) {
      expect(line.replaceAll('\\|', '').split('|').length).toBeGreaterThan(3);
    }
    const [head] = text.split('\n');
    expect(head?.startsWith('# ')).toBe(true);
  });

  it('are outlines in pictures, and never break them', () => {
    const model = hostileModel();
    const subjects = cardSubjects(model);
    expect(subjects.length).toBeGreaterThan(3);
    for (const { subject } of subjects) {
      const svg = drawCard(model, subject, { size: 'square', theme: 'dark' }, () => null) ?? '';
      const root = parse(svg);
      expect(root.querySelectorAll('script, foreignObject, image, a')).toEqual([]);
      expect(root.querySelectorAll('svg').length).toBe(1);
      expect(svg).not.toContain('NaN');
      expect(svg).toContain('<title>');
    }
    for (const chart of model.charts) {
      expect(chart.id).toMatch(/^[A-Za-z0-9-]+$/);
      expect(drawFigure(model, chart)).not.toContain('NaN');
    }
  });
});

describe('a page', () => {
  it('asks for nothing from elsewhere, and says everything without its script', () => {
    const text = pageOf(hostileModel());
    const root = parse(text);
    for (const element of root.querySelectorAll('[src], link')) {
      const address = element.getAttribute('src') ?? element.getAttribute('href') ?? '';
      expect(address).not.toMatch(/^(?:https?:)?\/\//);
    }
    // The order of the card stands in the page itself.
    expect(root.querySelectorAll('#stated tbody tr').length).toBe(2);
    expect(root.querySelector('html')?.getAttribute('lang')).toBe('en');
  });
});

describe('cards', () => {
  it('have no type below what is legible on a phone', () => {
    const drawn = vi.spyOn(Pen.prototype, 'text');
    const model = hostileModel();
    for (const { subject } of cardSubjects(model)) {
      for (const size of ['wide', 'square'] as const) {
        drawCard(model, subject, { size, theme: 'light' }, () => null);
      }
    }
    const sizes = drawn.mock.calls.map(([, , , { size }]) => size);
    expect(sizes.length).toBeGreaterThan(50);
    expect(Math.min(...sizes)).toBeGreaterThanOrEqual(SMALLEST);
    expect(SMALLEST).toBeGreaterThanOrEqual(28);
    drawn.mockRestore();
  });

  it('stay within their sheet, and have no background where none is asked for', () => {
    const model = hostileModel();
    const [first] = cardSubjects(model);
    if (!first) throw new Error('no subject');
    const clear =
      drawCard(model, first.subject, { size: 'wide', theme: 'clear' }, () => null) ?? '';
    const root = parse(clear);
    expect(root.querySelectorAll('rect[width="1920"]')).toEqual([]);
    for (const letter of root.querySelectorAll('use')) {
      expect(Number(letter.getAttribute('x'))).toBeLessThan(1920 - 40);
      expect(Number(letter.getAttribute('y'))).toBeLessThan(1080);
    }
  });
});

describe('letters', () => {
  it('are as wide as their font says', () => {
    // IBM Plex Mono: every letter is 600 of 1000 units wide.
    expect(widthOf('0.080', 100, 'mono')).toBeCloseTo(300, 6);
    expect(widthOf('', 40, 'regular')).toBe(0);
  });

  it('are broken into lines that fit, a long word too, and units stay with their numbers', () => {
    const text = 'Takes 58 % less time than a donaudampfschifffahrtsgesellschaft of the reference.';
    const lines = linesOf(text, 300, 30, 'regular');
    for (const line of lines) expect(widthOf(line, 30, 'regular')).toBeLessThanOrEqual(300);
    expect(lines.join('').replace(/[\s\u00a0]/g, '')).toBe(text.replace(/\s/g, ''));
    expect(lines.some((line) => line.includes('58\u00a0%'))).toBe(true);
    expect(fitted('a long line that does not fit', 120, 30, 'regular')).toMatch(/…$/);
    expect(fitted('fits', 120, 30, 'regular')).toBe('fits');
  });

  it('are cut off as late as they must be, and never within a character', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme', minLength: 2 }),
        fc.integer({ min: 60, max: 600 }),
        (text, width) => {
          const shown = fitted(text, width, 30, 'regular');
          expect(shown).not.toMatch(/\p{Surrogate}/u);
          if (shown === text) return;
          const head = shown.slice(0, -1);
          expect(text.startsWith(head)).toBe(true);
          const [first = '', next = ''] = text.slice(head.length);
          const longer = head === '' ? `${first}${next}` : `${head}${first}`;
          // Blanks at the end are not shown, and take no place.
          if (longer.trimEnd() === longer)
            expect(widthOf(`${longer}…`, 30, 'regular')).toBeGreaterThan(width);
          const lines = linesOf(text, width, 30, 'regular');
          expect(lines.join('')).not.toMatch(/\p{Surrogate}/u);
        },
      ),
    );
  });
});
