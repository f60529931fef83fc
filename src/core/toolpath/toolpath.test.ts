import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  differencesOf,
  machineRecordSchema,
  NoMotionError,
  describeClaim,
  ToolpathAnalysis,
  type MachineRecord,
  type ToolpathFacts,
} from '.';

function analyse(
  text: string | Uint8Array,
  machine: MachineRecord = {},
  piece = Infinity,
): ToolpathFacts {
  const bytes = typeof text === 'string' ? new TextEncoder().encode(text) : text;
  const analysis = new ToolpathAnalysis({ file: 't.gcode', machine });
  const size = Math.min(piece, Math.max(1, bytes.length));
  for (let at = 0; at < bytes.length; at += size) analysis.push(bytes.subarray(at, at + size));
  return analysis.end();
}

/** Limits that bind nothing but what a test is about. */
const FREE: MachineRecord = {
  max_speed_mm_s: { x: 1e4, y: 1e4, z: 1e4, e: 1e4 },
  max_accel_mm_s2: { x: 1e6, y: 1e6, z: 1e6, e: 1e6 },
  accel_print: 1500,
  accel_travel: 1500,
  accel_retract: 1500,
};

describe('motion, against closed forms', () => {
  it('a long move from rest to rest takes L/v + v/a', () => {
    const facts = analyse('G1 X100 F6000', FREE);
    expect(facts.time_s).toBeCloseTo(1 + 100 / 1500, 9);
    expect(facts.constant_speed_s).toBeCloseTo(1, 9);
    expect(facts.travel_mm).toBe(100);
  });

  it('a short one never reaches its speed: 2·√(L/a)', () => {
    expect(analyse('G1 X1 F6000', FREE).time_s).toBeCloseTo(2 * Math.sqrt(1 / 1500), 9);
  });

  it('a straight line cut into pieces takes as long as in one', () => {
    const pieces = Array.from({ length: 1000 }, (_, at) => `G1 X${(at + 1) / 10}`).join('\n');
    expect(analyse(`G1 F6000\n${pieces}`, FREE).time_s).toBeCloseTo(1 + 100 / 1500, 7);
  });

  it('a right angle is passed at the speed that junction deviation allows', () => {
    // θ = 90°: v² = a·d·sin 45°/(1 − sin 45°) = 1500·0.02·2.414214 = 72.42641.
    const corner = Math.sqrt(72.42641);
    const ramp = (100 * 100) / 3000 + (100 * 100 - 72.42641) / 3000;
    const side = 100 / 1500 + (100 - corner) / 1500 + (10 - ramp) / 100;
    expect(analyse('G1 X10 F6000\nG1 Y10', FREE).time_s).toBeCloseTo(2 * side, 7);
  });

  it('a reversal is a full stop, and so is a move of E alone, a dwell and a tool change', () => {
    const once = analyse('G1 X10 F6000', FREE).time_s;
    expect(analyse('G1 X10 F6000\nG1 X0', FREE).time_s).toBeCloseTo(2 * once, 9);
    for (const stop of ['G4 P0', 'T1', 'M109 S200', 'M190 S60', 'M600', 'G10', 'G11']) {
      const facts = analyse(`G1 X10 F6000\n${stop}\nG1 X20`, FREE);
      expect(facts.time_s, stop).toBeCloseTo(2 * once, 9);
    }
    for (const pass of ['M104 S200', 'M140 S60', 'M106', 'G92 X0', 'M117 hello G28']) {
      const facts = analyse(`G91\nG1 X10 F6000\n${pass}\nG1 X10`, FREE);
      expect(facts.time_s, pass).toBeLessThan(1.9 * once);
    }
  });

  it('jerk takes the place of junction deviation, and gives it back', () => {
    // Per axis 8 mm/s: at a right angle both axes change by v, so v = 8.
    const ramp = (100 * 100) / 3000 + (100 * 100 - 64) / 3000;
    const side = 100 / 1500 + 92 / 1500 + (10 - ramp) / 100;
    const path = 'G1 X10 F6000\nG1 Y10';
    expect(analyse(`M205 X8 Y8\n${path}`, FREE).time_s).toBeCloseTo(2 * side, 7);
    expect(analyse(`M205 X8 Y8\nM205 J0.02\n${path}`, FREE).time_s).toBe(
      analyse(path, FREE).time_s,
    );
  });

  it('an arc is one block, no faster than √(a·r), and its box is exact', () => {
    // Half circle of radius 10 at √(1500·10) = 122.47 mm/s from rest to rest.
    const v = Math.sqrt(15_000);
    const facts = analyse('G1 X0 Y0\nG1 E1 F600\nG91\nM83\nG2 X20 Y0 I10 J0 E1 F60000', FREE);
    const length = Math.PI * 10;
    const unit = facts.time_by_role_s.extrude ?? 0;
    expect(unit).toBeCloseTo(length / v + v / 1500, 6);
    expect(facts.bbox_mm).toEqual({ min: [0, 0, 0], max: [20, 10, 0] });
    expect(facts.extruded_path_mm).toBeCloseTo(length, 9);
    expect(facts.held_back_s.corner).toBeGreaterThan(0);
  });

  it('axes bound speed and acceleration by their share', () => {
    // 45° in X and Y, X at most 50 mm/s: 70.71 mm/s along the way.
    const facts = analyse('M203 X50\nG1 X100 Y100 E1 F60000', { ...FREE, max_speed_mm_s: {} });
    expect(facts.speed.reached_max).toBeCloseTo(50 * Math.SQRT2, 9);
    expect(facts.limits.max_speed_mm_s).toMatchObject({
      x: { value: 50, source: 'file' },
      y: { value: 300, source: 'default' },
    });
    expect(facts.held_back_s.axis_speed).toBeGreaterThan(0);
  });

  it('the file may not set limits above the machine’s', () => {
    const facts = analyse('M204 P5000\nM201 X9000\nG1 X10 E1 F600', {
      accel_print: 800,
      max_accel_mm_s2: { x: 900 },
    });
    expect(facts.limits.accel_print).toEqual({ value: 800, source: 'machine' });
    expect(facts.limits.max_accel_mm_s2).toMatchObject({ x: { value: 900, source: 'machine' } });
    expect(facts.accelerations_seen).toEqual([800]);
  });
});

