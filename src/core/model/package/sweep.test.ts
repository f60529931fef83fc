import { describe, expect, it } from 'vitest';
import { changedDemo } from '../../../../tests/support/demo-files';
import { memorySource, readPackage } from '.';

/** The demo as a sweep of three of its contenders. */
async function faultsOf(sweep: unknown, reference = 'A-stock'): Promise<string[]> {
  const files = changedDemo({
    'datapackage.json': (text) => {
      const value = JSON.parse(text) as { vergleich: Record<string, unknown> };
      Object.assign(value.vergleich, { intent: 'sweep', reference, sweep });
      return JSON.stringify(value);
    },
    // Three contenders of one machine are needed.
    'contenders.csv': (text) => text.replace('gannet,b-stock', 'auklet,b-stock'),
    'prints.csv': (text) => text,
    'incidents.csv': (text) => `${text.split('\r\n')[0]}\r\n`,
    'incident_photos.csv': null,
  });
  files.delete('incident_photos.csv');
  const { faults } = await readPackage(memorySource(files));
  return faults.filter(({ file }) => file === 'datapackage.json').map(({ message }) => message);
}

const steps = (...ids: string[]) => ({
  setting: 'speed_outer_wall_mm_s',
  steps: ids.map((contender_id, at) => ({ contender_id, value: 50 * (at + 1) })),
});

describe('a sweep', () => {
  it('of three contenders of one machine from the reference on is one', async () => {
    expect(await faultsOf(steps('A-stock', 'A-tuned', 'B-stock'))).toEqual([]);
  });

  it('needs its steps', async () => {
    expect(await faultsOf(undefined)).toEqual([
      'vergleich.sweep is missing: the intent "sweep" needs its setting and its steps',
    ]);
  });

  it('has contenders of the study as its steps', async () => {
    expect(await faultsOf(steps('A-stock', 'A-tuned', 'nobody'))).toEqual([
      'vergleich.sweep.steps.2.contender_id ("nobody") is not among the contenders (contenders.csv)',
    ]);
  });

  it('stays on one machine', async () => {
    expect(await faultsOf(steps('A-stock', 'A-tuned', 'C-stock'))).toEqual([
      'vergleich.sweep.steps.2.contender_id ("C-stock") is of another machine than the first step, which is "auklet"',
    ]);
  });

  it('begins at the reference', async () => {
    expect(await faultsOf(steps('A-stock', 'A-tuned', 'B-stock'), 'A-tuned')).toEqual([
      'vergleich.reference ("A-tuned") must be the first step of the sweep, "A-stock"',
    ]);
  });
});
