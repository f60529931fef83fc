import { randomBytes } from 'node:crypto';
import { buffer } from 'node:stream/consumers';
import fc from 'fast-check';
import { unzipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { isPackable, zipParts, type Part } from './zip-parts';

async function* each<Item>(items: readonly Item[]): AsyncGenerator<Item> {
  for (const item of items) yield await Promise.resolve(item);
}

const packed = async (parts: readonly Part[]): Promise<Uint8Array> => buffer(zipParts(each(parts)));

const file = fc.record({
  isPacked: fc.boolean(),
  pieces: fc.array(fc.uint8Array({ maxLength: 4000 }), { maxLength: 6 }),
});

describe('parts in a zip', () => {
  it('come out as they went in, packed or not, in whatever pieces', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(file, { maxLength: 6 }), async (files) => {
        const zip = await packed(
          files.map(({ isPacked, pieces }, at) => ({
            path: `folder/${at}.bin`,
            isPacked,
            content: each(pieces),
          })),
        );
        const found = unzipSync(zip);
        expect(Object.keys(found)).toEqual(files.map((_, at) => `folder/${at}.bin`));
        for (const [at, { pieces }] of files.entries()) {
          expect(Buffer.from(found[`folder/${at}.bin`] ?? [])).toEqual(Buffer.concat(pieces));
        }
      }),
      { numRuns: 40 },
    );
  });

  it('are smaller where that is asked for, and leave while more is taken in', async () => {
    const line = new TextEncoder().encode('G1 X10 Y20 E0.5\n'.repeat(4096));
    let taken = 0;
    const content = (async function* () {
      for (; taken < 200; taken += 1)
        yield await Promise.resolve(
          new Uint8Array([...line.subarray(0, 32), ...randomBytes(32_000)]),
        );
    })();
    const zip = zipParts(each([{ path: 'a.gcode', isPacked: true, content }]));
    const chunks = zip[Symbol.asyncIterator]();
    await chunks.next();
    await chunks.next();
    expect(taken).toBeLessThan(100);
    await chunks.return?.();
    const whole = await packed([{ path: 'a.gcode', isPacked: true, content: each([line]) }]);
    expect(whole.length).toBeLessThan(line.length / 50);
  });

  it('are packed beside what else is to be done', async () => {
    // Lines that take long to pack, all at once.
    const numbers = Array.from(
      { length: 300_000 },
      (_, at) => `G1 X${(at * 7919) % 997} Y${at % 89}`,
    );
    let turns = 0;
    let isPacking = true;
    const turn = () => {
      turns += 1;
      if (isPacking) setImmediate(turn);
    };
    const content = each([new TextEncoder().encode(numbers.join('\n'))]);
    const packing = packed([{ path: 'a.gcode', isPacked: true, content }]);
    setImmediate(turn);
    await packing;
    isPacking = false;
    expect(turns).toBeGreaterThan(100);
  });

  it('fail with what their content failed with', async () => {
    const broken = async function* () {
      yield await Promise.resolve(new Uint8Array(10));
      throw new Error('the disk is gone');
    };
    for (const isPacked of [true, false]) {
      await expect(packed([{ path: 'a', isPacked, content: broken() }])).rejects.toThrow(
        'the disk is gone',
      );
    }
  });
});

describe('a file', () => {
  it('is packable by its kind', () => {
    expect(['a/part.STL', 'prints.csv', 'x.gcode'].map(isPackable)).toEqual([true, true, true]);
    expect(['photo.jpg', 'file.3mf', 'csv'].map(isPackable)).toEqual([false, false, false]);
  });
});
