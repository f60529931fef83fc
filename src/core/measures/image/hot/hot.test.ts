import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it, vi } from 'vitest';
import { codeOf, compileHot } from '../../../../../scripts/lib/hot.mjs';
import { blurred } from '../blur';
import { plainFilters, type Filters } from '../filters';
import { quickFilters } from '.';

const quick = quickFilters(1) as Filters;

const picture = fc
  .record({ width: fc.integer({ min: 1, max: 60 }), height: fc.integer({ min: 1, max: 45 }) })
  .chain(({ width, height }) =>
    fc.record({
      width: fc.constant(width),
      values: fc.array(fc.double({ min: -1, max: 1, noNaN: true }), {
        minLength: width * height,
        maxLength: width * height,
      }),
      isHoley: fc.boolean(),
      sigma: fc.double({ min: 0.2, max: 40, noNaN: true }),
    }),
  );

describe('the compiled filters', () => {
  it('are those of the sources that stand beside them', async () => {
    expect(readFileSync(codeOf('image'), 'utf8')).toBe(await compileHot('image'));
  }, 60_000);

  it('come to the numbers of the plain ones, to the last bit', () => {
    fc.assert(
      fc.property(picture, ({ width, values, isHoley, sigma }) => {
        const own = Float64Array.from(values);
        const weights = isHoley ? own.map((value) => (value < -0.5 ? 0 : 1)) : null;
        const by = (filters: Filters) => [...blurred(own, weights, width, sigma, filters)];
        expect(by(quick)).toEqual(by(plainFilters));
      }),
      { numRuns: 60 },
    );
  });

  it('leave the room of work that is done to the next', () => {
    const done = quick((bench) => {
      const block = bench.room(300_000);
      bench.values(block).fill(7);
      return bench.values(block).length;
    });
    expect(done).toBe(300_000);
    quick((bench) => {
      expect(Math.max(...bench.values(bench.room(1000)))).toBe(0);
      const kept = bench.kept(() => {
        bench.room(50);
        const made = bench.room(3);
        bench.values(made).set([1, 2, 3]);
        return made;
      });
      expect([...bench.values(kept)]).toEqual([1, 2, 3]);
      expect([...bench.values(bench.room(4))]).toEqual([0, 0, 0, 0]);
      expect([...bench.values(kept)]).toEqual([1, 2, 3]);
    });
  });

  it('are none where nothing may be compiled: the plain ones do the work then', async () => {
    vi.resetModules();
    vi.stubGlobal('WebAssembly', {
      ...WebAssembly,
      Module: class {
        constructor() {
          throw new Error('forbidden by policy');
        }
      },
    });
    try {
      const [{ quickFilters: may }, { blurred: blur }] = await Promise.all([
        import('.'),
        import('../blur'),
      ]);
      expect(may(1)).toBeNull();
      const values = Float64Array.from({ length: 40 }, (_, at) => at % 7);
      expect([...blur(values, null, 8, 6)]).toEqual([...blurred(values, null, 8, 6, quick)]);
    } finally {
      vi.unstubAllGlobals();
    }
  });

  it('are not asked for more than a memory should hold', () => {
    expect(quickFilters(5e6)).toBeNull();
  });
});
