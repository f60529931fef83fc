import { fullRow, type Row, type Tables } from '../../src/core/model/study';

const step = (
  machine_id: string,
  number: number,
  kind: Row<'setup_steps'>['kind'],
  what: string,
  [minutes, hands_s, snag]: readonly [number, number, number],
  more: Partial<Row<'setup_steps'>> = {},
): Row<'setup_steps'> => ({
  machine_id,
  step: number,
  kind,
  what,
  minutes,
  hands_s,
  snag,
  help: null,
  at: null,
  note: null,
  ...more,
});

const check = (
  machine_id: string,
  what: Row<'checks'>['what'],
  value: number,
  unit: string,
  upper: number,
  method: string,
): Row<'checks'> => ({
  check_id: `${machine_id}-${what}`,
  machine_id,
  what,
  value,
  unit,
  lower: null,
  upper,
  method,
  at: '2026-03-01T11:00:00+01:00',
  note: null,
});

const heat = (machine_id: string, seconds: readonly number[]): Row<'heat_ups'>[] =>
  seconds.map((each, at) => ({
    machine_id,
    what: 'bed',
    from_c: 18,
    to_c: 55,
    seconds: each,
    ambient_c: 18,
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
    trial_id: `trial-${String(trialsMade).padStart(2, '0')}`,
    machine_id,
    feature,
    provoked,
    expected,
    observed: null,
    outcome,
    delay_s: null,
    waste_g: null,
    at: '2026-03-08T15:00:00+01:00',
    operator: 'KM',
    note: null,
    ...more,
  };
};

const remark = (
  machine_id: string,
  aspect: Row<'marks'>['aspect'],
  sign: Row<'marks'>['sign'],
  value: number | null,
  text: string,
): Row<'marks'> => ({
  machine_id,
  aspect,
  sign,
  value,
  text,
  evidence: null,
  operator: 'KM',
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
    claim_id,
    machine_id,
    statement,
    quantity,
    unit,
    value,
    finding,
    evidence,
  });

type Dossiers = Pick<
  Tables,
  'setup_steps' | 'checks' | 'heat_ups' | 'trials' | 'marks' | 'features' | 'enquiries' | 'borrowed'
> & { claims: Row<'claims'>[] };

const RUNOUT = ['spool let run out', 'stops and asks for a spool'] as const;
const POWER = ['mains switched off at a third', 'goes on where it stood'] as const;
const HEATER = ['heater block cooled by a fan while heating', 'switches the heater off'] as const;
const COIN = ['a coin under the plate', 'levels it out, or refuses to print'] as const;
const CARD = ['a folded card in the way', 'stops'] as const;

/** What was found out about the machines apart from the parts they print. */
export function dossiers(): Dossiers {
  trialsMade = 0;
  return { ...settingUp(), ...trialsOf(), ...impressions(), ...promisesOfMakers() };
}

/** How the machines were set up, and what was found as they came. */
function settingUp(): Pick<Dossiers, 'setup_steps' | 'checks' | 'heat_ups'> {
  return {
    setup_steps: [
      step('gannet', 1, 'unpack', 'unpack, two straps off', [5, 260, 0]),
      step('gannet', 2, 'connect', 'connect', [7.5, 430, 2], {
        help: 'video',
        note: 'asked twice for the date, each time in another order',
      }),
      step('gannet', 3, 'calibrate', 'calibrate, 3 steps', [11, 75, 0]),
      step('gannet', 4, 'first-print', 'first print', [3.5, 130, 0]),
      step('auklet', 1, 'unpack', 'unpack', [8, 460, 0]),
      step('auklet', 2, 'assemble', 'portal, spool arm, screen', [19, 1120, 1], { help: 'manual' }),
      step('auklet', 3, 'align', 'belts and wheels', [13, 740, 2], { help: 'community' }),
      step('auklet', 4, 'level', 'level with a feeler gauge', [17, 980, 1]),
      step('auklet', 5, 'first-print', 'first print', [4, 95, 0]),
      step('petrel', 1, 'unpack', 'unpack, foam out of the gantry', [9, 510, 1]),
      step('petrel', 2, 'calibrate', 'calibrate, 5 steps', [16, 140, 0]),
      step('fulmar', 1, 'assemble', 'legs, gantry, plate', [47, 2710, 3], { help: 'maker' }),
      step('fulmar', 2, 'level', 'level, seven points', [26, 340, 2]),
    ],
    checks: [
      check('gannet', 'rails-parallel', 0.13, 'mm', 0.35, 'dial along the rail'),
      check('gannet', 'plate-flatness', 0.27, 'mm', 0.22, 'highest less lowest of 36 points'),
      check('gannet', 'earth-bond', 0.07, 'Ω', 0.1, 'plug to frame'),
      check('auklet', 'plate-flatness', 0.16, 'mm', 0.22, 'highest less lowest of 36 points'),
      check('auklet', 'wheel-play', 0.03, 'mm', 0.06, 'dial at the nozzle'),
      check('petrel', 'frame-square', 0.34, 'mm', 0.5, 'two diagonals of the gantry'),
      check('fulmar', 'plate-flatness', 0.47, 'mm', 0.22, 'highest less lowest of 36 points'),
    ],
    heat_ups: [
      ...heat('gannet', [83, 86, 88]),
      ...heat('auklet', [141, 146]),
      ...heat('petrel', [118, 121]),
      ...heat('fulmar', [297, 311]),
    ],
  };
}

/** What was tried on purpose. */
function trialsOf(): Pick<Dossiers, 'trials'> {
  return {
    trials: [
      ...[4, 3, 5].map((delay_s) =>
        trial('gannet', 'runout-sensor', RUNOUT, 'as-promised', {
          delay_s,
          observed: `stopped after ${delay_s} s`,
        }),
      ),
      ...[0, 1].map(() => trial('gannet', 'power-loss', POWER, 'as-promised')),
      trial('gannet', 'power-loss', POWER, 'partly', { observed: 'went on, one layer shifted' }),
      ...[21, 24].map((delay_s) =>
        trial('gannet', 'thermal-protection', HEATER, 'as-promised', {
          delay_s,
          observed: `heater off in ${delay_s} s`,
        }),
      ),
      trial('gannet', 'levelling', COIN, 'as-promised', { observed: 'refused to print' }),
      trial('gannet', 'levelling', COIN, 'partly', { observed: 'printed, thin at the coin' }),
      trial('gannet', 'collision', CARD, 'nothing', { observed: 'dragged the card along' }),
      trial('auklet', 'power-loss', POWER, 'as-promised'),
      trial('auklet', 'power-loss', POWER, 'nothing', { observed: 'began anew' }),
      ...[135, 148].map((delay_s) =>
        trial('auklet', 'thermal-protection', HEATER, 'late', {
          delay_s,
          observed: `heater off in ${delay_s} s`,
        }),
      ),
      trial('auklet', 'levelling', COIN, 'nothing', { observed: 'nozzle ran into the plate' }),
      trial('petrel', 'thermal-protection', HEATER, 'as-promised', {
        delay_s: 33,
        observed: 'heater off in 33 s',
      }),
      ...[0, 1].map(() =>
        trial('petrel', 'collision', CARD, 'as-promised', { observed: 'stopped at the card' }),
      ),
      trial('fulmar', 'runout-sensor', RUNOUT, 'false-alarm', {
        observed: 'stopped with filament in it',
      }),
      trial('fulmar', 'levelling', COIN, 'late', {
        delay_s: 190,
        waste_g: 3,
        observed: 'stopped in the second layer',
      }),
    ],
  };
}

/** Remarks and features. */
function impressions(): Pick<Dossiers, 'marks' | 'features'> {
  return {
    marks: [
      remark('gannet', 'handling', 'plus', 8, 'panels come off with one key'),
      remark('gannet', 'parts', 'plus', 7, 'parts on stock with the maker, 3 days'),
      remark('gannet', 'access', 'minus', 3, 'lid must be lifted to load'),
      remark('gannet', 'noise', 'minus', null, 'loud in the same room'),
      remark('auklet', 'access', 'plus', 8, 'filament path can be reached with one hand'),
      remark('auklet', 'documents', 'plus', 9, 'every screw is drawn'),
      remark('auklet', 'screen', 'minus', 4, 'menus four deep'),
      remark('petrel', 'looks', 'plus', null, 'one sees the part from all sides'),
      remark('fulmar', 'noise', 'minus', 3, 'fan bearing sings at rest'),
      remark('fulmar', 'space', 'minus', 2, 'wants a table of its own'),
    ],
    features: [
      feature('gannet', 'enclosure', 'has'),
      feature('gannet', 'runout sensor', 'has'),
      feature('gannet', 'camera', 'has'),
      feature('gannet', 'second spool', 'option', 163),
      feature('gannet', 'works without a network', 'has'),
      feature('auklet', 'enclosure', 'option', 66),
      feature('auklet', 'runout sensor', 'lacks'),
      feature('auklet', 'camera', 'lacks'),
      feature('auklet', 'works without a network', 'has'),
      feature('petrel', 'enclosure', 'lacks'),
      feature('petrel', 'runout sensor', 'option', 23),
      feature('fulmar', 'runout sensor', 'has'),
      feature('fulmar', 'enclosure', 'lacks'),
    ],
  };
}

/** What was asked of the makers, what was lent, and what they claim. */
function promisesOfMakers(): Pick<Dossiers, 'enquiries' | 'borrowed' | 'claims'> {
  return {
    enquiries: [
      {
        enquiry_id: 'door-contact',
        machine_id: 'gannet',
        at: '2026-03-14T09:10:00+01:00',
        matter: 'The door contact says open with the door shut: is there another one?',
        incident_id: 'I-09',
        answered_at: '2026-03-16T16:00:00+01:00',
        outcome: 'answered',
        firmware: null,
        note: null,
      },
      {
        enquiry_id: 'coin',
        machine_id: 'gannet',
        at: '2026-03-09T09:00:00+01:00',
        matter: 'A coin under the plate is seen once and once not.',
        incident_id: null,
        answered_at: '2026-03-12T11:00:00+01:00',
        outcome: 'promised',
        firmware: null,
        note: 'in the next firmware',
      },
      {
        enquiry_id: 'thermometer',
        machine_id: 'fulmar',
        at: '2026-03-02T18:00:00+01:00',
        matter: 'The nozzle thermometer jumped by 30 °C.',
        incident_id: 'I-02',
        answered_at: null,
        outcome: 'open',
        firmware: null,
        note: null,
      },
    ],
    borrowed: [
      {
        borrowed_id: 'club',
        machine_id: 'gannet',
        source: 'another club’s bench, by letter',
        address: null,
        at: '2026-02-20T12:00:00+01:00',
        statement: 'belts wanted tightening after 180 h',
        quantity: null,
        value: 180,
        unit: 'h',
        trust: 2,
      },
    ],
    claims: [
      claim(
        'first-layer-b',
        'gannet',
        'First layer without hands',
        [null, null, null],
        'confirmed',
        '6 of 6 first layers, nobody touched it',
      ),
      claim(
        'quiet-b',
        'gannet',
        '48 dB(A)',
        ['noise', 'dB(A)', 48],
        'refuted',
        '56.2 dB(A) at 1 m, printing',
      ),
    ],
  };
}
