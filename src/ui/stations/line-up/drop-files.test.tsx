// @vitest-environment happy-dom
import { cleanup, fireEvent, render, screen, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { json, toldApi } from '../../../../tests/support/told-api';
import type { FirstLook, LookMessage } from '../../workers/first-look';
import { DropFiles } from './DropFiles';

const api = toldApi();
afterEach(cleanup);

const look = (more: Partial<FirstLook>): FirstLook => ({
  sha256: 'a'.repeat(64),
  time_s: 60,
  filament_mm: 900,
  layers: 3,
  commanded_max: 120,
  reached_max: 90,
  settings: {},
  fault: null,
  ...more,
});
/** What the browser's worker finds in a file, by its name. */
const FOUND: Record<string, LookMessage> = {
  'gannet-clip.gcode': { look: look({ settings: { material: 'pla' } }) },
  'holiday.jpg': { look: look({ fault: 'it holds no movement' }) },
  'torn.gcode': { failed: 'it ends in the middle' },
};

class FakeWorker {
  onmessage: ((event: { data: LookMessage }) => void) | null = null;
  postMessage({ name }: File) {
    setTimeout(() => this.onmessage?.({ data: FOUND[name] ?? { failed: 'not known' } }));
  }
  terminate() {
    this.onmessage = null;
  }
}
beforeEach(() => {
  vi.stubGlobal('Worker', FakeWorker);
});

it('of dropped files those that say nothing are named with the reason and left out, the others go in', async () => {
  // The page is read again afterwards; here there is none.
  const reload = vi.fn();
  vi.stubGlobal('location', { toString: () => 'http://localhost/', reload });
  const sent: Record<string, unknown>[] = [];
  api.answers['POST /studies/s/sliced-files'] = () => {
    const body = api.asked.at(-1)?.body as { name: string };
    return json({ path: `sliced/${body.name}`, isKnown: true });
  };
  api.answers['POST /studies/s/line-up/files'] = () => {
    sent.push(api.asked.at(-1)?.body as Record<string, unknown>);
    return json({});
  };
  render(
    <DropFiles
      studyId="s"
      machines={['Gannet']}
      parts={['Clip']}
      materials={[]}
      hasMaterial={false}
    />,
  );
  const files = Object.keys(FOUND).map((name) => new File(['x'], name));
  fireEvent.change(screen.getByLabelText('Choose sliced files'), { target: { files } });
  const put = await screen.findByRole('button', { name: 'Put 1 file in' });
  await waitFor(() => expect((put as HTMLButtonElement).disabled).toBe(false));
  const faults = screen.getAllByRole('alert').map((one) => one.textContent);
  expect(faults).toEqual([
    'is left out: it holds no movement',
    'is left out: it ends in the middle',
  ]);
  // What its name and its own words say is proposed.
  const value = (label: string) => (screen.getByLabelText(label) as HTMLInputElement).value;
  expect(value('machine of gannet-clip.gcode')).toBe('Gannet');
  expect(value('part of gannet-clip.gcode')).toBe('Clip');
  expect(screen.queryByLabelText('machine of holiday.jpg')).toBeNull();
  fireEvent.click(put);
  await waitFor(() => expect(reload).toHaveBeenCalledOnce());
  expect(api.asked.map(({ path }) => path)).toEqual([
    '/studies/s/sliced-files',
    '/studies/s/line-up/files',
  ]);
  expect(sent[0]).toMatchObject({
    material: 'PLA',
    files: [{ path: 'sliced/gannet-clip.gcode', machine: 'Gannet', part: 'Clip', kind: 'stock' }],
  });
});
