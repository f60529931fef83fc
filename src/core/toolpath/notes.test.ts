import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ANNOTATIONS, extendAnnotations, StatedSettings } from '.';
import { readAnnotation, readFilamentLength, readTime, roleOf } from './annotations';
import { Notes } from './notes';

const bytesOf = (text: string) => new TextEncoder().encode(text);

function notesOf(...comments: string[]): Notes {
  const notes = new Notes(ANNOTATIONS);
  for (const comment of comments) {
    const bytes = bytesOf(comment);
    notes.read(bytes, 0, bytes.length);
    notes.movedSinceLayer = true;
  }
  return notes;
}

describe('a time that a file states', () => {
  it.each([
    ['90', 90],
    ['90.5 s', 90.5],
    ['1:02:03', 3723],
    ['2:03', 123],
    ['1d 2h 3m 4s', 93_784],
    ['2h 3m', 7380],
    ['3 min 4 sec', 184],
    ['1 hour', 3600],
    ['', null],
    ['soon', null],
    ['-5', null],
    ['1:2', null],
  ])('%s', (text, seconds) => {
    expect(readTime(text)).toBe(seconds);
  });

  it('of whole hours, minutes and seconds comes back as it was written', () => {
    const whole = fc.nat({ max: 359_999 });
    fc.assert(
      fc.property(whole, (seconds) => {
        const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
        const two = (value: number) => String(value).padStart(2, '0');
        expect(readTime(`${h}:${two(m)}:${two(s)}`)).toBe(seconds);
        expect(readTime(`${h}h ${m}m ${s}s`)).toBe(seconds);
      }),
    );
  });
});

describe('a length of filament that a file states', () => {
  it.each([
    ['1.25m', 1250],
    ['1.25 m', 1250],
    ['1230 mm', 1230],
    ['12 cm', 120],
    ['800', 800],
    ['800, 20', 800],
    ['much', null],
    ['-3', null],
  ])('%s', (text, mm) => {
    expect(readFilamentLength(text)).toBe(mm);
  });
});

describe('a comment', () => {
  it.each([
    ['TYPE:Outer wall', { meaning: 'role', value: 'Outer wall' }],
    [' Layer change ', { meaning: 'layer', value: '' }],
    ['LAYER:12', { meaning: 'layer', value: '12' }],
    ['layer_height = 0.2', { meaning: 'setting', key: 'layer_height', value: '0.2' }],
    [
      'filament used [mm] = 12.5',
      { meaning: 'setting-and', means: 'filament-mm', key: 'filament used [mm]', value: '12.5' },
    ],
    ['estimated print time (normal) : 1h', { meaning: 'time', value: '1h' }],
    ['anything else: at all', null],
    ['', null],
    ['12 = 13', null],
  ])('%s', (text, expected) => {
    expect(readAnnotation(text, ANNOTATIONS)).toEqual(expected);
  });

  it('is never mistaken for a name that every object has', () => {
    expect(readAnnotation('constructor: 3', ANNOTATIONS)).toBeNull();
    expect(roleOf('constructor', ANNOTATIONS)).toBe('other');
    const notes = notesOf('constructor = 4', 'valueOf = 5', '__proto__ = 3');
    expect(Object.keys(notes.settings)).toEqual(['constructor', 'valueOf']);
  });

  it.each([
    ['Outer wall', 'outer-wall'],
    ['WALL-OUTER', 'outer-wall'],
    ['Overhang wall', 'wall-over-air'],
    ['Sparse infill', 'infill'],
    ['Gap infill', 'thin-fill'],
    ['Support interface', 'support-interface'],
    ['Prime tower', 'prime'],
    ['Something new', 'other'],
  ])('names a role: %s', (name, role) => {
    expect(roleOf(name, ANNOTATIONS)).toBe(role);
  });

  it('of a person’s own kind is understood once it stands in the table', () => {
    const table = extendAnnotations({ names: { strecke: 'role' }, roles: { wand: 'outer-wall' } });
    expect(readAnnotation('Strecke: Wand', table)).toEqual({ meaning: 'role', value: 'Wand' });
    expect(roleOf('Wand', table)).toBe('outer-wall');
    expect(roleOf('Top surface', table)).toBe('top');
  });
});