/** Times by the plain exact method: the whole run in memory, one pass back and one forth. */
function exactTime(
  moves: readonly { dx: number; dy: number; v: number }[],
  a: number,
  d: number,
): number {
  const blocks = moves.map(({ dx, dy, v }) => {
    const length = Math.hypot(dx, dy);
    return { length, v, ux: dx / length, uy: dy / length };
  });
  const joints = blocks.slice(1).map((next, at) => {
    const last = blocks[at] as (typeof blocks)[number];
    const theta = Math.acos(Math.max(-1, Math.min(1, -(last.ux * next.ux + last.uy * next.uy))));
    const s = Math.sin(theta / 2);
    const corner = Math.min(
      (a * d * s) / (1 - s),
      ((a * Math.min(last.length, next.length)) / 2) * Math.tan(theta / 2),
    );
    return Math.min(Math.sqrt(corner), last.v, next.v);
  });
  const speeds = [0, ...joints, 0];
  for (let at = blocks.length - 1; at >= 0; at -= 1) {
    speeds[at] = Math.min(
      speeds[at] ?? 0,
      Math.sqrt((speeds[at + 1] ?? 0) ** 2 + 2 * a * (blocks[at]?.length ?? 0)),
    );
  }
  let time = 0;
  blocks.forEach(({ length, v }, at) => {
    const entry = speeds[at] ?? 0;
    const exit = Math.min(speeds[at + 1] ?? 0, Math.sqrt(entry ** 2 + 2 * a * length));
    speeds[at + 1] = exit;
    const peak = Math.min(v, Math.sqrt((entry ** 2 + exit ** 2) / 2 + a * length));
    const ramps = (peak ** 2 - entry ** 2 + peak ** 2 - exit ** 2) / (2 * a);
    time += (peak - entry + peak - exit) / a + Math.max(0, length - ramps) / peak;
  });
  return time;
}

