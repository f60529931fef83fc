import type { ToolpathFacts } from '../../../src/core/toolpath';
import type { PartSettings, Program, Recipe } from './recipes';

export type RoleName =
  'outer wall' | 'inner wall' | 'solid' | 'infill' | 'top' | 'bottom' | 'skirt';

/** How a slicing program writes its files: what it calls things, and how it begins and ends. */
export interface Manner {
  name: string;
  version: string;
  /** Where a closed wall begins: which corner of a rectangle. */
  seam: string;
  firstCorner: number;
  isAbsolute: boolean;
  roles: Readonly<Record<RoleName, string>>;
  /** The comment before a move of a role, and those that open a layer at a height. */
  role: (name: string) => string;
  layer: (z: string, height: number) => readonly string[];
  /** The file with what it says of itself. */
  dressed: (body: string, settings: readonly string[], stated: Stated) => string;
  /** Its names of our settings. */
  keys: Readonly<Record<Key, string>>;
}

/** What a file says of itself: its time in s, its filament in m and in g, its layers. */
export interface Stated {
  seconds: number;
  metres: string;
  grams: string;
  layers: number;
}

const MANNERS: Readonly<Record<Program, Manner>> = {
  lathe: {
    name: 'Lathe-and-Layer',
    version: '4.1',
    seam: 'rear',
    firstCorner: 2,
    isAbsolute: false,
    roles: {
      'outer wall': 'rind',
      'inner wall': 'inner rind',
      solid: 'solid',
      infill: 'core',
      top: 'lid',
      bottom: 'floor',
      skirt: 'hem',
    },
    role: (name) => `;turning: ${name}`,
    layer: (z, height) => [';turn', `;turn z: ${z}`, `;turn height: ${height}`],
    dressed: (body, settings, { seconds, metres, grams, layers }) => {
      const [hours, minutes] = [Math.floor(seconds / 3600), Math.floor((seconds % 3600) / 60)];
      return [
        body,
        `; lathe time = ${hours}h ${minutes}m ${seconds % 60}s`,
        `; cord m = ${metres}`,
        `; cord g = ${grams}`,
        `; turns = ${layers}`,
        ...settings,
        '',
      ].join('\n');
    },
    keys: {
      machine: 'for_machine',
      profile: 'for_profile',
      object: 'piece',
      layer_height_mm: 'turn_height',
      first_layer_height_mm: 'ground_turn_height',
      line_width_mm: 'cut_width',
      walls: 'rinds',
      top_layers: 'lid_turns',
      bottom_layers: 'floor_turns',
      infill_share: 'core_share',
      infill_pattern: 'core_weave',
      support: 'props',
      adhesion: 'hem',
      speed_outer_wall_mm_s: 'rind_pace',
      speed_inner_wall_mm_s: 'inner_rind_pace',
      speed_infill_mm_s: 'core_pace',
      speed_solid_mm_s: 'solid_pace',
      speed_travel_mm_s: 'empty_pace',
      speed_first_layer_mm_s: 'ground_pace',
      accel_print_mm_s2: 'push',
      nozzle_temp_c: 'melt_heat',
      bed_temp_c: 'plate_heat',
      retract_mm: 'pull_back',
      flow_factor: 'feed_trim',
      nozzle_mm: 'tip_width',
      filament_diameter_mm: 'cord_width',
      filament_density_g_cm3: 'cord_density',
    },
  },
  strake: {
    name: 'Strake',
    version: '0.9',
    seam: 'left',
    firstCorner: 0,
    isAbsolute: true,
    roles: {
      'outer wall': 'Hull',
      'inner wall': 'Inner Hull',
      solid: 'Ballast',
      infill: 'Lattice',
      top: 'Deck',
      bottom: 'Keel',
      skirt: 'Fender',
    },
    role: (name) => `;laying: ${name}`,
    layer: (z) => [';strake', `;strake z: ${z}`],
    dressed: (body, settings, { seconds, metres, layers }) =>
      [
        `;time afloat: ${seconds}`,
        `;line paid out: ${metres}m`,
        `;strakes: ${layers}`,
        ...settings,
        body,
        '',
      ].join('\n'),
    keys: {
      machine: 'Yard',
      profile: 'Plan',
      object: 'Vessel',
      layer_height_mm: 'strake height',
      first_layer_height_mm: 'garboard height',
      line_width_mm: 'strake width',
      walls: 'hull planks',
      top_layers: 'deck strakes',
      bottom_layers: 'keel strakes',
      infill_share: 'lattice share',
      infill_pattern: 'lattice form',
      support: 'shores',
      adhesion: 'fender',
      speed_outer_wall_mm_s: 'hull rate',
      speed_inner_wall_mm_s: 'inner hull rate',
      speed_infill_mm_s: 'lattice rate',
      speed_solid_mm_s: 'ballast rate',
      speed_travel_mm_s: 'drift rate',
      speed_first_layer_mm_s: 'garboard rate',
      accel_print_mm_s2: 'rate gain',
      nozzle_temp_c: 'pot heat',
      bed_temp_c: 'slip heat',
      retract_mm: 'haul back',
      flow_factor: 'feed share',
      nozzle_mm: 'spout width',
      filament_diameter_mm: 'line width across',
      filament_density_g_cm3: 'line density',
    },
  },
};

export const mannerOf = (program: Program): Manner => MANNERS[program];

type Key = keyof ReturnType<typeof settingsOf>;

/** What a file is made with, by our names of settings. */
export const settingsOf = (recipe: Recipe, part: PartSettings, artefact: string) => ({
  machine: recipe.machine,
  profile: recipe.profile,
  object: artefact,
  layer_height_mm: part.layer,
  first_layer_height_mm: part.firstLayer,
  line_width_mm: part.width,
  walls: part.walls,
  top_layers: part.top,
  bottom_layers: part.bottom,
  infill_share: part.infill,
  infill_pattern: part.pattern,
  support: 'none',
  adhesion: 'skirt',
  speed_outer_wall_mm_s: recipe.outer,
  speed_inner_wall_mm_s: recipe.inner,
  speed_infill_mm_s: recipe.infill,
  speed_solid_mm_s: recipe.solid,
  speed_travel_mm_s: recipe.travel,
  speed_first_layer_mm_s: recipe.first,
  accel_print_mm_s2: recipe.accel,
  nozzle_temp_c: recipe.nozzle_temp_c,
  bed_temp_c: 60,
  retract_mm: RETRACT,
  flow_factor: recipe.flow,
  nozzle_mm: 0.4,
  filament_diameter_mm: DIAMETER,
  filament_density_g_cm3: DENSITY,
});

export const DIAMETER = 1.75;
export const DENSITY = 1.24;
export const RETRACT = 0.8;

/** A file's text with what it says of itself, in its program's words. */
export function dressed(
  body: string,
  recipe: Recipe,
  part: PartSettings,
  artefact: string,
  seconds: number,
  facts: ToolpathFacts,
): string {
  const manner = mannerOf(recipe.program);
  const own = settingsOf(recipe, part, artefact);
  const lines = Object.entries(own).map(
    ([key, value]) => `; ${manner.keys[key as Key]} = ${value}`,
  );
  const program = [`; slicer = ${manner.name}`, `; slicer_version = ${manner.version}`];
  return manner.dressed(body, [...program, ...lines, `; seam = ${manner.seam}`], {
    seconds,
    metres: (facts.filament_mm / 1000).toFixed(3),
    grams: ((facts.filament_mm3 * DENSITY) / 1000).toFixed(2),
    layers: facts.layers,
  });
}
