import { fullRow, type Row, type Tables } from '../../src/core/study';

const step = (
  machine_id: string,
  number: number,
  kind: Row<'setup_steps'>['kind'],
  what: string,
  [minutes, hands_s, snag]: readonly [number, number, number],
  more: Partial<Row<'setup_steps'>> = {},
): Row<'setup_steps'> => ({
  ...{ machine_id, step: number, kind, what, minutes, hands_s, snag, help: null, at: null },
  ...{ note: null, ...more },
});

const check = (
  machine_id: string,
  what: Row<'checks'>['what'],
  value: number,
  unit: string,
  upper: number,
  method: string,
): Row<'checks'> => ({
  ...{ check_id: `${machine_id}-${what}`, machine_id, what, value, unit, lower: null, upper },
  ...{ method, at: '2026-03-01T11:00:00+01:00', note: null },
});

const heat = (machine_id: string, seconds: readonly number[]): Row<'heat_ups'>[] =>
  seconds.map((each, at) => ({
    ...{ machine_id, what: 'bed', from_c: 21, to_c: 60, seconds: each, ambient_c: 21 },
    at: `2026-03-01T1${at + 2}:00:00+01:00`,
  }));

let trialsMade = 0;
const trial = (
  machine_id: string,
  feature: Row<'trials'>['feature'],
  [provoked, expected]: readonly [string, string],
  outcome: Row<'trials'>['outcome'],
  more: Partial<Row<'trials'>> = {},
): Row<'trials'> => {
  trialsMade += 1;
  return {
    ...{ trial_id: `trial-${String(trialsMade).padStart(2, '0')}`, machine_id, feature },
    ...{ provoked, expected, observed: null, outcome, delay_s: null, waste_g: null },
    ...{ at: '2026-03-08T15:00:00+01:00', operator: 'KM', note: null, ...more },
  };
};

const remark = (
  machine_id: string,
  aspect: Row<'marks'>['aspect'],
  sign: Row<'marks'>['sign'],
  value: number | null,
  text: string,
): Row<'marks'> => ({
  ...{ machine_id, aspect, sign, value, text, evidence: null, operator: 'KM' },
  at: '2026-03-14T18:00:00+01:00',
});

const feature = (
  machine_id: string,
  name: string,
  state: Row<'features'>['state'],
  price: number | null = null,
): Row<'features'> => ({ machine_id, feature: name, state, price, note: null });

const claim = (
  claim_id: string,
  machine_id: string,
  statement: string,
  [quantity, unit, value]: readonly [string | null, string | null, number | null],
  finding: Row<'claims'>['finding'],
  evidence: string | null,
): Row<'claims'> =>
  fullRow('claims', {
    ...{ claim_id, machine_id, statement, quantity, unit, value, finding, evidence },
  });

type Dossiers = Pick<
  Tables,
  'setup_steps' | 'checks' | 'heat_ups' | 'trials' | 'marks' | 'features' | 'enquiries' | 'borrowed'
> & { claims: Row<'claims'>[] };

const RUNOUT = ['filament cut before the machine', 'stops and asks for a spool'] as const;
const POWER = ['plug pulled at half height', 'goes on where it stood'] as const;
const STRANDS = ['part knocked off the plate', 'stops within two minutes'] as const;
const WATCH = ['a strip of tape on the plate', 'stops after the first layer'] as const;
const HEATER = ['sensor unplugged while heating', 'switches the heater off'] as const;
const HAND = ['a soft block in the way', 'stops'] as const;