describe('look-ahead', () => {
  it('in bounded memory is the same as over the whole run', () => {
    let seed = 5;
    const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
    const moves = Array.from({ length: 20_000 }, (_, at) => {
      const angle = at * 0.01 + (random() - 0.5) * (random() < 0.05 ? 3 : 0.1);
      const length = 0.02 + 0.3 * random();
      return { dx: length * Math.cos(angle), dy: length * Math.sin(angle), v: 40 + 100 * random() };
    });
    const text = [
      'G91',
      ...moves.map(
        ({ dx, dy, v }) => `G1 X${dx.toFixed(12)} Y${dy.toFixed(12)} F${(v * 60).toFixed(9)}`,
      ),
    ];
    const facts = analyse(text.join('\n'), FREE);
    const expected = exactTime(moves, 1500, 0.02);
    expect(Math.abs(facts.time_s / expected - 1)).toBeLessThan(1e-6);
  });
});

describe('reading', () => {
  it('gives the same facts however the bytes come in pieces', () => {
    const text =
      '; layer_height = 0.2\r\n;TYPE:Outer wall\r\nG1 X10 Y5 E1 F3000\r\n' +
      ';LAYER_CHANGE\nG1 Z0.4\nG1X0Y0E2\nG2 X10 I5 E3\nbad\n';
    const whole = analyse(text);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 60 }), (piece) => {
        expect(analyse(text, {}, piece)).toEqual(whole);
      }),
    );
  });

  it('never throws but for want of motion, whatever the bytes', () => {
    const junk = fc.array(
      fc.constantFrom(
        'G1',
        'G2',
        ' X',
        'Y-',
        '1',
        '.5',
        'E',
        'F0',
        '\n',
        ';TYPE:',
        '(',
        ')',
        '*',
        'N3 ',
        'M205 J',
        '\t',
        '%',
        'g92',
        'R1',
        'é',
      ),
      { maxLength: 60 },
    );
    fc.assert(
      fc.property(junk, (parts) => {
        try {
          const facts = analyse(parts.join(''));
          expect(Number.isFinite(facts.time_s)).toBe(true);
        } catch (error) {
          expect(error).toBeInstanceOf(NoMotionError);
        }
      }),
      { numRuns: 400 },
    );
  });

  it('takes lower case, no blanks, line numbers with checksums, both comments', () => {
    const plain = analyse('G1 X10 Y5 E2 F3000');
    for (const line of [
      'g1x10y5e2f3000',
      'N1 G1 X10 Y5 E2 F3000',
      'G1 (to) X10 Y5 E2 F3000 ; there',
    ]) {
      const facts = analyse(line);
      expect(facts.bad_line_count, line).toBe(0);
      expect(facts.time_s, line).toBe(plain.time_s);
    }
    expect(analyse('G1X1E3').filament_mm).toBe(3);
    // The checksum that the protocol’s own description gives as its example.
    expect(analyse('N3 T0*57\nG1 X1').bad_line_count).toBe(0);
    expect(analyse('N3 T0*58\nG1 X1').bad_line_count).toBe(1);
  });

  it('passes over broken lines, counts and lists them', () => {
    const lines = [
      'G1 X',
      'X10',
      'G1 X\u00017',
      'N1 G1 X5*3',
      'G2 X10 Y0',
      'G3 X10 Y0 R2',
      'G1 X1 E',
    ];
    const facts = analyse(['G1 X1 F600', ...lines, 'M999 what', 'G1 X2'].join('\n'));
    expect(facts.bad_lines.map((bad) => [bad.line, bad.why])).toEqual([
      [2, 'a word without a number'],
      [3, 'no command'],
      [4, 'control characters'],
      [5, 'a wrong checksum'],
      [6, 'an impossible arc'],
      [7, 'an impossible arc'],
      [8, 'a word without a number'],
    ]);
    expect(facts.travel_mm).toBe(2);
  });

  it.each(['G1 X1,5 Y9', 'G1 X Y9', 'G1 X1e', 'G1 X--1', 'G1 X1.2.3', 'G1 X+ Y9', 'G1 X9 F6,00'])(
    'executes nothing of %s: all of a word is its number',
    (line) => {
      const facts = analyse(`G1 X5 F600\n${line}\nG1 X6`);
      expect(facts.bad_lines.map((bad) => bad.line)).toEqual([2]);
      expect(facts.travel_mm).toBe(6);
    },
  );

  it('begins a word with every letter, and asks a number only of those that move', () => {
    for (const line of ['G1 X10mm', 'G1 Y0x10', 'G1 X10 F6OO', 'G1X10']) {
      expect(analyse(`${line}\nG1 X10 Y0`), line).toMatchObject({
        bad_line_count: 0,
        travel_mm: 10,
      });
    }
  });

  it('skips a byte order mark at the head', () => {
    expect(analyse('\ufeffG1 X5 F600')).toMatchObject({ bad_line_count: 0, travel_mm: 5 });
  });

  it('refuses a file without motion, and takes a last line without end', () => {
    expect(() => analyse('; hello\nM104 S200\n')).toThrow(NoMotionError);
    expect(analyse('G1 X1\nG1 X2')).toMatchObject({ lines: 2, bytes: 11 });
  });

  it('takes a line of ten megabytes, and a number that is none', () => {
    const long = `;${'x'.repeat(1e7)}\nG1 X1 F600\nG1 X${'9'.repeat(400)}\nG1 X1e309\nG1 X${'1'.repeat(1e7)}`;
    const facts = analyse(long, {}, 65_536);
    // A comment may be of any length; a command of ten megabytes is none.
    expect(facts.bad_lines.map((bad) => bad.why)).toEqual([
      'a word without a number',
      'too long a line',
    ]);
    expect(facts.bad_lines[0]?.text).toHaveLength(120);
    expect(facts.filament_mm).toBe(309);
  });

  it('inches are the same as their millimetres', () => {
    const inches = analyse('G20\nG1 X1 Y2 E1 F60\nG2 X2 Y3 I1 J0 E2');
    const mm = analyse('G1 X25.4 Y50.8 E25.4 F1524\nG2 X50.8 Y76.2 I25.4 J0 E50.8');
    expect(inches.time_s).toBeCloseTo(mm.time_s, 9);
    expect(inches.extruded_path_mm).toBeCloseTo(mm.extruded_path_mm, 9);
  });
});

