import { describe, expect, it } from 'vitest';
import {
  CARD,
  cardIn,
  cardText,
  convexHull,
  cornersBeforePlain,
  fourOf,
  inOrder,
  scaleOfCard,
} from '.';

/** A camera before a card: turned by an angle, its middle 500 mm away, 5000 px of focal length. */
function seen(x: number, y: number, turn = 0.3) {
  const [across, up] = [x - 100, y - 70];
  const z = 500 + Math.sin(turn) * across;
  return { u: 2000 + (5000 * Math.cos(turn) * across) / z, v: 1500 - (5000 * up) / z };
}

const codeAt = (corner: 'TL' | 'TR' | 'BL' | 'BR', left: number, top: number) => ({
  text: cardText(corner),
  corners: [seen(left, top), seen(left + 18, top), seen(left + 18, top - 18), seen(left, top - 18)],
});

describe('a scale card', () => {
  it('says what its codes must say', () => {
    expect(cardText('TR')).toBe('VGL1 CARD TR 200x140');
  });

  it('is found by two of its codes, however it lies', () => {
    // 6 mm from the edges of a card of 200 × 140 mm.
    const card = cardIn([codeAt('TL', 6, 134), codeAt('BR', 176, 24)]);
    expect(card).toMatchObject({ width: 200, height: 140 });
    expect(card?.misfit_mm).toBeLessThan(1e-6);
    // In its middle a millimetre is 5000/500 px upright, and by cos 0.3 less across.
    expect(card && scaleOfCard(card, { x: 100, y: 70 })).toBeCloseTo(
      10 * Math.sqrt(Math.cos(0.3)),
      6,
    );
  });

  it('what is none, or only one corner of one, is none', () => {
    expect(cardIn([{ ...codeAt('TL', 6, 134), text: 'K7-118' }])).toBeNull();
    expect(cardIn([codeAt('TL', 6, 134)])).toBeNull();
    expect(cardIn([codeAt('TL', 6, 134), codeAt('TL', 6, 134)])).toBeNull();
  });

  it('codes that were moved on it are told by the misfit', () => {
    const codes = [
      codeAt('TL', 6, 134),
      codeAt('TR', 176, 134),
      codeAt('BR', 176, 24),
      codeAt('BL', 16, 24),
    ];
    expect(cardIn(codes)?.misfit_mm).toBeGreaterThan(0.5);
  });

  it('has room for its bracket between the codes', () => {
    expect(CARD.zero.x).toBeGreaterThan(CARD.inset + CARD.code);
    expect(CARD.zero.y).toBeGreaterThan(CARD.inset + CARD.code);
  });
});

/** A picture of a polygon before a background, each pixel by its middle. */
function drawn(isPart: (x: number, y: number) => boolean, noise = 0, size = [400, 300] as const) {
  const [width, height] = size;
  const data = new Uint8Array(width * height * 3);
  for (let at = 0; at < width * height; at += 1) {
    const [x, y] = [(at % width) + 0.5, Math.floor(at / width) + 0.5];
    const value = (isPart(x, y) ? 60 : 190) + noise * Math.sin(at * 12.9898);
    data.fill(value, 3 * at, 3 * at + 3);
  }
  return { width, height, channels: 3, data };
}

describe('the outline of a part before a plain background', () => {
  // A rectangle of 200 × 100 px, turned by 10° about (190, 150).
  const [c, s] = [Math.cos(Math.PI / 18), Math.sin(Math.PI / 18)];
  const isTurned = (x: number, y: number) => {
    const [dx, dy] = [x - 190, y - 150];
    return Math.abs(c * dx + s * dy) < 100 && Math.abs(-s * dx + c * dy) < 50;
  };
  const corner = (along: number, beside: number) => ({
    x: 190 + c * along - s * beside,
    y: 150 + s * along + c * beside,
  });
  const expected = [corner(-100, -50), corner(100, -50), corner(100, 50), corner(-100, 50)];

  it.each([0, 4])('has its corners within a pixel, with noise of %d levels', (noise) => {
    const found = cornersBeforePlain(drawn(isTurned, noise));
    expect(found).not.toBeNull();
    found?.forEach(({ x, y }, at) => {
      const { x: ex = 0, y: ey = 0 } = expected[at] ?? {};
      expect(Math.hypot(x - ex, y - ey)).toBeLessThan(1);
    });
  });

  it('small things beside the part do not matter', () => {
    const withDust = (x: number, y: number) => isTurned(x, y) || Math.hypot(x - 30, y - 30) < 5;
    const found = cornersBeforePlain(drawn(withDust));
    expect(found?.[0].x).toBeCloseTo(expected[0]?.x ?? 0, -0.5);
  });

  it('is not made up where nothing stands out, or the part fills the picture', () => {
    expect(cornersBeforePlain(drawn(() => false, 4))).toBeNull();
    expect(cornersBeforePlain(drawn((x, y) => x > 3 && y > 3 && x < 397 && y < 297, 0))).toBeNull();
  });

  it('is looked for only where it is said', () => {
    const two = (x: number, y: number) => isTurned(x, y) || x > 330;
    const found = cornersBeforePlain(drawn(two), (x) => x < 320);
    expect(found?.[2].x).toBeLessThan(310);
  });
});

describe('hulls', () => {
  it('of a square and what lies in it is the square', () => {
    const square = [
      { x: 0, y: 0 },
      { x: 4, y: 0 },
      { x: 4, y: 4 },
      { x: 0, y: 4 },
    ];
    const hull = convexHull([...square, { x: 2, y: 2 }, { x: 2, y: 0 }, { x: 1, y: 3 }]);
    expect(hull).toHaveLength(4);
    expect(hull).toEqual(expect.arrayContaining(square));
  });

  it('four corners are those that matter, clockwise from the upper left', () => {
    // A rectangle with its corners cut by little.
    const cut = [
      [1, 0],
      [99, 0],
      [100, 1],
      [100, 59],
      [99, 60],
      [1, 60],
      [0, 59],
      [0, 1],
    ].map(([x = 0, y = 0]) => ({ x, y }));
    const [a, b, d, e] = inOrder(fourOf(convexHull(cut)));
    expect(Math.max(a.x, a.y)).toBeLessThanOrEqual(1);
    expect([b.x >= 99, b.y <= 1, d.x >= 99, d.y >= 59, e.x <= 1, e.y >= 59]).not.toContain(false);
  });
});
