import { strToU8, zipSync } from 'fflate';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  boxPoints,
  boxSoup,
  cylinderTriangles,
  QUADS,
  type Point,
  type Triangle,
} from '../../../../tests/support/meshes';
import { factsOfMesh, MeshError, type MeshFacts } from './index';

const box = boxSoup.triangles;

const turned = (triangles: readonly Triangle[]): Triangle[] =>
  triangles.map(([a, b, c]) => [a, c, b]);

function binaryStl(triangles: readonly Triangle[], claimed = triangles.length): Uint8Array {
  const bytes = new Uint8Array(84 + 50 * triangles.length);
  const view = new DataView(bytes.buffer);
  view.setUint32(80, claimed, true);
  triangles.forEach((triangle, at) => {
    triangle.flat().forEach((value, index) => {
      view.setFloat32(84 + 50 * at + 12 + 4 * index, value, true);
    });
  });
  return bytes;
}

const asciiStl = (triangles: readonly Triangle[]): Uint8Array =>
  strToU8(
    [
      'solid part',
      ...triangles.map(
        (triangle) =>
          'facet normal 0 0 0\nouter loop\n' +
          triangle
            .map((point) => `vertex ${point.map((value) => value.toExponential(7)).join(' ')}\n`)
            .join('') +
          'endloop\nendfacet',
      ),
      'endsolid part',
      '',
    ].join('\n'),
  );

const objOfBox = (at: Point, size: Point): Uint8Array =>
  strToU8(
    `# a box\n${boxPoints(at, size)
      .map((point) => `v ${point.join(' ')}`)
      .join(
        '\n',
      )}\n${QUADS.map((quad) => `f ${quad.map((corner) => `${corner + 1}//1`).join(' ')}`).join('\n')}\n`,
  );

const NS = 'xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02"';

const meshXml = (triangles: readonly Triangle[]): string =>
  `<mesh><vertices>${triangles
    .flat()
    .map(([x, y, z]) => `<vertex x="${x}" y="${y}" z="${z}"/>`)
    .join('')}</vertices><triangles>${triangles
    .map((_, at) => `<triangle v1="${3 * at}" v2="${3 * at + 1}" v3="${3 * at + 2}"/>`)
    .join('')}</triangles></mesh>`;

const threeMf = (model: string, more: Record<string, string> = {}): Uint8Array =>
  zipSync(
    Object.fromEntries(
      Object.entries({
        '_rels/.rels':
          '<?xml version="1.0"?><Relationships ' +
          'xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r" ' +
          'Target="/3D/start.model" ' +
          'Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/></Relationships>',
        '3D/start.model': `<?xml version="1.0"?>${model}`,
        ...more,
      }).map(([name, text]) => [name, strToU8(text)]),
    ),
  );

const facts = (bytes: Uint8Array, name = 'part.stl'): MeshFacts => factsOfMesh(bytes, name);

const SIZE: Point = [80, 30, 32];
const PART = box([1, 2, 0], SIZE);

