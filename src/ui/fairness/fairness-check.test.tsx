// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor, within } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Fairness, FairnessItem } from '../../core/answers/fairness';
import type { ContenderMark } from '../../core/model/study';
import { FairnessCheck } from './FairnessCheck';

const mark = (contender_id: string): ContenderMark => ({
  contender_id,
  machineName: contender_id,
  letter: contender_id,
  hue: 0,
  isTuned: false,
  variant: 'stock',
  profileName: 'stock',
  label: `${contender_id} stock`,
});
const item = (key: string, more: Partial<FairnessItem> = {}): FairnessItem => ({
  key,
  state: 'same',
  role: 'held',
  contender_value: 3,
  reference_value: 3,
  varies: false,
  ...more,
});
const pair = (
  contender: string,
  artefact_id: string,
  result: Fairness['result'],
  items: FairnessItem[] = [],
): Fairness => ({
  contender,
  reference: 'R',
  artefact_id,
  type: 'PLA',
  result,
  items,
  sentence: `${contender} on ${artefact_id} is ${result}.`,
});

let sent: unknown[];
let refusal: string | null;
beforeEach(() => {
  localStorage.clear();
  sent = [];
  refusal = null;
  vi.stubGlobal('fetch', (_: string, init: RequestInit) => {
    sent.push(JSON.parse(init.body as string));
    return Promise.resolve(
      new Response(JSON.stringify({ detail: refusal }), { status: refusal === null ? 201 : 422 }),
    );
  });
});
afterEach(cleanup);

const WALLS = item('wall_count', { state: 'different', contender_value: 2 });
const FAIRNESS = [
  pair('A', 'stair', 'clean'),
  pair('A', 'wall', 'confounded', [
    item('layer_height_mm'),
    item('seam', { state: 'unknown', role: 'noted', contender_value: null }),
    WALLS,
  ]),
  pair('B', 'stair', 'noted'),
];
const opened = (fairness = FAIRNESS) =>
  render(
    <FairnessCheck
      studyId="s"
      marks={['R', 'A', 'B'].map(mark)}
      artefacts={[
        { id: 'stair', name: 'Stair block' },
        { id: 'wall', name: 'Echo wall' },
        { id: 'ring', name: 'Ring stack' },
      ]}
      fairness={fairness}
      reference="R"
    />,
  );

describe('the fairness check', () => {
  it('counts what it found and opens the worst by itself, what must be equal first', () => {
    opened();
    expect(screen.getByText(/1\s+confounded, 1 noted, 1 clean/)).toBeTruthy();
    expect(screen.getByText('A on wall is confounded.')).toBeTruthy();
    const items = within(screen.getByRole('region', { name: 'What was compared' })).getAllByRole(
      'rowheader',
    );
    expect(items.map((one) => one.textContent)).toEqual(['wall count', 'seam', 'layer height']);
  });

  it('shows what was not both printed as not known, and an artefact that nobody printed not at all', () => {
    opened();
    expect(screen.getByRole('button', { name: 'Stair block, B stock: noted' })).toBeTruthy();
    expect(screen.queryByText('Ring stack')).toBeNull();
    const wall = screen.getByRole('rowheader', { name: 'Echo wall' }).closest('tr');
    expect(wall?.textContent).toContain('not both printed');
  });

  it('opens another pair when it is asked for', () => {
    opened();
    fireEvent.click(screen.getByRole('button', { name: 'Stair block, B stock: noted' }));
    expect(screen.getByText('B on stair is noted.')).toBeTruthy();
    expect(screen.queryByText('A on wall is confounded.')).toBeNull();
  });

  it('takes a reason why a difference is accepted, and none without one', async () => {
    localStorage.setItem('vergleich.operator', 'KM');
    refusal = 'It is accepted already.';
    opened();
    fireEvent.click(screen.getByRole('button', { name: 'accept …' }));
    const reason = screen.getByRole('textbox', {
      name: 'Reason to accept that wall count differs',
    });
    fireEvent.submit(reason);
    expect(sent).toEqual([]);
    fireEvent.change(reason, { target: { value: ' It is not loaded. ' } });
    fireEvent.submit(reason);
    await waitFor(() =>
      expect(screen.getByRole('alert').textContent).toBe('It is accepted already.'),
    );
    expect(sent).toMatchObject([
      {
        contender_id: 'A',
        reference_id: 'R',
        artefact_id: 'wall',
        item: 'wall_count',
        reason: 'It is not loaded.',
        operator: 'KM',
      },
    ]);
    fireEvent.keyDown(reason, { key: 'Escape' });
    expect(screen.queryByRole('textbox')).toBeNull();
  });

  it('asks for no reason where one was given, and says it', () => {
    const accepted = { reason: 'It is not loaded.', operator: 'KM' };
    opened([pair('A', 'wall', 'confounded', [{ ...WALLS, accepted }])]);
    expect(screen.getByText(/accepted: It is not loaded\.\s*\(KM\)/)).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'accept …' })).toBeNull();
  });

  it('is not there where nothing can be compared', () => {
    expect(opened([]).container.textContent).toBe('');
  });
});
