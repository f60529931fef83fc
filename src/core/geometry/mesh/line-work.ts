/** A straight piece of a drawing: u v of both ends, mm on the sheet. */
export type Piece = readonly [number, number, number, number];

const SHORT_MM = 5e-3;

interface Line {
  /** Unit direction; the first of its parts that is not 0 is positive. */
  along: readonly [number, number];
  spans: [number, number][];
  offset: number;
}

/** Pieces by the endless line that they lie on, their spans put together. */
function byLine(pieces: readonly Piece[]): Map<string, Line> {
  const lines = new Map<string, Line>();
  for (const [u1, v1, u2, v2] of pieces) {
    const length = Math.hypot(u2 - u1, v2 - v1);
    if (length < SHORT_MM) continue;
    const sign = Math.abs(u2 - u1) > 1e-9 * length ? Math.sign(u2 - u1) : Math.sign(v2 - v1);
    const along = [((u2 - u1) / length) * sign, ((v2 - v1) / length) * sign] as const;
    const offset = u1 * -along[1] + v1 * along[0];
    const key = `${Math.round(along[0] * 2000)} ${Math.round(along[1] * 2000)} ${Math.round(offset * 100)}`;
    const line = lines.get(key) ?? { along, spans: [], offset };
    const s1 = u1 * along[0] + v1 * along[1];
    const s2 = u2 * along[0] + v2 * along[1];
    line.spans.push([Math.min(s1, s2), Math.max(s1, s2)]);
    lines.set(key, line);
  }
  for (const line of lines.values()) line.spans = united(line.spans);
  return lines;
}

/** Spans put in order, those that touch made one. */
export function united(spans: readonly (readonly [number, number])[]): [number, number][] {
  const out: [number, number][] = [];
  for (const [low, high] of [...spans].sort((a, b) => a[0] - b[0])) {
    const last = out.at(-1);
    if (last && low <= last[1] + 1e-4) last[1] = Math.max(last[1], high);
    else out.push([low, high]);
  }
  return out;
}

/** What is left of a span when others (in order, not touching) are taken out. */
export function without(
  [low, high]: readonly [number, number],
  taken: readonly (readonly [number, number])[],
): [number, number][] {
  const left: [number, number][] = [];
  let start = low;
  for (const [from, to] of taken) {
    if (to <= start) continue;
    if (from >= high) break;
    if (from > start) left.push([start, from]);
    start = Math.max(start, to);
  }
  if (start < high) left.push([start, high]);
  return left;
}

const piecesOf = ({ along, offset }: Line, spans: readonly [number, number][]): Piece[] =>
  spans
    .filter(([low, high]) => high - low >= SHORT_MM)
    .map(([low, high]) => [
      along[0] * low - along[1] * offset,
      along[1] * low + along[0] * offset,
      along[0] * high - along[1] * offset,
      along[1] * high + along[0] * offset,
    ]);

/** Each line once: what lies on top of each other is put together, and hidden lines under visible ones go. */
export function tidy(
  visible: readonly Piece[],
  hidden: readonly Piece[],
): { visible: Piece[]; hidden: Piece[] } {
  const seen = byLine(visible);
  const unseen = byLine(hidden);
  return {
    visible: [...seen.values()].flatMap((line) => piecesOf(line, line.spans)),
    hidden: [...unseen].flatMap(([key, line]) => {
      const taken = seen.get(key)?.spans ?? [];
      return piecesOf(
        line,
        line.spans.flatMap((span) => without(span, taken)),
      );
    }),
  };
}

const rounded = (value: number): number => Math.round(value * 100) / 100 + 0;

/**
 * Joins pieces end to end into an SVG path. Coordinates are mm to 0.01, v downwards as on a screen;
 * the same pieces in any order give the same path.
 */
export function pathOf(pieces: readonly Piece[]): string {
  const ends = new Map<string, number[]>();
  const note = (key: string, at: number) => ends.set(key, [...(ends.get(key) ?? []), at]);
  const lines = pieces
    .map(([u1, v1, u2, v2]) => [rounded(u1), rounded(-v1), rounded(u2), rounded(-v2)] as const)
    .map(([a, b, c, d]): Piece => (a < c || (a === c && b <= d) ? [a, b, c, d] : [c, d, a, b]))
    .sort((p, q) => p[0] - q[0] || p[1] - q[1] || p[2] - q[2] || p[3] - q[3])
    .filter(([a, b, c, d]) => a !== c || b !== d);
  const keyOf = (x: number, y: number) => `${x} ${y}`;
  lines.forEach(([a, b, c, d], at) => {
    note(keyOf(a, b), at);
    note(keyOf(c, d), at);
  });
  const isDrawn = new Uint8Array(lines.length);
  /** The next piece at a place that only two pieces share: at a crossing a path ends. */
  const onwards = (key: string): number => {
    const there = ends.get(key) ?? [];
    return there.length === 2 ? (there.find((at) => !isDrawn[at]) ?? -1) : -1;
  };
  const walk = (start: number, from: string): string[] => {
    const way = [from];
    let at = start;
    let here = from;
    while (at >= 0) {
      isDrawn[at] = 1;
      const [a, b, c, d] = lines[at]!;
      here = keyOf(a, b) === here ? keyOf(c, d) : keyOf(a, b);
      way.push(here);
      at = onwards(here);
    }
    return way;
  };
  const paths: string[] = [];
  const draw = (at: number, from: string) => {
    const way = walk(at, from);
    const isLoop = way.length > 3 && way[0] === way.at(-1);
    paths.push(`M${(isLoop ? way.slice(0, -1) : way).join('L')}${isLoop ? 'Z' : ''}`);
  };
  // Open ways begin at their ends, then what is left are loops.
  lines.forEach(([a, b, c, d], at) => {
    if (isDrawn[at]) return;
    for (const key of [keyOf(a, b), keyOf(c, d)]) {
      if (!isDrawn[at] && ends.get(key)?.length !== 2) draw(at, key);
    }
  });
  lines.forEach(([a, b], at) => {
    if (!isDrawn[at]) draw(at, keyOf(a, b));
  });
  return paths.join('');
}
