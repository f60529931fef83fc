import { ToolpathAnalysis, type ToolpathFacts } from '../../../src/core/toolpath';
import { hatch, outline, type Point } from './geometry';
import { PARTS, type Region } from './parts';
import { DIAMETER, dressed, mannerOf, RETRACT, type Manner, type RoleName } from './programs';
import { CHANGED, PART, type PartSettings, type Recipe } from './recipes';

/** A sliced file of the demo. */
export interface Sliced {
  path: string;
  text: string;
  facts: ToolpathFacts;
}

/** Slices a part with a recipe; the same each time. */
export function slice(artefact: string, usual: Recipe): Sliced {
  const { program = usual.program, ...changed } = CHANGED[`${usual.contender} ${artefact}`] ?? {};
  const recipe = { ...usual, program };
  const part: PartSettings = { ...PART, ...changed };
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

/** Writes the commands of one file. */
class Writer {
  readonly #out: string[] = [];
  readonly #area = (Math.PI * DIAMETER * DIAMETER) / 4;
  readonly #manner: Manner;
  #e = 0;
  #role: RoleName | null = null;
  #at: Point = [0, 0];

  constructor(
    readonly artefact: string,
    readonly recipe: Recipe,
    readonly part: PartSettings,
  ) {
    this.#manner = mannerOf(recipe.program);
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
    this.#line(this.#manner.isAbsolute ? 'M82' : 'M83', 'G92 E0');
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
    this.#line(...this.#manner.layer(z.toFixed(3), height));
    this.#role = null;
    if (this.#manner.isAbsolute) {
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
          outline(region.outer, inset, this.#manner.firstCorner),
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
          this.#path(line, 'infill', recipe.infill, height);
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
    this.#line(this.#manner.role(this.#manner.roles[role]));
  }

  #extrude(length: number, speed: number): void {
    this.#line(`G1 E${this.#value(length)} F${60 * speed}`);
  }

  #value(e: number): string {
    this.#e = this.#manner.isAbsolute ? this.#e + e : e;
    return this.#e.toFixed(4);
  }

  #line(...lines: string[]): void {
    this.#out.push(...lines);
  }
}