/** What was found out about the machines apart from the parts they print. */
export function dossiers(): Dossiers {
  trialsMade = 0;
  return {
    setup_steps: [
      step('gannet', 1, 'unpack', 'unpack, lock screws out', [4, 200, 0]),
      step('gannet', 2, 'connect', 'connect', [6.5, 390, 2], {
        ...{ help: 'video', note: 'asked for a region code that the sheet does not name' },
      }),
      step('gannet', 3, 'calibrate', 'calibrate, 4 steps', [9, 100, 0]),
      step('gannet', 4, 'first-print', 'first print', [2.5, 150, 0]),
      step('auklet', 1, 'unpack', 'unpack', [6, 360, 0]),
      step('auklet', 2, 'assemble', 'mast, spool arm, screen', [24, 1440, 1], { help: 'manual' }),
      step('auklet', 3, 'align', 'belts and wheels', [11, 660, 2], { help: 'community' }),
      step('auklet', 4, 'level', 'level by paper', [14, 840, 1]),
      step('auklet', 5, 'first-print', 'first print', [3, 90, 0]),
      step('fulmar', 1, 'assemble', 'frame of two halves', [58, 3480, 3], { help: 'maker' }),
      step('fulmar', 2, 'level', 'level, twelve points', [22, 300, 2]),
    ],
    checks: [
      check('gannet', 'rails-parallel', 0.11, 'mm', 0.4, 'dial along the rail'),
      check('gannet', 'plate-flatness', 0.24, 'mm', 0.2, 'highest less lowest of 49 points'),
      check('gannet', 'earth-bond', 0.08, 'Ω', 0.1, 'plug to frame'),
      check('auklet', 'plate-flatness', 0.15, 'mm', 0.2, 'highest less lowest of 49 points'),
      check('auklet', 'wheel-play', 0.02, 'mm', 0.05, 'dial at the nozzle'),
      check('fulmar', 'plate-flatness', 0.42, 'mm', 0.2, 'highest less lowest of 49 points'),
    ],
    heat_ups: [
      ...heat('gannet', [104, 108, 112]),
      ...heat('auklet', [176, 181]),
      ...heat('fulmar', [352, 371]),
    ],
    trials: [
      ...[4, 3, 5].map((delay_s) =>
        trial('gannet', 'runout-sensor', RUNOUT, 'as-promised', {
          delay_s,
          observed: `stopped after ${delay_s} s`,
        }),
      ),
      ...[0, 1].map(() => trial('gannet', 'power-loss', POWER, 'as-promised')),
      trial('gannet', 'power-loss', POWER, 'partly', { observed: 'went on, one layer shifted' }),
      ...[540, 560].map((delay_s) =>
        trial('gannet', 'failure-watch', STRANDS, 'late', {
          delay_s,
          waste_g: 14,
          observed: 'stopped after nine minutes',
        }),
      ),
      ...[0, 1].map(() =>
        trial('gannet', 'failure-watch', STRANDS, 'nothing', { observed: 'went on' }),
      ),
      ...[0, 1].map(() => trial('gannet', 'first-layer-watch', WATCH, 'as-promised')),
      trial('gannet', 'collision', HAND, 'nothing', { observed: 'went on, 3 mm off' }),
      ...[2, 2].map((delay_s) =>
        trial('gannet', 'thermal-protection', HEATER, 'as-promised', {
          delay_s,
          observed: 'heater off in 2 s',
        }),
      ),
      trial('auklet', 'power-loss', POWER, 'as-promised'),
      trial('auklet', 'power-loss', POWER, 'nothing', { observed: 'began anew' }),
      trial('fulmar', 'runout-sensor', RUNOUT, 'false-alarm', {
        observed: 'stopped with filament in it',
      }),
    ],
    marks: [
      remark('gannet', 'handling', 'plus', 9, 'plate comes off without tools'),
      remark('gannet', 'parts', 'plus', 8, 'parts on stock with the maker, 2 days'),
      remark('gannet', 'access', 'minus', 3, 'spool behind the machine'),
      remark('gannet', 'noise', 'minus', null, 'loud in the same room'),
      remark('auklet', 'documents', 'plus', 8, 'every screw is drawn'),
      remark('auklet', 'screen', 'minus', 4, 'menus four deep'),
      remark('fulmar', 'space', 'minus', 2, 'wants a table of its own'),
    ],
    features: [
      feature('gannet', 'enclosure', 'has'),
      feature('gannet', 'runout sensor', 'has'),
      feature('gannet', 'camera', 'has'),
      feature('gannet', 'second spool', 'option', 189),
      feature('gannet', 'works without a network', 'has'),
      feature('auklet', 'enclosure', 'option', 79),
      feature('auklet', 'runout sensor', 'lacks'),
      feature('auklet', 'camera', 'lacks'),
      feature('auklet', 'works without a network', 'has'),
      feature('petrel', 'enclosure', 'lacks'),
      feature('petrel', 'runout sensor', 'option', 19),
      feature('fulmar', 'runout sensor', 'has'),
      feature('fulmar', 'enclosure', 'lacks'),
    ],
    enquiries: [
      {
        ...{ enquiry_id: 'region-code', machine_id: 'gannet', at: '2026-03-02T10:00:00+01:00' },
        ...{ matter: 'Where is the region code that the first start asks for?', incident_id: null },
        ...{
          answered_at: '2026-03-03T16:00:00+01:00',
          outcome: 'answered',
          firmware: null,
          note: null,
        },
      },
      {
        ...{ enquiry_id: 'watch', machine_id: 'gannet', at: '2026-03-09T09:00:00+01:00' },
        ...{
          matter: 'The camera sees loose strands after nine minutes, or not at all.',
          incident_id: null,
        },
        ...{ answered_at: '2026-03-12T11:00:00+01:00', outcome: 'promised', firmware: null },
        note: 'in the next firmware',
      },
      {
        ...{ enquiry_id: 'bed-stops', machine_id: 'fulmar', at: '2026-03-02T18:00:00+01:00' },
        ...{ matter: 'The bed stopped at 48 °C.', incident_id: 'I-02', answered_at: null },
        ...{ outcome: 'open', firmware: null, note: null },
      },
    ],
    borrowed: [
      {
        ...{ borrowed_id: 'club', machine_id: 'gannet', source: 'another club’s bench, by letter' },
        ...{
          address: null,
          at: '2026-02-20T12:00:00+01:00',
          statement: 'belts wanted tightening after 200 h',
        },
        ...{ quantity: null, value: 200, unit: 'h', trust: 2 },
      },
    ],
    claims: [
      claim(
        'calibration-b',
        'gannet',
        'No calibration needed',
        [null, null, null],
        'confirmed',
        '5 of 5 first layers',
      ),
      claim(
        'quiet-b',
        'gannet',
        'Quiet: 50 dB',
        ['noise', 'dB(A)', 50],
        'refuted',
        '56.2 dB(A) at 1 m, printing',
      ),
    ],
  };
}
