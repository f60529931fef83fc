import { describe, expect, it } from 'vitest';
import { print, smallStudy, TWO_SIDES } from '../../../../tests/support/small-study';
import { evaluate } from '../../answers/results';
import { fullRow, type Study } from '../../model/study';

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
        print('a', 'C', {
          filament_from: 'weighed',
          filament_g: 100,
          energy_wh: 250,
          heat_s: 600,
          print_s: 6600,
        }),
        print('b', 'C', {
          filament_from: 'weighed',
          filament_g: 50,
          energy_wh: 125,
          heat_s: 600,
          print_s: 3000,
          outcome: 'failed',
        }),
        print('c', 'C', {
          filament_from: 'weighed',
          filament_g: 100,
          energy_wh: 225,
          heat_s: 600,
          print_s: 6600,
        }),
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

  it('is of the price as equipped, and of what wears out by the hour', () => {
    const study = workshop();
    study.tables.equipment = [
      fullRow('equipment', {
        machine_id: 'mc',
        item: 'Dry box',
        kind: 'needed',
        price: 60,
        currency: 'EUR',
      }),
      fullRow('equipment', { machine_id: 'mc', item: 'Parcel', kind: 'delivery', price: 40 }),
      fullRow('equipment', { machine_id: 'mc', item: 'Lamp', kind: 'upgrade', price: 1000 }),
      fullRow('equipment', { machine_id: 'mc', item: 'Nozzles', kind: 'spare', price: 30 }),
    ];
    for (const row of study.tables.machines) {
      if (row.machine_id === 'mc') row.hours_before = 10;
    }
    // 5 h · 600/2000; spares 30 over 5 + 10 h, of which these are 5.
    expect(costOf(study)?.machine).toBeCloseTo(1.5, 12);
    expect(costOf(study)?.upkeep).toBeCloseTo(10, 12);
    expect(costOf(study)?.total).toBeCloseTo(12.49 + 0.25 + 10, 12);
    const [box] = study.tables.equipment;
    Object.assign(box ?? {}, { currency: 'SEK' });
    expect(costOf(study)).toMatchObject({ machine: null, total: null });
    expect(costOf(study)?.notes).toContain('machine: Dry box is priced in SEK, the machine in EUR');
  });

  it('stands on the list price where nothing was paid', () => {
    const study = workshop();
    for (const row of study.tables.machines)
      Object.assign(row, { price_paid: null, price_list: 400 });
    expect(costOf(study)?.machine).toBeCloseTo(1, 12);
  });

  it('counts each material of a print at its own price, and says what was not weighed', () => {
    const study = workshop();
    study.tables.materials.push(
      fullRow('materials', { material_id: 'tpu', type: 'TPU', price_per_kg: 50, currency: 'EUR' }),
    );
    study.tables.print_materials = [
      fullRow('print_materials', {
        print_id: 'a',
        slot: 1,
        material_id: 'pla',
        filament_g: 60,
        purge_g: 12,
        changes: 4,
      }),
      fullRow('print_materials', {
        print_id: 'a',
        slot: 2,
        material_id: 'tpu',
        filament_g: 40,
        purge_g: 8,
        changes: 4,
      }),
      fullRow('print_materials', {
        print_id: 'b',
        slot: 1,
        material_id: 'pla',
        filament_g: 50,
        purge_g: 9,
      }),
    ];
    for (const row of study.tables.prints) if (row.print_id === 'a') row.filament_from = 'file';
    // 60 + 50 + 100 g at 20, 40 g at 50.
    expect(costOf(study)?.material).toBeCloseTo(4.2 + 2, 12);
    expect(costOf(study)?.notes).toEqual(['grams that were not weighed: 40 %']);
    const { waste } = evaluate(study);
    expect(waste.C?.not_weighed_share).toBeCloseTo(0.4, 12);
    expect(waste.C?.purge_g_per_change).toBeCloseTo(2.5, 12);
    expect(waste.R).toMatchObject({ not_weighed_share: null, purge_g_per_change: null });
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
