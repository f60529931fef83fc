import { describe, expect, it } from 'vitest';
import { DEFECTS } from '../../model/study';
import { defectLook } from './defect-look';

const [WIDTH, HEIGHT] = [96, 72];

function drawn(defect: (typeof DEFECTS)[number], grade: number): Float64Array {
  const look = defectLook(defect, grade);
  return Float64Array.from({ length: WIDTH * HEIGHT }, (_, at) =>
    look(((at % WIDTH) + 0.5) / WIDTH, (Math.floor(at / WIDTH) + 0.5) / HEIGHT),
  );
}

const apart = (a: Float64Array, b: Float64Array): number =>
  Math.sqrt(a.reduce((sum, value, at) => sum + (value - (b[at] ?? 0)) ** 2, 0) / a.length);

describe('grade cards', () => {
  it.each(DEFECTS)('%s is more by every grade, and nothing at none', (defect) => {
    const clean = drawn(defect, 0);
    const seen = [1, 2, 3, 4].map((grade) => apart(drawn(defect, grade), clean));
    expect(seen[0]).toBeGreaterThan(0.001);
    for (let grade = 1; grade < seen.length; grade += 1) {
      expect(seen[grade]).toBeGreaterThan(seen[grade - 1] ?? Infinity);
    }
  });

  it('is the same each time, and light throughout', () => {
    for (const defect of DEFECTS) {
      const once = drawn(defect, 3);
      expect(drawn(defect, 3)).toEqual(once);
      expect(once.every((value) => value >= 0 && value <= 1)).toBe(true);
    }
  });

  it('no two defects look alike where they are severe', () => {
    const all = DEFECTS.map((defect) => drawn(defect, 4));
    all.forEach((one, at) => {
      for (const other of all.slice(0, at)) expect(apart(one, other)).toBeGreaterThan(0.01);
    });
  });
});