describe('filament, layers and roles', () => {
  it('sums E per tool, with flow, retractions and G92', () => {
    const facts = analyse(
      'M83\nG1 X10 E1 F600\nG1 E-0.5\nG1 X20\nG1 E0.5\nG1 X30 E1\nM221 S200\nG1 X40 E1\nT1\nG1 X50 E2',
    );
    // 1 − 0.5 + 0.5 + 1 + 2·1 for the first tool, 2·2 for the second.
    expect(facts.filament_mm).toBeCloseTo(8, 12);
    expect(facts).toMatchObject({
      retractions: 1,
      retract_mm: 0.5,
      tool_changes: 1,
      filament_g: null,
    });
    expect(facts.filament_mm3).toBeCloseTo((8 * Math.PI * 1.75 ** 2) / 4, 9);
    expect(analyse('G1 X1 E5\nG92 E0\nG1 X2 E5').filament_mm).toBe(10);
  });

  it('finds layers by motion alone, a climbing wall among them', () => {
    const flat = analyse('G1 Z0.3\nG1 X10 E1\nG1 Z0.5\nG1 X0 E2\nG1 Z1\nG1 Z0.7\nG1 X10 E3');
    expect(flat.layers).toBe(3);
    expect(flat.layer_heights_mm.first).toBeCloseTo(0.3);
    expect(flat.layer_heights_mm.median).toBeCloseTo(0.2);
    const turns = Array.from(
      { length: 20 },
      (_, at) => `G1 X${(at % 2) * 10} Z${(0.2 + at * 0.02).toFixed(3)} E${at + 2}`,
    );
    const vase = analyse(['G1 Z0.2', 'G1 X5 E1', ...turns].join('\n'));
    // From 0.2 to 0.58 in layers of 0.2.
    expect(vase.layers).toBe(3);
    expect(vase.time_by_layer_s.reduce((a, b) => a + b)).toBeCloseTo(vase.time_s, 9);
  });

  it('takes the file’s own word for roles, layers, settings and itself', () => {
    const facts = analyse(
      [
        ';TYPE:Skirt/Brim',
        'G1 X200 E1 F1200',
        ';LAYER_CHANGE',
        ';Z:0.2',
        ';HEIGHT:0.2',
        ';TYPE:External perimeter',
        'G1 X10 Y10 Z0.2 E2',
        ';LAYER_CHANGE',
        ';HEIGHT:0.3',
        ';TYPE:SOLID_INFILL',
        'G1 X20 Z0.5 E3',
        ';TYPE:Lace',
        'G1 X30 E4',
        '; infill_density = 15%',
        '; filament_diameter = 2.85',
        '; filament_density = 1.24',
        '; own key = left',
        '; filament used [g] = 12.5',
        '; estimated printing time (normal mode) = 1h 2m 3s',
      ].join('\n'),
    );
    expect(Object.keys(facts.time_by_role_s)).toEqual(
      ['outer-wall', 'solid', 'other', 'adhesion'].sort(
        (a, b) =>
          ['outer-wall', 'solid', 'adhesion', 'other'].indexOf(a) -
          ['outer-wall', 'solid', 'adhesion', 'other'].indexOf(b),
      ),
    );
    expect(facts.layers).toBe(2);
    expect(facts.layer_heights_mm).toMatchObject({ first: 0.2, min: 0.2, max: 0.3 });
    expect(facts.settings).toMatchObject({
      infill_share: 0.15,
      filament_diameter_mm: 2.85,
      'own key': 'left',
    });
    expect(facts.settings_raw_count).toBe(6);
    expect(facts.annotated).toMatchObject({ time_s: 3723, filament_g: 12.5 });
    expect(facts.filament_g).toBeCloseTo((4 * Math.PI * 2.85 ** 2 * 1.24) / 4000, 9);
    // The brim is left out of the box, but for where the wall begins.
    expect(facts.bbox_mm?.min).toEqual([10, 0, 0]);
  });

  it('gives speeds by time, and the histogram the same time', () => {
    const facts = analyse('M83\nG1 X1000 E50 F6000\nG1 X1010 E1 F1200', FREE);
    expect(facts.speed).toMatchObject({ commanded_max: 100, commanded_p50: 100 });
    expect(facts.speed.reached_p50).toBeCloseTo(100, 6);
    const total = facts.speed.histogram.reached_s.reduce((a, b) => a + b);
    expect(total).toBeCloseTo(facts.time_by_role_s.extrude ?? 0, 6);
    // 0.05 mm of filament per mm at 100 mm/s through 1.75 mm: 12.026 mm³/s.
    expect(facts.flow.reached_p50).toBeCloseTo(12.0264, 3);
    expect(facts.speed.at_commanded_share).toBeGreaterThan(0.98);
  });
});

