import { parameter, reader, sized, type PartDesign } from './part';
import { box, difference, union, type Solid } from './solid';

const FOOT = 3;
const WALL = 6;
const RELIEF = 0.8;
/** Strokes of letters on a field 4 wide and 6 high: x, z, width, height. */
const STROKES: Readonly<Record<string, readonly (readonly [number, number, number, number])[]>> = {
  F: [
    [0, 0, 1, 6],
    [0, 5, 4, 1],
    [0, 2.5, 3, 1],
  ],
  E: [
    [0, 0, 1, 6],
    [0, 5, 4, 1],
    [0, 2.5, 3, 1],
    [0, 0, 4, 1],
  ],
  L: [
    [0, 0, 1, 6],
    [0, 0, 4, 1],
  ],
  T: [
    [1.5, 0, 1, 6],
    [0, 5, 4, 1],
  ],
};
const LETTERS = ['F', 'E', 'L', 'T'];

function lettering(x: number, z: number, height: number, y: number): Solid[] {
  const scale = height / 6;
  return LETTERS.flatMap((letter, at) =>
    (STROKES[letter] ?? []).map(([u, v, w, h]) =>
      box(x + (5 * at + u) * scale, y - RELIEF, z + v * scale, w * scale, RELIEF + 0.5, h * scale),
    ),
  );
}

/** A tall wall with sharp corners, letters and a notch: echoes of the corners, bands of the layers. */
export const echoWall: PartDesign = {
  key: 'echo-wall',
  name: 'Echo wall',
  about: 'A tall wall with a sharp corner, relief letters and a notch: ringing, layer bands, text.',
  parameters: [
    parameter('length', 'length', 120, 60, 300),
    parameter('height', 'height', 60, 40, 250),
    parameter('letter', 'height of the letters', 8, 3, 20, 0.5),
    parameter('notch', 'width of the notch', 15, 5, 40),
  ],
  faults: (values) => {
    const of = reader(values);
    const text = (of('letter') * 19) / 6;
    const room = of('length') - of('notch') - 45;
    return [
      ...(text > room
        ? [`the letters are ${sized(text)} mm long and there is room for ${sized(room)} mm`]
        : []),
      ...(of('letter') > of('height') / 3 ? ['the letters are too high for the wall'] : []),
    ];
  },
  make: (values) => {
    const of = reader(values);
    const [length, height, letter, notch] = [of('length'), of('height'), of('letter'), of('notch')];
    const left = -length / 2;
    const notchX = length / 2 - 15 - notch;
    const [textX, textZ] = [left + 20, height / 2 - letter / 2];
    const wall = union(
      box(left, -10, 0, length, 20, FOOT),
      box(left, -WALL / 2, 0, length, WALL, height),
      box(left, -10, 0, WALL, 20, height),
    );
    return {
      solid: union(
        difference(wall, box(notchX, -WALL, height - 20, notch, 2 * WALL, 10)),
        ...lettering(textX, textZ, letter, -WALL / 2),
      ),
      dimensions: [],
      ladders: [],
      zones: [
        {
          id: 'corners',
          name: 'wall with corners',
          weight: 3,
          view: 'front',
          from: [left, FOOT],
          to: [length / 2, height],
        },
        {
          id: 'lettering',
          name: 'relief lettering',
          weight: 2,
          view: 'front',
          from: [textX - 2, textZ - 2],
          to: [textX + (19 / 6) * letter + 2, textZ + letter + 2],
        },
        {
          id: 'notch',
          name: 'notch',
          weight: 1,
          view: 'front',
          from: [notchX - 2, height - 22],
          to: [notchX + notch + 2, height - 8],
        },
        {
          id: 'first-layer',
          name: 'first layer',
          weight: 1,
          view: 'bottom',
          from: [left, -10],
          to: [length / 2, 10],
        },
      ],
      checks: [],
      copies: [],
    };
  },
};
