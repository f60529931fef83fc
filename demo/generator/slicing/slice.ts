import { ToolpathAnalysis, type ToolpathFacts } from '../../../src/core/toolpath';
import { hatch, outline, wavy, type Point } from './geometry';
import { PARTS, type Region } from './parts';
import { CHANGED, PART, type PartSettings, type Recipe } from './recipes';

const DIAMETER = 1.75;
const DENSITY = 1.24;
const RETRACT = 0.8;

type RoleName = 'outer wall' | 'inner wall' | 'solid' | 'infill' | 'top' | 'bottom' | 'skirt';

/** A sliced file of the demo. */
export interface Sliced {
  path: string;
  text: string;
  facts: ToolpathFacts;
}

/** Slices a part with a recipe; the same each time. */
export function slice(artefact: string, recipe: Recipe): Sliced {
  const part: PartSettings = { ...PART, ...CHANGED[`${recipe.contender} ${artefact}`] };
  const body = new Writer(artefact, recipe, part).write();
  const draft = analyse(`${body}\n`);
  const estimate = Math.round(draft.time_s * recipe.optimism);
  const path = `sliced/${artefact}-${recipe.contender}.gcode`;
  const text = dressed(body, recipe, part, artefact, estimate, draft);
  return { path: `${path}.gz`, text, facts: analyse(text) };
}

function analyse(text: string): ToolpathFacts {
  const analysis = new ToolpathAnalysis({ file: 'draft' });
  analysis.push(new TextEncoder().encode(text));
  return analysis.end();
}

/** A file's text with what it says of itself, in the recipe's habit. */
function dressed(
  body: string,
  recipe: Recipe,
  part: PartSettings,
  artefact: string,
  estimate: number,
  facts: ToolpathFacts,
): string {
  const metres = (facts.filament_mm / 1000).toFixed(3);
  const minutes = `${Math.floor(estimate / 3600)}h ${Math.floor((estimate % 3600) / 60)}m ${estimate % 60}s`;
  const grams = ((facts.filament_mm3 * DENSITY) / 1000).toFixed(2);
  if (recipe.habit === 'role-lines') {
    const settings = Object.entries({
      machine: recipe.machine,
      profile: recipe.profile,
      object: artefact,
      layer_height: part.layer,
      first_layer_height: part.firstLayer,
      line_width: part.width,
      walls: part.walls,
      top_layers: part.top,
      bottom_layers: part.bottom,
      infill_density: `${100 * part.infill}%`,
      infill_pattern: part.pattern,
      support: 'none',
      adhesion: 'skirt',
      outer_wall_speed: recipe.outer,
      inner_wall_speed: recipe.inner,
      infill_speed: recipe.infill,
      solid_infill_speed: recipe.solid,
      travel_speed: recipe.travel,
      first_layer_speed: recipe.first,
      default_acceleration: recipe.accel,
      nozzle_temperature: recipe.nozzle_temp_c,
      bed_temperature: 60,
      retraction_length: RETRACT,
      flow_ratio: recipe.flow,
      nozzle_diameter: 0.4,
      filament_diameter: DIAMETER,
      filament_density: DENSITY,
    }).map(([key, value]) => `; ${key} = ${value}`);
    return [
      body,
      `; estimated print time = ${minutes}`,
      `; filament used [m] = ${metres}`,
      `; filament used [g] = ${grams}`,
      `; total layer count = ${facts.layers}`,
      ...settings,
      '',
    ].join('\n');
  }
  const settings = Object.entries({
    Machine: recipe.machine,
    Profile: recipe.profile,
    Object: artefact,
    'layer height': `${part.layer}`,
    'initial layer height': part.firstLayer,
    'extrusion width': part.width,
    perimeters: part.walls,
    'top solid layers': part.top,
    'bottom solid layers': part.bottom,
    'fill density': part.infill,
    'fill pattern': part.pattern,
    supports: 'none',
    'bed adhesion': 'skirt',
    'external perimeter speed': recipe.outer,
    'perimeter speed': recipe.inner,
    'infill speed': recipe.infill,
    'solid infill speed': recipe.solid,
    'speed travel': recipe.travel,
    'initial layer speed': recipe.first,
    'acceleration print': recipe.accel,
    temperature: recipe.nozzle_temp_c,
    'plate temperature': 60,
    'retract length': RETRACT,
    'extrusion multiplier': recipe.flow,
    'nozzle size': 0.4,
    'filament diameter': DIAMETER,
    'material density': DENSITY,
  }).map(([key, value]) => `; ${key} = ${value}`);
  return [
    `;print time: ${estimate}`,
    `;filament length: ${metres}m`,
    `;number of layers: ${facts.layers}`,
    ...settings,
    body,
    '',
  ].join('\n');
}

/** Writes the commands of one file. */
class Writer {
  readonly #out: string[] = [];
  readonly #area = (Math.PI * DIAMETER * DIAMETER) / 4;
  readonly #isAbsolute: boolean;
  #e = 0;
  #role: RoleName | null = null;
  #at: Point = [0, 0];

  constructor(
    readonly artefact: string,
    readonly recipe: Recipe,
    readonly part: PartSettings,
  ) {
    this.#isAbsolute = recipe.habit === 'feature-lines';
  }

