import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  addressesIn,
  addressOf,
  addressOfCriterion,
  addressOfDifference,
  isReportable,
  namedFigure,
  parseAddress,
} from '.';

describe('addresses', () => {
  it('are found among the words of an evidence', () => {
    expect(addressesIn('see accuracy:A:mae_mm and  pairs:B:surface, page 3:')).toEqual([
      'accuracy:A:mae_mm',
      'pairs:B:surface,',
    ]);
    expect(addressesIn(null)).toEqual([]);
  });

  it('of criteria lead to where a section says them, and back', () => {
    for (const key of [
      'accuracy_mm',
      'surface',
      'time_index',
      'success',
      'standstill',
      'waste_share',
      'limit:ring-stack/gap',
      'photo:wall/ringing/flat',
      'cost_index',
      'works:ring/turns',
    ]) {
      const address = addressOfCriterion(key, 'A', 'auklet');
      expect(namedFigure(address), address).toMatchObject({ criterion: key, who: 'A' });
    }
    expect(addressOfCriterion('noise_db', 'A', 'auklet')).toBe('noise:auklet:printing.at_1m_db');
    expect(addressOfCriterion('noise_db', 'A', null)).toBe('criteria:A:noise_db');
    expect(namedFigure('pairs:A:ln_print_s')).toMatchObject({
      criterion: 'time_index',
      isDifference: true,
    });
    expect(addressOfDifference('success', 'A')).toBe('differences:A:success');
    expect(namedFigure('accuracy:A:by_axis.x.mae_mm')).toBeNull();
  });

  it('are read as they are written, whatever their key holds', () => {
    const word = fc.stringMatching(/^[a-z][a-z_]{0,12}$/);
    const who = fc.stringMatching(/^[A-Za-z0-9][A-Za-z0-9._-]{0,20}$/);
    const key = fc.stringMatching(/^[A-Za-z0-9][A-Za-z0-9.:/_ +-]{0,30}$/);
    fc.assert(
      fc.property(word, who, key, (section, one, path) => {
        expect(parseAddress(addressOf(section, one, path))).toEqual({
          section,
          who: one,
          key: path,
        });
      }),
    );
    for (const none of ['', 'accuracy', 'accuracy:A', 'accuracy:A:', ':A:x', 'accuracy::x']) {
      expect(parseAddress(none), none).toBeNull();
    }
  });

  it('of figures on pages can be picked for a report where it has words for them', () => {
    for (const one of [
      'accuracy:A:mae_mm',
      'accuracy:A:by_axis.x.bias_mm',
      'pairs:A:surface',
      'speed:A:by_artefact.stair-block.median_print_s',
      'cost:A:ring.per_good_part',
    ]) {
      expect(isReportable(one), one).toBe(true);
    }
    for (const none of [
      'accuracy:A:by_kind.hole.bias_mm',
      'accuracy:A:by_size.to-10.mae_mm',
      'accuracy',
      '',
      'defects:zones:A.wall/front.mean',
      'panels:front:abilities.A.log_ability',
    ]) {
      expect(isReportable(none), none).toBe(false);
    }
  });
});
