import type { Row, Tables } from '../../src/core/model/study';
import type { Draws } from './random';

/** How far each contender gets on the ladders: the last step that is clear, and with effort. */
const REACH: Record<string, Record<string, readonly [number, number]>> = {
  clearance: {
    'A-stock': [2, 3],
    'A-tuned': [4, 5],
    'B-stock': [4, 5],
    'B-tuned': [5, 5],
    'C-stock': [3, 4],
    'D-stock': [2, 2],
  },
  overhang: {
    'A-stock': [3, 4],
    'A-tuned': [4, 4],
    'B-stock': [4, 5],
    'B-tuned': [4, 5],
    'C-stock': [3, 4],
    'D-stock': [2, 3],
  },
  bridge: {
    'A-stock': [3, 4],
    'A-tuned': [3, 4],
    'B-stock': [5, 6],
    'B-tuned': [5, 6],
    'C-stock': [4, 4],
    'D-stock': [2, 3],
  },
};

/** Typical worst defect of a zone by contender: the defect and its grade. */
const MARKS: Record<string, Record<string, readonly [Row<'findings'>['defect'], number]>> = {
  corners: {
    'A-stock': ['ringing', 3],
    'A-tuned': ['ringing', 2],
    'B-stock': ['ringing', 1],
    'B-tuned': ['ringing', 1],
    'C-stock': ['vertical-banding', 2],
    'D-stock': ['ringing', 3],
  },
  lettering: {
    'A-stock': ['text-lost', 2],
    'A-tuned': ['text-lost', 1],
    'D-stock': ['text-lost', 2],
  },
  notch: { 'A-stock': ['blobs', 1], 'A-tuned': ['blobs', 1], 'D-stock': ['layer-banding', 3] },
  'first-layer': {
    'B-stock': ['elephant-foot', 1],
    'B-tuned': ['elephant-foot', 1],
    'D-stock': ['first-layer-gaps', 3],
  },
  between: {
    'A-stock': ['stringing', 2],
    'A-tuned': ['stringing', 1],
    'B-stock': ['stringing', 1],
    'C-stock': ['stringing', 3],
    'D-stock': ['stringing', 2],
  },
  tips: {
    'A-stock': ['blobs', 1],
    'C-stock': ['blobs', 1],
    'D-stock': ['blobs', 2],
  },
};

const INSPECTORS = ['KM', 'TS'];

type Judged = Pick<Tables, 'ladder_results' | 'function_results' | 'inspections' | 'findings'>;

/** What the eye and the hand found: ladders, function checks and surface findings. */
export function judged(
  draws: Draws,
  tables: Pick<Tables, 'prints' | 'specimens' | 'ladders' | 'ladder_steps' | 'zones'>,
): Judged {
  const found: Judged = { ladder_results: [], function_results: [], inspections: [], findings: [] };
  const prints = new Map(tables.prints.map((print) => [print.print_id, print]));
  for (const { specimen_id, print_id } of tables.specimens) {
    const print = prints.get(print_id);
    if (!print) continue;
    for (const { artefact_id, ladder_id } of tables.ladders) {
      if (artefact_id !== print.artefact_id) continue;
      const [clear, effort] = REACH[ladder_id]?.[print.contender_id] ?? [0, 0];
      const steps = tables.ladder_steps.filter((row) => row.ladder_id === ladder_id);
      for (const { step } of steps) {
        const result =
          step <= clear
            ? 'clear'
            : step <= effort
              ? 'effort'
              : step === effort + 1
                ? 'fail'
                : 'untested';
        found.ladder_results.push({ specimen_id, ladder_id, step, result });
      }
    }
    if (print.artefact_id === 'ring-stack') {
      const [clear] = REACH.clearance?.[print.contender_id] ?? [0];
      const result = clear >= 4 ? 'works' : clear >= 3 ? 'works-with-effort' : 'fails';
      found.function_results.push({ specimen_id, check: 'turns', result, note: null });
    }
    inspect(draws, found, tables, specimen_id, print);
  }
  return found;
}

function inspect(
  draws: Draws,
  found: Judged,
  tables: Pick<Tables, 'zones'>,
  specimen_id: string,
  print: Row<'prints'>,
): void {
  for (const { artefact_id, zone_id } of tables.zones) {
    // Nobody has looked at the letters of the Petrel's wall.
    const isMissing = print.contender_id === 'C-stock' && zone_id === 'lettering';
    if (artefact_id !== print.artefact_id || isMissing) continue;
    for (const inspector of INSPECTORS) {
      found.inspections.push({ specimen_id, zone_id, inspector, at: print.ended_at });
      const mark = MARKS[zone_id]?.[print.contender_id];
      if (!mark) continue;
      const [defect, typical] = mark;
      const grade = Math.max(0, Math.min(4, typical + (draws.chance(0.2) ? -1 : 0)));
      if (grade === 0) continue;
      found.findings.push({
        specimen_id,
        zone_id,
        inspector,
        defect,
        grade,
        cause: null,
        note: null,
        view: null,
        path: null,
        x_mm: null,
        y_mm: null,
        w_mm: null,
        h_mm: null,
      });
    }
  }
}
