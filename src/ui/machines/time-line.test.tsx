// @vitest-environment happy-dom
import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import type { DossierEntry } from '../../core/measures/dossier/time-line';
import { TimeLine } from './TimeLine';

afterEach(cleanup);

const entry = (
  at: string,
  kind: DossierEntry['kind'],
  text: string,
  more: Partial<DossierEntry> = {},
): DossierEntry => ({ at, kind, text, print_id: null, outcome: null, ...more });

const ENTRIES = [
  entry('2026-03-01T08:00:00Z', 'print', 'Clip, repeat 1', { print_id: 'old', outcome: 'success' }),
  entry('2026-03-01T20:00:00Z', 'incident', 'clogged'),
  entry('2026-03-02T08:00:00Z', 'print', 'Clip, repeat 2', { print_id: 'bad', outcome: 'failed' }),
  // A month in which nothing happened.
  entry('2026-04-01T08:00:00Z', 'change', 'firmware: 1.9.2'),
  entry('2026-04-02T08:00:00Z', 'print', 'Clip, repeat 3', { print_id: 'new', outcome: 'rescued' }),
];
const x = (element: Element | null) =>
  Number.parseFloat(element?.getAttribute('cx') ?? element?.getAttribute('x1') ?? '');
const at = (hint: string) => document.querySelector(`[data-hint*="${hint}"]`);

describe('the line of time of a machine', () => {
  it('has everything at its moment, in its row, in the order in which it happened', () => {
    render(<TimeLine entries={ENTRIES} outdated={[]} />);
    const places = ['repeat 1', 'clogged', 'repeat 2', 'repeat 3'].map((hint) => x(at(hint)));
    expect(places).toEqual([...places].sort((a, b) => a - b));
    // A day before and a day after are as long as each other: half a day is half of that.
    const [first = 0, incident = 0, second = 0] = places;
    expect((incident - first) / (second - first)).toBeCloseTo(0.5, 2);
    expect(at('clogged')?.tagName).toBe('line');
    expect(screen.getByRole('img').getAttribute('aria-label')).toMatch(
      /: 3 prints, 1 incident, 1 change$/,
    );
  });

  it('cuts a month without anything short, and says how long it was', () => {
    render(<TimeLine entries={ENTRIES} outdated={[]} />);
    expect(at('30 days without anything')).not.toBeNull();
    const [second, third] = [x(at('repeat 2')), x(at('repeat 3'))];
    // Two days of it are drawn, and one more until the print: the whole is four days long.
    expect(third - second).toBeCloseTo(0.75 * 88, 1);
  });

  it('tells good prints from bad ones, and those of an older firmware, by shape and not by colour alone', () => {
    render(<TimeLine entries={ENTRIES} outdated={['old']} />);
    expect(at('repeat 2')?.getAttribute('fill')).toBe('var(--ink)');
    expect(at('repeat 3')?.getAttribute('fill')).toBe('var(--sheet)');
    expect(at('repeat 1')?.getAttribute('stroke-dasharray')).toBe('2 2');
    expect(at('repeat 3')?.getAttribute('stroke-dasharray')).toBeNull();
  });

  it('has numbers for words on a phone, and a list of them in the order of time', () => {
    vi.stubGlobal('matchMedia', () => ({
      matches: true,
      addEventListener: () => undefined,
      removeEventListener: () => undefined,
    }));
    const changes = [
      entry('2026-04-03T08:00:00Z', 'change', 'part: hardened nozzle'),
      ...ENTRIES,
      entry('2026-04-02T09:00:00Z', 'change', 'firmware: prints of 1.9.3'),
    ];
    render(<TimeLine entries={changes} outdated={[]} />);
    const list = screen.getAllByRole('listitem').map((one) => one.textContent);
    expect(list).toEqual([
      expect.stringContaining('firmware: 1.9.2'),
      expect.stringContaining('part: hardened nozzle'),
    ]);
    expect(at('hardened nozzle')?.querySelector('text')?.textContent).toBe('2');
    expect(at('prints of 1.9.3')?.querySelector('text')).toBeNull();
    vi.unstubAllGlobals();
  });

  it('shows over which of it each study went, and says where nothing happened', () => {
    const studies = [
      { title: 'Clips', from: '2026-03-01T08:00:00Z', to: '2026-03-02T08:00:00Z' },
      { title: 'Not printed', from: null, to: null },
    ];
    const { rerender } = render(<TimeLine entries={ENTRIES} outdated={[]} studies={studies} />);
    expect(at('Clips')?.querySelector('rect')).not.toBeNull();
    expect(at('Not printed')).toBeNull();
    rerender(<TimeLine entries={[]} outdated={[]} />);
    expect(document.body.textContent).toBe('Nothing happened yet.');
  });
});
