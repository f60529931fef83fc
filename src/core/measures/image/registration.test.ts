import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { measurePhoto, project, register, resampled, warped, type Mark } from '.';

const BOX = { x: 0, y: 0, w: 100, h: 60 };

/** A camera before a wall: turned about its upright by an angle, at a distance, `focal` px a unit. */
function camera(turn: number, distance: number, focal: number) {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return (x_mm: number, y_mm: number): Mark => {
    const [x, z] = [c * (x_mm - 50), distance + s * (x_mm - 50)];
    return { u_px: 2000 + (focal * x) / z, v_px: 1500 - (focal * (y_mm - 30)) / z, x_mm, y_mm };
  };
}

const CORNERS = [
  [0, 0],
  [100, 0],
  [100, 60],
  [0, 60],
] as const;

describe('a photo is tied to a view', () => {
  it('by two marks: scale, turn and shift', () => {
    // 10 px a millimetre, turned by 90°: what is to the right of the view is upwards in the photo.
    const marks = [
      { u_px: 500, v_px: 900, x_mm: 0, y_mm: 0 },
      { u_px: 500, v_px: 400, x_mm: 50, y_mm: 0 },
    ];
    const found = register(marks, BOX);
    expect(found.kind).toBe('similarity');
    expect(found.px_per_mm).toBeCloseTo(10, 12);
    expect(found.misfit_mm).toBeNull();
    const image = project(found.toPicture, { x: 0, y: 20 });
    expect(image.x).toBeCloseTo(300, 9);
    expect(image.y).toBeCloseTo(900, 9);
  });

  it('by three marks: what keeps lines parallel', () => {
    const marks = [
      { u_px: 100, v_px: 800, x_mm: 0, y_mm: 0 },
      { u_px: 900, v_px: 800, x_mm: 40, y_mm: 0 },
      { u_px: 200, v_px: 200, x_mm: 0, y_mm: 30 },
    ];
    const found = register(marks, BOX);
    expect(found.kind).toBe('affine');
    const image = project(found.toPicture, { x: 40, y: 30 });
    expect(image.x).toBeCloseTo(1000, 8);
    expect(image.y).toBeCloseTo(200, 8);
    // A parallelogram of 800 × 600 px for 40 × 30 mm.
    expect(found.px_per_mm).toBeCloseTo(20, 9);
  });

  it('by four and more: as a camera sees a plane', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -0.7, max: 0.7, noNaN: true }),
        fc.double({ min: 150, max: 900, noNaN: true }),
        (turn, distance) => {
          const see = camera(turn, distance, 6000);
          const found = register(
            CORNERS.map(([x, y]) => see(x, y)),
            BOX,
          );
          for (const [x, y] of [
            [50, 30],
            [13, 47],
            [88, 5],
          ] as const) {
            const seen = see(x, y);
            const back = project(found.toView, { x: seen.u_px, y: seen.v_px });
            expect(Math.hypot(back.x - x, back.y - y)).toBeLessThan(1e-6);
          }
          // The middle is `distance` away, where a millimetre upright is focal/distance pixels and
          // one across is by the cosine of the turn less.
          expect(found.px_per_mm).toBeCloseTo((6000 / distance) * Math.sqrt(Math.cos(turn)), 6);
          expect(found.tilt_deg).toBeCloseTo((Math.abs(turn) * 180) / Math.PI, 4);
        },
      ),
    );
  });

  it('what does not fit is told in millimetres', () => {
    const see = camera(0.2, 400, 8000);
    const good = [...CORNERS, [50, 0] as const, [50, 60] as const].map(([x, y]) => see(x, y));
    expect(register(good, BOX).misfit_mm).toBeLessThan(1e-6);
    // The same corners told to be those of a part that is half as high again in its middle.
    const wrong = good.map((mark, at) => (at > 3 ? { ...mark, y_mm: mark.y_mm * 1.3 + 4 } : mark));
    expect(register(wrong, BOX).misfit_mm).toBeGreaterThan(1);
  });

  it.each([
    ['one mark', [[0, 0, 0, 0]], 'two marks at least'],
    [
      'two on one pixel',
      [
        [10, 10, 0, 0],
        [11, 10, 30, 0],
      ],
      'marks 1 and 2 are on one point',
    ],
    [
      'two on one point of the view',
      [
        [10, 10, 5, 5],
        [90, 10, 5, 5],
      ],
      'marks 1 and 2',
    ],
    [
      'three on a line',
      [
        [0, 0, 0, 0],
        [50, 0.4, 5, 0],
        [100, 0, 10, 0],
      ],
      'are on a line',
    ],
    [
      'three of four on a line',
      [
        [0, 0, 0, 0],
        [50, 0, 5, 0],
        [100, 0, 10, 0],
        [50, 90, 5, -9],
      ],
      'all marks but one are on a line',
    ],
    [
      'a mirrored part',
      [
        [0, 100, 10, 0],
        [100, 100, 0, 0],
        [0, 0, 10, 10],
      ],
      'turned inside out',
    ],
    [
      'two corners exchanged',
      [
        [0, 100, 0, 0],
        [100, 100, 10, 0],
        [100, 0, 0, 10],
        [0, 0, 10, 10],
      ],
      'turned inside out',
    ],
  ])('%s are refused with the reason', (_, marks, reason) => {
    const given = marks.map(([u_px = 0, v_px = 0, x_mm = 0, y_mm = 0]) => ({
      u_px,
      v_px,
      x_mm,
      y_mm,
    }));
    expect(() => register(given, BOX)).toThrow(reason);
  });
});