describe('facts of a mesh, against closed forms', () => {
  it('of a box', () => {
    const found = facts(binaryStl(PART));
    expect(found).toMatchObject({
      format: 'stl-binary',
      unit: null,
      triangles: 12,
      vertices: 8,
      watertight: true,
      shells: 1,
      notes: [],
    });
    expect(found.bbox_mm).toEqual({ min: [1, 2, 0], max: [81, 32, 32], size: [80, 30, 32] });
    expect(found.volume_mm3).toBeCloseTo(80 * 30 * 32, 6);
    expect(found.area_mm2).toBeCloseTo(2 * (80 * 30 + 80 * 32 + 30 * 32), 6);
  });

  it('a cavity subtracts and is a shell of its own', () => {
    const found = facts(binaryStl([...PART, ...turned(box([11, 12, 10], [10, 10, 10]))]));
    expect(found).toMatchObject({ shells: 2, watertight: true });
    expect(found.volume_mm3).toBeCloseTo(80 * 30 * 32 - 1000, 6);
  });

  it('a round part comes near its closed form', () => {
    const ring = 720;
    const triangles = cylinderTriangles(10, 5, ring);
    const found = facts(binaryStl(triangles));
    expect(found).toMatchObject({ watertight: true, vertices: 2 * ring + 2 });
    expect(found.volume_mm3).toBeCloseTo(Math.PI * 100 * 5, 0);
  });

  it('an open mesh has no volume, an inverted one has, and both are told', () => {
    const open = facts(binaryStl(PART.slice(1)));
    expect(open).toMatchObject({ watertight: false, volume_mm3: null });
    expect(open.notes[0]).toContain('open');
    const inverted = facts(binaryStl(turned(PART)));
    expect(inverted.volume_mm3).toBeCloseTo(80 * 30 * 32, 6);
    expect(inverted.notes[0]).toContain('inside out');
  });

  it('a concave polygon of an OBJ is cut without overlap', () => {
    // An L of 3 squares, extruded by nothing: one face.
    const found = facts(
      strToU8('v 0 0 0\nv 20 0 0\nv 20 10 0\nv 10 10 0\nv 10 20 0\nv 0 20 0\nf 5 6 1 2 3 4\n'),
      'l.obj',
    );
    expect(found).toMatchObject({ format: 'obj', triangles: 4, watertight: false });
    expect(found.area_mm2).toBeCloseTo(300, 9);
  });

  it('asks about a part that may have been drawn in inches', () => {
    expect(facts(binaryStl(box([0, 0, 0], [3.15, 1.2, 1])))?.notes[0]).toContain('inches');
    const large = facts(binaryStl(box([0, 0, 0], [2032, 762, 812])));
    expect(large.notes[0]).toContain('25.4 once too often (80.0 mm)');
    expect(facts(binaryStl(box([0, 0, 0], [400, 400, 4]))).notes).toEqual([]);
  });
});

describe('3MF', () => {
  const object = (id: string, triangles: readonly Triangle[]) =>
    `<object id="${id}" type="model">${meshXml(triangles)}</object>`;

  it('puts components and items in place, and scales by the unit', () => {
    const model =
      `<model unit="inch" ${NS}><resources>${object('1', box([0, 0, 0], [1, 1, 1]))}<object ` +
      'id="2"><components><component objectid="1"/><component objectid="1" transform="1 0 0 0 1 ' +
      `0 0 0 1 2 0 0"/></components></object>${object('9', PART)}</resources><build><item ` +
      'objectid="2" transform="0 1 0 -1 0 0 0 0 1 0 0 1"/></build></model>';
    const found = facts(threeMf(model), 'part.3mf');
    expect(found).toMatchObject({ format: '3mf', unit: 'inch', triangles: 24, shells: 2 });
    // x runs along y after the quarter turn; object 9 is not built.
    expect(found.bbox_mm.size.map((value) => value / 25.4)).toEqual([
      expect.closeTo(1, 9),
      expect.closeTo(3, 9),
      expect.closeTo(1, 9),
    ]);
    expect(found.volume_mm3).toBeCloseTo(2 * 25.4 ** 3, 6);
  });

  it('reads objects in other parts of the package', () => {
    const model =
      '<model unit="millimeter" ' +
      'xmlns:p="http://schemas.microsoft.com/3dmanufacturing/production/2015/06" ' +
      `${NS}><resources><object id="1"><components><component objectid="7" ` +
      'p:path="/3D/other.model"/></components></object></resources><build><item ' +
      'objectid="1"/></build></model>';
    const other = `<model ${NS}><resources>${object('7', PART)}</resources><build/></model>`;
    const found = facts(threeMf(model, { '3D/other.model': other }), 'x.3mf');
    expect(found.volume_mm3).toBeCloseTo(80 * 30 * 32, 6);
  });

  it.each([
    ['a document type', `<!DOCTYPE x [<!ENTITY a "b">]><model ${NS}/>`, 'document type'],
    [
      'no build',
      `<model ${NS}><resources>${object('1', PART)}</resources><build/></model>`,
      'builds nothing',
    ],
    [
      'an object made of itself',
      `<model ${NS}><resources><object id="1"><components><component ` +
        'objectid="1"/></components></object></resources><build><item ' +
        'objectid="1"/></build></model>',
      'made of themselves',
    ],
    ['broken XML', `<model ${NS}><resources>`, 'no XML'],
    [
      'a vertex that is no place',
      `<model ${NS}><resources><object id="1"><mesh><vertices><vertex x="nan" y="0" ` +
        'z="0"/></vertices></mesh></object></resources><build><item objectid="1"/></build></model>',
      'is no place',
    ],
  ])('with %s is refused with the reason', (_, model, why) => {
    expect(() => facts(threeMf(model), 'x.3mf')).toThrow(why);
  });

  it('that unpacks without end is refused', () => {
    const bomb = zipSync({ '3D/3dmodel.model': new Uint8Array(20 * 1024 * 1024) }, { level: 9 });
    expect(() => facts(bomb, 'x.3mf')).toThrow('unpacks to');
  });
});

