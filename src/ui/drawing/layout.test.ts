import { describe, expect, it } from 'vitest';
import { drawnDimensions } from './drawn';
import { layOut, layOutSides, onSheet, sideOf, type DrawnDimension } from './layout';

const dimension = (
  id: string,
  from: DrawnDimension['from'],
  to: DrawnDimension['to'],
  kind = 'external',
): DrawnDimension => ({ id, label: id, kind, from, to });

const BOX = { left: -40, top: -32, width: 80, height: 32 };

describe('dimension lines', () => {
  it('stand on the side where their length is seen', () => {
    expect(sideOf(dimension('x', [0, 0, 5], [10, 0, 5]))).toBe('front');
    expect(sideOf(dimension('z', [0, 0, 0], [0, 0, 8]))).toBe('front');
    expect(sideOf(dimension('y', [0, 0, 5], [0, 10, 5]))).toBe('top');
    expect(sideOf(dimension('d', [0, 0, 5], [10, 0, 5], 'hole'))).toBe('top');
    expect(sideOf(dimension('yz', [0, 0, 0], [0, 10, 10]))).toBe('left');
  });

  it('on the sheet are where the part is, v downwards', () => {
    expect(onSheet('front', [1, 2, 3])).toEqual([1, -3]);
    expect(onSheet('left', [1, 2, 3])).toEqual([-2, -3]);
    expect(onSheet('top', [1, 2, 3])).toEqual([1, -2]);
  });

  it('lie outside the part, the shorter nearer, and none over another', () => {
    const lines = layOut(
      [
        dimension('long', [-40, 0, 4], [40, 0, 4]),
        dimension('short', [-10, 0, 4], [40, 0, 4]),
        dimension('beside', [-40, 0, 4], [-25, 0, 4]),
      ],
      'front',
      BOX,
      6,
    );
    const level = (id: string) => lines.find((line) => line.id === id)?.line[1];
    // Below the part; the two short ones side by side, the long one further out.
    expect(level('short')).toBe(6);
    expect(level('beside')).toBe(6);
    expect(level('long')).toBe(12);
  });

  it('of holes are where the hole is', () => {
    const [line] = layOut([dimension('h', [-4, 2, 8], [4, 2, 8], 'hole')], 'top', BOX, 6);
    expect(line?.line).toEqual([-4, -2, 4, -2]);
    expect(line?.leads).toEqual([]);
  });

  it('have room in the box round their side', () => {
    const side = { visible: '', hidden: '', box: BOX };
    const [front] = layOutSides(
      { front: side, left: side, top: side },
      [dimension('x', [-40, 0, 4], [40, 0, 4])],
      ['front'],
      6,
    );
    expect(front?.around).toMatchObject({ left: -46, top: -38 });
    expect(front?.around.height).toBe(32 + 6 + 6 + 6);
  });

  it('are drawn for dimensions that have a place', () => {
    const rows = [
      { dimension_id: 'x1', kind: 'external', nominal_mm: 20 },
      { dimension_id: 'hole-8', kind: 'hole', nominal_mm: 8 },
      { dimension_id: 'y9', kind: 'external', nominal_mm: 9 },
    ];
    const place = (dimension_id: string) => ({
      dimension_id,
      x1_mm: 0,
      y1_mm: 0,
      z1_mm: 0,
      x2_mm: 1,
      y2_mm: 0,
      z2_mm: 0,
    });
    const drawn = drawnDimensions(rows, [place('x1'), place('hole-8')]);
    expect(drawn.map((one) => one.label)).toEqual(['x1 20', '⌀ 8']);
  });
});
