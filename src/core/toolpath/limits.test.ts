import { describe, expect, it } from 'vitest';
import { Limits } from './limits';

describe('limits of motion', () => {
  it('are the defaults where the machine says nothing, and say so', () => {
    expect(new Limits({}).describe()).toEqual({
      max_speed_mm_s: {
        x: { value: 300, source: 'default' },
        y: { value: 300, source: 'default' },
        z: { value: 12, source: 'default' },
        e: { value: 50, source: 'default' },
      },
      max_accel_mm_s2: {
        x: { value: 3000, source: 'default' },
        y: { value: 3000, source: 'default' },
        z: { value: 200, source: 'default' },
        e: { value: 5000, source: 'default' },
      },
      accel_print: { value: 1500, source: 'default' },
      accel_travel: { value: 1500, source: 'default' },
      accel_retract: { value: 1500, source: 'default' },
      junction_deviation_mm: { value: 0.02, source: 'default' },
    });
  });

  it('a file may lower what the machine can, and raise it to its ceiling only', () => {
    const limits = new Limits({ max_speed_mm_s: { x: 200 }, accel_print: 1000 });
    expect(limits.speed.x).toEqual({ value: 200, source: 'machine' });
    limits.setSpeed('x', 150);
    expect(limits.speed.x).toEqual({ value: 150, source: 'file' });
    limits.setSpeed('x', 500);
    expect(limits.speed.x).toEqual({ value: 200, source: 'machine' });
    limits.setMove('print', 4000);
    expect(limits.move.print).toEqual({ value: 1000, source: 'machine' });
    limits.setMove('travel', 4000);
    expect(limits.move.travel).toEqual({ value: 4000, source: 'file' });
  });

  it('an axis without a ceiling goes as the file says', () => {
    const limits = new Limits({ max_accel_mm_s2: { y: 500 } });
    limits.setAcceleration('x', 9000);
    limits.setAcceleration('y', 9000);
    expect(limits.acceleration.x).toEqual({ value: 9000, source: 'file' });
    expect(limits.acceleration.y).toEqual({ value: 500, source: 'machine' });
  });

  it.each([0, -5, Number.NaN, Number.POSITIVE_INFINITY])('%s is no limit', (value) => {
    const limits = new Limits({});
    limits.setSpeed('x', value);
    limits.setAcceleration('x', value);
    limits.setMove('retract', value);
    expect(limits.describe()).toEqual(new Limits({}).describe());
  });

  it('jerk and junction deviation take each other’s place', () => {
    const limits = new Limits({ jerk_mm_s: { x: 8 } });
    expect(limits.describe()).toHaveProperty('jerk_mm_s', { x: { value: 8, source: 'machine' } });
    expect(limits.describe()).not.toHaveProperty('junction_deviation_mm');
    limits.setJerk('y', 6);
    expect(limits.jerk).toEqual({
      x: { value: 8, source: 'machine' },
      y: { value: 6, source: 'file' },
    });
    limits.setJunctionDeviation(0.05);
    expect(limits.describe()).not.toHaveProperty('jerk_mm_s');
    expect(limits.describe()).toHaveProperty('junction_deviation_mm', {
      value: 0.05,
      source: 'file',
    });
  });

  it('what was described does not move when the limits do', () => {
    const limits = new Limits({});
    const before = limits.describe();
    limits.setSpeed('x', 20);
    limits.setMove('print', 20);
    expect(before).toEqual(new Limits({}).describe());
  });
});