describe('a view is drawn from its photo', () => {
  const see = camera(0.35, 300, 6000);
  const { toPicture, px_per_mm } = register(
    CORNERS.map(([x, y]) => see(x, y)),
    BOX,
  );

  it('a plane of light stays the plane that it is, between pixels too', () => {
    const [width, height] = [40, 30];
    const data = Float64Array.from(
      { length: width * height },
      (_, at) => 3 + 2 * ((at % width) + 0.5) - (Math.floor(at / width) + 0.5),
    );
    // Ten pixels for four millimetres; the view's upper left is the photo's pixel 5.25, 3.5.
    const back = [2.5, 0, 5.25, 0, -2.5, 13.5, 0, 0, 1];
    const out = resampled({ width, height, data }, back, { x: 0, y: 0, w: 4, h: 4 }, 2.5);
    expect([out.width, out.height]).toEqual([10, 10]);
    out.data.forEach((value, at) => {
      const [u, v] = [5.25 + (at % 10) + 0.5, 3.5 + Math.floor(at / 10) + 0.5];
      expect(value).toBeCloseTo(3 + 2 * u - v, 9);
    });
  });

  it('what the photo does not show is not made up', () => {
    const flat = { width: 4, height: 4, data: new Float64Array(16).fill(1) };
    const out = resampled(flat, [1, 0, 0, 0, -1, 4, 0, 0, 1], { x: -1, y: 0, w: 6, h: 1 }, 1);
    expect([...out.data].map(Number.isNaN)).toEqual([true, false, false, false, false, true]);
  });

  it('a wave on a wall has its wavelength however the camera stood', () => {
    // A wall that rings with 2 mm from its left edge on, photographed at an angle of 20°.
    const [width, height] = [4000, 3000];
    const { toView } = register(
      CORNERS.map(([x, y]) => see(x, y)),
      BOX,
    );
    const data = new Float64Array(width * height).fill(0.4);
    for (let v = 1400; v < 1600; v += 1) {
      for (let u = 0; u < width; u += 1) {
        const { x } = project(toView, { x: u + 0.5, y: v + 0.5 });
        const wave = Math.exp(-(x - 40) / 6) * Math.cos((2 * Math.PI * (x - 40)) / 2);
        if (x > 38 && x < 62) data[v * width + u] = 0.4 * (1 + 0.05 * wave);
      }
    }
    const region = { x: 40, y: 28, w: 20, h: 4 };
    const out = resampled({ width, height, data }, toPicture, region, px_per_mm);
    const { values } = measurePhoto('ringing', out, { px_per_mm });
    expect(values.found).toBe(true);
    expect((values.wavelength_mm as { estimate: number }).estimate).toBeCloseTo(2, 2);
  });

  it('to be looked at, a straight edge is where it belongs and the outside is grey', () => {
    const data = new Uint8Array(60 * 40 * 3);
    for (let at = 0; at < 60 * 40; at += 1) data.fill(at % 60 < 30 ? 200 : 50, 3 * at, 3 * at + 3);
    const out = warped(
      { width: 60, height: 40, channels: 3, data },
      [4, 0, 2, 0, -4, 38, 0, 0, 1],
      { x: -1, y: 0, w: 12, h: 8 },
      4,
    );
    expect([out.width, out.height]).toEqual([48, 32]);
    const row = (column: number) => out.data[3 * (10 * 48 + column)];
    expect(row(0)).toBe(0xee);
    // The edge is at 30 px of the photo: 7 mm of the view, 8 mm from the box's left, 32 px.
    expect([row(30), row(33)]).toEqual([200, 50]);
  });
});
