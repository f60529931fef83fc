import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { indexStudy } from '../../model/study';
import { costEvidence, evidenceTable, reliabilityEvidence, speedEvidence } from './index';

const study = smallStudy({
  ...TWO_SIDES,
  artefacts: [
    { artefact_id: 'part', name: 'Part' },
    { artefact_id: 'other', name: 'Other' },
  ],
  prints: [
    print('p1', 'C', { print_s: 600, estimate_s: 500 }),
    print('p2', 'C', { repeat: 2, print_s: 660 }),
    print('p3', 'C', { repeat: 3, outcome: 'failed', print_s: 60, estimate_s: 500 }),
    print('p4', 'C', { artefact_id: 'other', outcome: 'rescued', print_s: 900, estimate_s: 1000 }),
  ],
  incidents: [
    { incident_id: 'i1', machine_id: 'mc', print_id: 'p3', mode: 'clogged', cause: 'machine' },
  ],
});
const index = indexStudy(study);

/** A column of a table of evidence, by the words at its head. */
function column(table: ReturnType<typeof evidenceTable> | undefined, label: string) {
  const at = table?.columns.findIndex((one) => one.label === label) ?? -1;
  if (at < 0) throw new Error(`no column ${label}`);
  return table?.rows.map((row) => row[at]);
}

describe('a table of evidence', () => {
  it('is cut to what can be looked through, and says how much is left out', () => {
    const rows = Array.from({ length: 401 }, (_, at) => [at]);
    const long = evidenceTable('T', ['n'], rows);
    expect(long.rows).toHaveLength(400);
    expect(long.more).toBe(1);
    expect(evidenceTable('T', ['n'], rows.slice(0, 400)).more).toBe(0);
    expect(evidenceTable('T', ['n'], []).more).toBe(0);
  });

  it('tells figures from words at its heads', () => {
    const own = { label: 'own', isFigure: false };
    expect(evidenceTable('T', ['word', ['figure'], own], []).columns).toEqual([
      { label: 'word' },
      { label: 'figure', isFigure: true },
      own,
    ]);
  });
});

describe('the evidence of printing times', () => {
  it('is the finished prints with a known time, with actual over estimate where both are', () => {
    const { tables, sentence, title } = speedEvidence(index, 'C', null);
    expect(title).toBe('Printing time');
    expect(sentence).toContain('3 finished prints');
    expect(column(tables[0], 'print')).toEqual(['p4', 'p1', 'p2']);
    // Those of one artefact in one material stand beside each other.
    expect(column(tables[0], 'artefact and material')).toEqual([
      'Other in PLA',
      'Part in PLA',
      'Part in PLA',
    ]);
    expect(column(tables[0], 'actual/estimate')).toEqual(['0.900', '1.200', null]);
  });

  it('of one artefact is of its prints, and names it', () => {
    const { tables, title } = speedEvidence(index, 'C', 'other');
    expect(title).toBe('Printing time, Other');
    expect(column(tables[0], 'print')).toEqual(['p4']);
  });
});

describe('the evidence of reliability', () => {
  it('is what went wrong, and every attempt', () => {
    const [incidents, prints] = reliabilityEvidence(index, 'C').tables;
    expect(column(incidents, 'print')).toEqual(['p3']);
    expect(column(incidents, 'mode')).toEqual(['clogged']);
    expect(column(prints, 'print')).toEqual(['p1', 'p2', 'p3', 'p4']);
    expect(column(prints, 'outcome')).toEqual(['success', 'success', 'failed', 'rescued']);
  });
});

describe('the evidence of a price', () => {
  it('names what it does not know', () => {
    const found = costEvidence(index, 'C', 'part');
    expect(found?.formula.length).toBeGreaterThan(20);
    expect(found?.tables.length).toBeGreaterThan(0);
  });
});