describe('claims', () => {
  const claim = (text: string, machine: MachineRecord) => analyse(text, machine).claim;
  const settings = '; line_width = 0.45\n; layer_height = 0.2\nM83\n';

  it('tells who holds the machine back', () => {
    const fast = `${settings}G1 X5000 E9 F30000`;
    expect(
      claim(`${settings}G1 X50 E1 F6000`, { ...FREE, claimed_speed_mm_s: 500 })?.held_back_by,
    ).toBe('file');
    expect(
      claim(`${settings}G1 X50 E1 F30000`, { ...FREE, claimed_speed_mm_s: 500 })?.held_back_by,
    ).toBe('acceleration');
    const flow = claim(fast, { ...FREE, claimed_speed_mm_s: 500, max_flow_mm3_s: 30 });
    expect(flow).toMatchObject({
      held_back_by: 'flow',
      flow_needed_mm3_s: 45,
      flow_limit_mm3_s: 30,
    });
    expect(flow && describeClaim(flow)).toContain(
      'the claim would need 45.0 mm³/s, the hotend gives 30.0',
    );
    expect(
      claim(fast, { ...FREE, claimed_speed_mm_s: 500, max_flow_mm3_s: 60 })?.held_back_by,
    ).toBeNull();
    expect(claim(fast, FREE)).toBeNull();
  });

  it('refuses machine records with unknown keys', () => {
    expect(machineRecordSchema.safeParse({ speed: 3 }).success).toBe(false);
    expect(machineRecordSchema.safeParse({ max_speed_mm_s: { x: 0 } }).success).toBe(false);
  });
});

describe('differences', () => {
  it('names what differs, what must be held first', () => {
    const one = analyse('; infill_pattern = grid\n; print_note = a\nG1 X10 E1 F600');
    const two = analyse('; infill_pattern = lines\n; print_note = b\nG1 X10 E1 F600');
    expect(differencesOf([one, two])).toEqual([
      { key: 'infill_pattern', values: ['grid', 'lines'], weight: 'held' },
      { key: 'print_note', values: ['a', 'b'], weight: 'noted' },
    ]);
    expect(differencesOf([one, one])).toEqual([]);
  });
});