describe('identity', () => {
  const identity = facts(binaryStl(PART)).identity;

  it('is the same through format, order and diagonals', () => {
    expect(facts(asciiStl(PART)).identity).toBe(identity);
    expect(facts(objOfBox([1, 2, 0], SIZE), 'x.obj').identity).toBe(identity);
    expect(facts(binaryStl(box([1, 2, 0], SIZE, true))).identity).toBe(identity);
    expect(facts(binaryStl([...PART].reverse())).identity).toBe(identity);
    const model =
      `<model ${NS}><resources><object id="1">${meshXml(PART)}</object></resources><build><item ` +
      'objectid="1"/></build></model>';
    expect(facts(threeMf(model), 'x.3mf').identity).toBe(identity);
  });

  it('is the same under rounding far below what counts', () => {
    const jitter = fc.array(fc.double({ min: -2e-5, max: 2e-5, noNaN: true }), {
      minLength: 24,
      maxLength: 24,
    });
    fc.assert(
      fc.property(jitter, (shifts) => {
        const places = boxPoints([1, 2, 0], SIZE);
        const shaken = PART.map((triangle) =>
          triangle.map((point) => {
            const at = places.findIndex((place) => place.every((v, axis) => v === point[axis]));
            return point.map((value, axis) => value + (shifts[3 * at + axis] ?? 0));
          }),
        ) as unknown as Triangle[];
        expect(facts(asciiStl(shaken)).identity).toBe(identity);
      }),
      { numRuns: 40 },
    );
  });

  it('is another for another size, place or side', () => {
    expect(facts(binaryStl(box([1, 2, 0], [80.1, 30, 32]))).identity).not.toBe(identity);
    expect(facts(binaryStl(box([1.1, 2, 0], SIZE))).identity).not.toBe(identity);
    expect(facts(binaryStl(turned(PART))).identity).not.toBe(identity);
  });
});

describe('what is no mesh', () => {
  it.each([
    ['nothing', new Uint8Array(0), 'is empty'],
    ['a cut-off STL', binaryStl(PART).subarray(0, 300), 'cut off'],
    ['a claim of four billion triangles', binaryStl(PART, 4_000_000_000), 'claims 4000000000'],
    [
      'a text STL without its end',
      asciiStl(PART).subarray(0, asciiStl(PART).length - 15),
      'cut off',
    ],
    [
      'a corner that is no place',
      binaryStl([
        [
          [NaN, 0, 0],
          [1, 0, 0],
          [0, 1, 0],
        ],
      ]),
      'is no place',
    ],
    ['no triangle', binaryStl([]), 'no triangle'],
    ['a picture', new Uint8Array([0x89, 0x50, 0, 0x47, 1, 2, 3, 0]), 'no STL, OBJ or 3MF'],
  ])('%s', (name, bytes, why) => {
    const file = name === 'a picture' ? 'x.png' : 'x.stl';
    expect(() => facts(bytes, file)).toThrow(MeshError);
    expect(() => facts(bytes, file)).toThrow(why);
  });

  it('a face that names no vertex tells its line', () => {
    expect(() => facts(strToU8('v 0 0 0\nv 1 0 0\nf 1 2 9\n'), 'x.obj')).toThrow('line 3');
  });
});
