import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { factsOfMesh, MeshError, proposePair, readMesh } from './index';
import { without } from './line-work';
import { MOST_TRIANGLES } from './soup';

const bytesOf = (text: string) => new TextEncoder().encode(text);

const whyNot = (text: string | Uint8Array, name = 'part.stl'): string => {
  try {
    readMesh(typeof text === 'string' ? bytesOf(text) : text, name);
  } catch (error) {
    if (error instanceof MeshError) return error.message;
    throw error;
  }
  return 'it was read';
};

const stl = (...lines: string[]) =>
  ['solid x', 'facet normal 0 0 1', 'outer loop', ...lines, 'endloop', 'endfacet', 'endsolid'].join(
    '\n',
  );
const CORNERS = ['vertex 0 0 0', 'vertex 1 0 0', 'vertex 0 1 0'];

describe('a mesh with a fault says where it is', () => {
  it.each([
    ['a vertex too many', stl(...CORNERS, 'vertex 1 1 0'), 'line 7: a facet has more than three'],
    ['one too few', stl(...CORNERS.slice(1)), 'line 6: a facet has 2 vertices, not three'],
    ['a number too few', stl('vertex 0 0'), 'line 4: a vertex needs three numbers'],
    ['a number that is none', stl('vertex 0 0 x'), 'line 4: a vertex is no place (0 0 x)'],
    ['a number beyond all', stl('vertex 0 0 1e999'), 'line 4: a vertex is no place'],
    ['its end missing', stl(...CORNERS).replace('\nendsolid', ''), 'is cut off'],
    ['cut within a facet', stl(...CORNERS).split('\nendloop')[0] ?? '', 'is cut off'],
  ])('STL: %s', (_, text, message) => {
    expect(whyNot(text)).toContain(message);
  });

  it('STL: a binary one that is cut off, or far too large', () => {
    const head = (count: number, length: number) => {
      const bytes = new Uint8Array(length);
      if (length >= 84) new DataView(bytes.buffer).setUint32(80, count, true);
      return bytes;
    };
    expect(whyNot(head(3, 84 + 100))).toBe(
      'claims 3 triangles and has room for 2: it is cut off, or no STL',
    );
    expect(whyNot(head(0, 50))).toBe('is too short for an STL');
    expect(whyNot(head(MOST_TRIANGLES + 1, 84 + 50 * (MOST_TRIANGLES + 1)))).toContain(
      'make it coarser',
    );
    const place = head(1, 84 + 50);
    new DataView(place.buffer).setFloat32(84 + 12 + 4, Number.NaN, true);
    expect(whyNot(place)).toBe('triangle 1 has a corner that is no place (0, NaN, 0)');
  });

  it.each([
    ['v 0 0 0\nv 1 0 0\nf 1 2\n', 'line 3: a face needs three corners'],
    ['# x\nv 0 zero 0\n', 'line 2: a vertex needs three numbers (0 zero 0)'],
    ['v 0 0\n', 'line 1: a vertex needs three numbers'],
    ['v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 4\n', 'line 4: “4” names no vertex'],
    ['v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 0\n', 'line 4: “0” names no vertex'],
    ['v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 -4\n', 'line 4: “-4” names no vertex'],
    ['v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 1.5\n', 'line 4: “1.5” names no vertex'],
  ])('OBJ: %j', (text, message) => {
    expect(whyNot(text, 'part.obj')).toContain(message);
  });

  it('OBJ: corners counted from the end, with a comment, over two lines', () => {
    const text = 'v 0 0 0\nv 10 0 0\nv 0 10 0\nv 0 0 5\nf -4 -3 -2 # lid\nf 1/1 \\\n 2/2 4/4\n';
    const facts = factsOfMesh(bytesOf(text), 'part.obj');
    expect(facts).toMatchObject({ format: 'obj', triangles: 2 });
    expect(facts.bbox_mm.size).toEqual([10, 10, 5]);
  });

  it('what it is, its bytes say; its name only where they do not', () => {
    const obj = 'v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n';
    expect(readMesh(bytesOf(obj), 'part.txt').format).toBe('obj');
    expect(readMesh(bytesOf(`mtllib a\n${obj}`), 'part.stl').format).toBe('obj');
    expect(readMesh(bytesOf(stl(...CORNERS)), 'part.obj').format).toBe('stl-ascii');
    expect(whyNot('once upon a time', 'part.txt')).toBe('is no STL, OBJ or 3MF');
    expect(whyNot('once upon a time', 'part.stl')).toBe('is too short for an STL');
    expect(whyNot('')).toBe('is empty');
    // Bytes that are no text are no OBJ, whatever they are called.
    expect(whyNot(new Uint8Array(200), 'part.obj')).toBe('is no STL, OBJ or 3MF');
  });
});

describe('a span with others taken out', () => {
  it.each([
    [
      [[2, 3]],
      [
        [0, 2],
        [3, 10],
      ],
    ],
    [[[-5, 0]], [[0, 10]]],
    [
      [
        [-5, 4],
        [6, 20],
      ],
      [[4, 6]],
    ],
    [[[0, 10]], []],
    [[[10, 12]], [[0, 10]]],
    [[], [[0, 10]]],
  ] as [[number, number][], [number, number][]][])('%j', (taken, left) => {
    expect(without([0, 10], taken)).toEqual(left);
  });

  it('is as long as what was not taken', () => {
    const cuts = fc.uniqueArray(fc.integer({ min: -20, max: 120 }), { maxLength: 12 });
    fc.assert(
      fc.property(cuts, (places) => {
        const ends = [...places].sort((a, b) => a - b);
        const taken = ends.flatMap((from, at): [number, number][] =>
          at % 2 === 0 && ends[at + 1] !== undefined ? [[from, ends[at + 1] ?? 0]] : [],
        );
        const covered = taken.reduce(
          (sum, [from, to]) => sum + Math.max(0, Math.min(100, to) - Math.max(0, from)),
          0,
        );
        const left = without([0, 100], taken).reduce((sum, [from, to]) => sum + to - from, 0);
        expect(left).toBe(100 - covered);
      }),
    );
  });
});

describe('a dimension between two faces', () => {
  const face = (normal: readonly [number, number, number], z: number) => ({
    id: String(z),
    normal,
    area: 1,
    min: [0, 0, z] as const,
    max: [10, 10, z] as const,
    centre: [5, 5, z] as const,
  });

  it('is none where they lie in one plane or are not parallel', () => {
    const [up, side] = [
      [0, 0, 1],
      [1, 0, 0],
    ] as const;
    const say = (a: unknown, b: unknown) => proposePair(a as never, b as never);
    expect(say(face(up, 3), face(up, 3))).toBe('these two faces lie in one plane');
    expect(say(face(up, 3), face(side, 0))).toBe('these two faces are not parallel');
    expect(say(face(up, 3), face(up, 1))).toMatchObject({ kind: 'height', nominal_mm: 2 });
  });
});
