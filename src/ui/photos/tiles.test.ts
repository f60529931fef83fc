// @vitest-environment happy-dom
import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { drawPhoto, hasRectification, levelOf, Tiles, type RectifiedPhoto } from './tiles';

/** Pictures that are on their way until a test says that they are there. */
let asked: {
  src: string;
  onload: (() => void) | null;
  naturalWidth: number;
  naturalHeight: number;
}[];

beforeEach(() => {
  asked = [];
  vi.stubGlobal(
    'Image',
    class {
      onload: (() => void) | null = null;
      naturalWidth = 256;
      naturalHeight = 256;
      src = '';
      constructor() {
        asked.push(this);
      }
    },
  );
});
afterEach(() => vi.unstubAllGlobals());

/** A view of 100 × 50 mm at 20 px a millimetre: 2000 × 1000 px, halved three times. */
const PHOTO = {
  path: 'photos/a.jpg',
  version: 'v',
  isRectified: true,
  laid: {
    edition: 'e',
    width: 2000,
    height: 1000,
    box: { x: -50, y: 0, w: 100, h: 50 },
    levels: 4,
    tile: 256,
  },
} as unknown as RectifiedPhoto;

const placeOf = (address: string) => {
  const query = new URL(address, 'http://x').searchParams;
  return ['level', 'column', 'row'].map((name) => Number(query.get(name)));
};

/** What is drawn of the photo: where each tile stands on a screen. */
function drawn(
  tiles: Tiles,
  place: { x: number; y: number; scale: number },
  [width, height] = [800, 600],
) {
  const found: { image: { src: string }; box: number[] }[] = [];
  const context = {
    drawImage: (image: { src: string }, ...box: number[]) => found.push({ image, box }),
  };
  drawPhoto(
    { context: context as never, width: width ?? 0, height: height ?? 0 },
    tiles,
    'u',
    PHOTO,
    place,
  );
  return found;
}

describe('the level of a photo that is seen', () => {
  it('has a pixel for about each of the screen, and is one that there is', () => {
    expect([20, 10, 5, 2.5].map((scale) => levelOf(PHOTO, scale))).toEqual([0, 1, 2, 3]);
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 500, noNaN: true }), (scale) => {
        const level = levelOf(PHOTO, scale);
        expect(level).toBeGreaterThanOrEqual(0);
        expect(level).toBeLessThanOrEqual(3);
        // No more than 2.5 pixels of a photo in one of the screen, but for the coarsest.
        if (level < 3) expect(20 / 2 ** level / scale).toBeLessThan(2.5);
      }),
    );
  });

  it('is of photos that are laid flat as their marks say', () => {
    expect(hasRectification(PHOTO)).toBe(true);
    expect(hasRectification({ ...PHOTO, isRectified: false })).toBe(false);
    expect(hasRectification({ ...PHOTO, laid: null } as never)).toBe(false);
  });
});

describe('the tiles of a photo', () => {
  it('are asked for where they are seen: the level that is wanted, and the coarsest', () => {
    // 800 × 600 px at 20 px a millimetre about the middle: 40 × 30 mm.
    drawn(new Tiles(() => undefined), { x: 0, y: 25, scale: 20 });
    const places = asked.map(({ src }) => placeOf(src));
    expect(new Set(places.map(([level]) => level))).toEqual(new Set([0, 3]));
    const [columns, rows] = [1, 2].map((at) => [
      ...new Set(places.filter(([level]) => level === 0).map((one) => one[at])),
    ]);
    // From 600 to 1400 px across, and from 200 to 800 px down, in tiles of 256.
    expect(columns).toEqual([2, 3, 4, 5]);
    expect(rows).toEqual([0, 1, 2, 3]);
  });

  it('are drawn once they are there, at their place; a coarser one stands in until then', () => {
    const heard = vi.fn();
    const tiles = new Tiles(heard);
    const place = { x: 0, y: 25, scale: 20 };
    expect(drawn(tiles, place)).toEqual([]);
    const coarse = asked.find(({ src }) => placeOf(src)[0] === 3);
    coarse?.onload?.();
    expect(heard).toHaveBeenCalledTimes(1);
    expect(drawn(tiles, place).map(({ image }) => placeOf(image.src)[0])).toEqual([3]);
    const fine = asked.find(({ src }) => placeOf(src).join() === '0,2,1');
    fine?.onload?.();
    const [under, over] = drawn(tiles, place);
    expect(under?.image.src).toBe(coarse?.src);
    // Its left edge is 512 px from the photo's, which is 600 px left of the screen's; 256 px down, less 200.
    expect(over?.box.map((one) => Math.round(one))).toEqual([-88, 56, 257, 257]);
  });

  it('are asked for once, and forgotten where many others were wanted since', () => {
    const tiles = new Tiles(() => undefined);
    for (let at = 0; at < 200; at += 1) tiles.get(`t${at}`);
    tiles.get('t0');
    tiles.get('t200');
    expect(asked).toHaveLength(201);
    // The first was wanted again meanwhile; the second is the one used longest ago.
    tiles.get('t0');
    expect(asked).toHaveLength(201);
    tiles.get('t1');
    expect(asked).toHaveLength(202);
    expect(tiles.get('not wanted', false)).toBeNull();
    expect(asked).toHaveLength(202);
  });

  it('beside the photo are none', () => {
    drawn(new Tiles(() => undefined), { x: 400, y: 25, scale: 20 });
    expect(asked).toEqual([]);
  });
});

describe('the level that is drawn', () => {
  const photo = (levels: number): RectifiedPhoto =>
    ({
      laid: { width: 1000, box: { x: 0, y: 0, w: 100, h: 50 }, levels },
    }) as unknown as RectifiedPhoto;

  it.each([
    // Ten pixels a millimetre are there: as many are wanted, half, a quarter.
    [10, 0],
    [20, 0],
    [5, 1],
    [2.5, 2],
    // A little coarser than the screen is sharp enough: up to a fifth.
    [6.2, 0],
    [6.1, 1],
    [0.01, 3],
  ])('for %s pixels a millimetre is %i', (scale, level) => {
    expect(levelOf(photo(4), scale)).toBe(level);
  });
});