  write(): string {
    const { recipe, part } = this;
    const shape = PARTS[this.artefact];
    if (!shape) throw new Error(`no part ${this.artefact}`);
    const fast = Math.max(recipe.infill, recipe.travel);
    this.#line(`M140 S60`, `M104 S${recipe.nozzle_temp_c}`, 'G28', 'G21', 'G90');
    this.#line(`M190 S60`, `M109 S${recipe.nozzle_temp_c}`);
    this.#line(`M201 X${recipe.accel} Y${recipe.accel} Z200 E5000`);
    this.#line(`M203 X${fast} Y${fast} Z15 E80`, `M204 P${recipe.accel} T${recipe.accel} R2500`);
    this.#line(this.#isAbsolute ? 'M82' : 'M83', 'G92 E0');
    const layers = Math.round((shape.height - part.firstLayer) / part.layer) + 1;
    for (let layer = 0; layer < layers; layer += 1)
      this.#layer(layer, layers, (z) => shape.slice(z));
    this.#line('M107', 'M104 S0', 'M140 S0', 'G0 Z' + (shape.height + 5).toFixed(2), 'M84');
    return this.#out.join('\n');
  }

  #layer(layer: number, layers: number, sliceAt: (z: number) => readonly Region[]): void {
    const { part, recipe } = this;
    const height = layer === 0 ? part.firstLayer : part.layer;
    const z = part.firstLayer + layer * part.layer;
    const isFirst = layer === 0;
    if (recipe.habit === 'role-lines') {
      this.#line(';layer', `;layer z: ${z.toFixed(3)}`, `;layer height: ${height}`);
    } else this.#line(';begin layer', `;z height: ${z.toFixed(3)}`);
    this.#role = null;
    if (this.#isAbsolute) {
      this.#line('G92 E0');
      this.#e = 0;
    }
    this.#line(`G1 Z${z.toFixed(3)} F600`);
    if (layer === 1) this.#line('M106 S255');
    const regions = sliceAt(z - height / 2);
    const above = new Set(
      sliceAt(z + part.top * part.layer).map((region) => JSON.stringify(region)),
    );
    if (isFirst) this.#skirt(regions, height);
    for (const region of regions) {
      for (let wall = part.walls - 1; wall >= 0; wall -= 1) {
        const inset = (wall + 0.5) * part.width;
        const role = wall === 0 ? 'outer wall' : 'inner wall';
        const speed = isFirst ? recipe.first : wall === 0 ? recipe.outer : recipe.inner;
        const loops = [
          outline(region.outer, inset),
          ...region.holes.map((hole) => outline(hole, -inset)),
        ];
        for (const loop of loops) if (loop) this.#path(loop, role, speed, height);
      }
      const isTop = layer >= layers - part.top || !above.has(JSON.stringify(region));
      const isBottom = layer < part.bottom;
      const angle = layer % 2 === 0 ? Math.PI / 4 : (3 * Math.PI) / 4;
      const inset = (part.walls + 0.4) * part.width;
      if (isTop || isBottom) {
        const role = isBottom ? 'bottom' : layer === layers - 1 ? 'top' : 'solid';
        const speed = isFirst ? recipe.first : role === 'top' ? recipe.top : recipe.solid;
        for (const line of hatch(region, angle, part.width, inset)) {
          this.#path(line, role, speed, height);
        }
      } else {
        for (const line of hatch(region, angle, part.width / part.infill, inset)) {
          const drawn = part.pattern === 'gyroid' ? wavy(line, layer * 0.7) : line;
          this.#path(drawn, 'infill', recipe.infill, height);
        }
      }
    }
  }

  #skirt(regions: readonly Region[], height: number): void {
    const xs = regions.flatMap(({ outer: o }) =>
      o.kind === 'rect' ? [o.x, o.x + o.w] : [o.x - o.r, o.x + o.r],
    );
    const ys = regions.flatMap(({ outer: o }) =>
      o.kind === 'rect' ? [o.y, o.y + o.h] : [o.y - o.r, o.y + o.r],
    );
    const [x, y] = [Math.min(...xs) - 5, Math.min(...ys) - 5];
    const around = outline(
      { kind: 'rect', x, y, w: Math.max(...xs) + 5 - x, h: Math.max(...ys) + 5 - y },
      0,
    );
    if (around) this.#path(around, 'skirt', this.recipe.first, height);
  }

  #path(points: readonly Point[], role: RoleName, speed: number, height: number): void {
    const [start, ...rest] = points;
    if (!start) return;
    this.#enter(role);
    const gap = Math.hypot(start[0] - this.#at[0], start[1] - this.#at[1]);
    if (gap > 5) this.#extrude(-RETRACT, 40);
    this.#line(`G0 X${start[0].toFixed(2)} Y${start[1].toFixed(2)} F${60 * this.recipe.travel}`);
    if (gap > 5) this.#extrude(RETRACT, 40);
    this.#at = start;
    rest.forEach((to, index) => {
      const length = Math.hypot(to[0] - this.#at[0], to[1] - this.#at[1]);
      const e = (length * this.part.width * height * this.recipe.flow) / this.#area;
      const feed = index === 0 ? ` F${60 * speed}` : '';
      this.#line(`G1 X${to[0].toFixed(2)} Y${to[1].toFixed(2)} E${this.#value(e)}${feed}`);
      this.#at = to;
    });
  }

  #enter(role: RoleName): void {
    if (role === this.#role) return;
    this.#role = role;
    this.#line(
      this.recipe.habit === 'role-lines' ? `;role: ${role}` : `;line type: ${NAMES[role]}`,
    );
  }

  #extrude(length: number, speed: number): void {
    this.#line(`G1 E${this.#value(length)} F${60 * speed}`);
  }

  #value(e: number): string {
    this.#e = this.#isAbsolute ? this.#e + e : e;
    return this.#e.toFixed(4);
  }

  #line(...lines: string[]): void {
    this.#out.push(...lines);
  }
}

const NAMES: Record<RoleName, string> = {
  'outer wall': 'Wall-Outer',
  'inner wall': 'Wall-Inner',
  solid: 'Internal solid infill',
  infill: 'Internal infill',
  top: 'Top surface',
  bottom: 'Bottom surface',
  skirt: 'Skirt',
};