describe('what a file says of itself', () => {
  it('is taken the first time it is said', () => {
    const { self } = notesOf(
      'estimated printing time = 1h 2m',
      'total time: 9:00:00',
      'filament used [m] = 2.5',
      'filament used = 9 m',
      'filament weight: 7.5',
      'layer count: 42',
      'layer count: 43',
    );
    expect(self).toEqual({ time_s: 3720, filament_mm: 2500, filament_g: 7.5, layer_count: 42 });
  });

  it('layers open where something moved since the last word of one', () => {
    const notes = new Notes(ANNOTATIONS);
    const read = (text: string) => notes.read(bytesOf(text), 0, text.length);
    read('LAYER:0');
    read('LAYER CHANGE');
    expect(notes.layer).toBe(0);
    notes.movedSinceLayer = true;
    read('LAYER:1');
    read('HEIGHT:0.25');
    expect(notes.layer).toBe(1);
    expect(notes.heights[1]).toBe(0.25);
  });

  it('counts every setting and keeps the last value of each', () => {
    const notes = notesOf('walls = 2', 'perimeters = 3', 'sparse infill density = 15%');
    expect(notes.settingsRawCount).toBe(3);
    expect(notes.settings).toEqual({ walls: 3, infill_share: 0.15 });
  });

  it('marks that it lays down material to prime with', () => {
    expect(notesOf('TYPE:Outer wall').hasPrime).toBe(false);
    expect(notesOf('TYPE:Prime tower').hasPrime).toBe(true);
  });
});

describe('the settings of a file without its motion', () => {
  const text =
    'G1 X1 ; walls = 9\n\t ; walls = 2\r\n;layer_height = 0.2\nM104 S200\n; travel speed = 300';

  it('come from comments that have a line of their own, however it arrives', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: text.length }), (size) => {
        const settings = new StatedSettings();
        const bytes = bytesOf(text);
        for (let at = 0; at < bytes.length; at += size) settings.push(bytes.slice(at, at + size));
        expect(settings.end()).toEqual({
          walls: 2,
          layer_height_mm: 0.2,
          speed_travel_mm_s: 300,
        });
      }),
    );
  });

  it('are the same however a file comes, whatever stands in it', () => {
    const line = fc.oneof(
      fc.constantFrom(
        'G1 X1',
        ';TYPE:infill',
        '',
        '\t; walls = 2',
        'M1 ; walls = 4',
        '\ufeff;a = 1',
      ),
      fc
        .tuple(fc.constantFrom(';', '; ', ' ;', ''), fc.string(), fc.constantFrom('=', ' = ', ':'))
        .map(([sign, key, equals]) => `${sign}${key}${equals}${key.length}`),
    );
    const file = fc.tuple(fc.array(line), fc.constantFrom('\n', '\r\n'));
    const settingsOf = (bytes: Uint8Array, size: number) => {
      const settings = new StatedSettings();
      for (let at = 0; at < bytes.length; at += size) settings.push(bytes.slice(at, at + size));
      return settings.end();
    };
    fc.assert(
      fc.property(file, fc.integer({ min: 2, max: 300 }), ([lines, feed], size) => {
        const bytes = bytesOf(lines.join(feed));
        // Byte by byte every line is put together, and looked at.
        const plain = settingsOf(bytes, 1);
        expect(settingsOf(bytes, size)).toEqual(plain);
        expect(settingsOf(bytes, Math.max(1, bytes.length))).toEqual(plain);
      }),
    );
  });

  it('a line beyond the bound says nothing', () => {
    const settings = new StatedSettings();
    settings.push(bytesOf(`; walls = 2\nX${'1'.repeat(2 ** 20 + 10)} ; walls = 3\n`));
    expect(settings.end()).toEqual({ walls: 2 });
  });
});
