import { describe, expect, it } from 'vitest';
import { ledgerOf, whyNotNow, type LedgerEvent } from './index';

const at = (minute: number): string =>
  `2026-03-02T${String(8 + Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}:00+01:00`;
const event = (minute: number, kind: LedgerEvent['kind']): LedgerEvent => ({
  at: at(minute),
  kind,
});

describe('time ledger of a print', () => {
  const events = [
    event(4, 'heated'),
    event(20, 'paused'),
    event(30, 'resumed'),
    event(50, 'stalled'),
    event(65, 'moved'),
    event(90, 'ended'),
  ];

  it('keeps heating, printing, pauses and stand-still apart, and they add up', () => {
    const ledger = ledgerOf(at(0), events, at(120));
    expect(ledger).toMatchObject({
      state: 'ended',
      heat_s: 4 * 60,
      print_s: (16 + 20 + 25) * 60,
      paused_s: 10 * 60,
      stalled_s: 15 * 60,
    });
  });

  it('counts up to now while the print runs, whatever order the events came in', () => {
    const ledger = ledgerOf(at(0), events.slice(0, 2).reverse(), at(25));
    expect(ledger).toMatchObject({ state: 'paused', heat_s: 240, print_s: 960, paused_s: 300 });
    expect(ledger.since).toBe(at(20));
  });

  it('without a word on when it was hot, heating is within printing', () => {
    expect(ledgerOf(at(0), [], at(10))).toMatchObject({
      state: 'printing',
      print_s: 600,
      heat_s: 0,
      isHeatKnown: false,
    });
  });

  it('goes back to what was interrupted: a pause while heating', () => {
    const ledger = ledgerOf(
      at(0),
      [event(1, 'paused'), event(2, 'resumed'), event(5, 'heated')],
      at(6),
    );
    expect(ledger).toMatchObject({ heat_s: 240, paused_s: 60, print_s: 60 });
  });

  it('something may happen the moment a print begins, and not before', () => {
    expect(whyNotNow(at(0), [], event(0, 'paused'))).toBeNull();
    expect(whyNotNow(at(1), [], event(0, 'paused'))).toBe('is before the print began');
  });

  it('times with other offsets are the same instants', () => {
    const utc = { at: '2026-03-02T07:04:00Z', kind: 'heated' } as const;
    expect(ledgerOf(at(0), [utc], at(5))).toMatchObject({ heat_s: 240, print_s: 60 });
  });

  it('says why an event cannot be', () => {
    const paused = [event(10, 'paused')];
    expect(whyNotNow(at(0), [], event(5, 'resumed'))).toBe(
      'does not fit: the print was printing then',
    );
    expect(whyNotNow(at(0), paused, event(12, 'resumed'))).toBeNull();
    expect(whyNotNow(at(0), paused, event(12, 'paused'))).toContain('was paused then');
    expect(whyNotNow(at(5), [], event(2, 'paused'))).toBe('is before the print began');
  });
});
