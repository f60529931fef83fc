import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../tests/support/small-study';
import { evaluate } from '../evaluate';
import type { Study } from '../study';

const PARAMETERS = { currency: 'EUR', tariff_per_kwh: 0.4, wage_per_h: 30, lifetime_h: 2000 };

/** Three attempts of C: two copies, a failure that took a hand, one whose parts are not listed. */
function workshop(cost: Study['meta']['cost'] = PARAMETERS): Study {
  return smallStudy(
    {
      ...TWO_SIDES,
      machines: [
        { machine_id: 'mr', name: 'Reference machine' },
        { machine_id: 'mc', name: 'Other machine', price_paid: 500, currency: 'EUR' },
      ],
      materials: [{ material_id: 'pla', type: 'PLA', price_per_kg: 20, currency: 'EUR' }],
      prints: [
        print('a', 'C', { filament_g: 100, energy_wh: 250, heat_s: 600, print_s: 6600 }),
        print('b', 'C', {
          filament_g: 50,
          energy_wh: 125,
          heat_s: 600,
          print_s: 3000,
          outcome: 'failed',
        }),
        print('c', 'C', { filament_g: 100, energy_wh: 225, heat_s: 600, print_s: 6600 }),
      ],
      specimens: [
        { specimen_id: 's1', print_id: 'a' },
        { specimen_id: 's2', print_id: 'a' },
      ],
      incidents: [
        {
          incident_id: 'i',
          machine_id: 'mc',
          print_id: 'b',
          mode: 'warped',
          cause: 'profile',
          hands_s: 720,
        },
      ],
    },
    { cost },
  );
}

const costOf = (study: Study) => evaluate(study).cost.C?.part;

describe('cost of a good part', () => {
  it('counts failed attempts, and what is not listed as one part', () => {
    // 250 g · 20/kg = 5; 0.6 kWh · 0.4 = 0.24; 5 h · 500/2000 = 1.25; 0.2 h · 30 = 6.
    const cost = costOf(workshop());
    expect(cost).toMatchObject({ attempts: 3, good_copies: 3 });
    expect(cost?.material).toBeCloseTo(5, 12);
    expect(cost?.energy).toBeCloseTo(0.24, 12);
    expect(cost?.machine).toBeCloseTo(1.25, 12);
    expect(cost?.hands).toBeCloseTo(6, 12);
    expect(cost?.total).toBeCloseTo(12.49, 12);
    expect(cost?.per_good_part).toBeCloseTo(12.49 / 3, 12);
    expect(cost?.notes).toEqual([]);
  });

  it('its interval holds the estimate, and is the same for the same seed', () => {
    const one = costOf(workshop());
    expect(one?.per_good_part_low).toBeLessThan(one?.per_good_part ?? 0);
    // Drawing only the failure has no good part: 1 in 27, over 2.5 %, so there is no upper end.
    expect(one?.per_good_part_high).toBeNull();
    expect(costOf(workshop())).toEqual(one);
  });

  it('a missing parameter leaves its part and the totals unknown', () => {
    const cost = costOf(workshop({ ...PARAMETERS, wage_per_h: null }));
    expect(cost).toMatchObject({ hands: null, total: null, per_good_part: null });
    expect(cost?.machine).toBeCloseTo(1.25, 12);
    expect(cost?.notes).toContain('hands: wage not known');
  });

  it('a part priced in another currency is left out and told', () => {
    const cost = costOf(workshop({ ...PARAMETERS, currency: 'SEK' }));
    expect(cost).toMatchObject({ material: null, machine: null, total: null });
    expect(cost?.energy).toBeCloseTo(0.24, 12);
    expect(cost?.notes).toContain('material: priced in EUR, the study reckons in SEK');
  });

  it('without a good part there is no cost of one', () => {
    const study = workshop();
    for (const row of study.tables.prints) row.outcome = 'failed';
    expect(costOf(study)).toMatchObject({ good_copies: 0, per_good_part: null });
    expect(costOf(study)?.total).toBeCloseTo(12.49, 12);
  });

  it('masses and times that are not known count nothing, and it is told', () => {
    const study = workshop();
    for (const row of study.tables.prints) {
      if (row.print_id === 'c') Object.assign(row, { filament_g: null, print_s: null });
    }
    const cost = costOf(study);
    expect(cost?.material).toBeCloseTo(3, 12);
    expect(cost?.notes).toEqual(['filament not known: 1', 'hours not known: 1']);
  });
});
