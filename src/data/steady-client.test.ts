import pg from 'pg';
import { describe, expect, it } from 'vitest';
import { SteadyClient, steadyDriver } from './steady-client';

describe('a steady connection', () => {
  it('is not ended by an error that nobody waits for, as a plain one is', () => {
    const error = new Error('terminating connection due to administrator command');
    expect(() => new pg.Client().emit('error', error)).toThrow('administrator command');
    expect(() => new SteadyClient().emit('error', error)).not.toThrow();
  });

  it('is what the driver makes, with all else that it has', () => {
    const driver = steadyDriver as typeof pg;
    expect(new driver.Client()).toBeInstanceOf(SteadyClient);
    expect(driver.types).toBe(pg.types);
    expect(driver.Pool).toBe(pg.Pool);
  });
});
