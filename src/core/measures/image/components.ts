/** A group of pixels that touch each other, corners too. */
export interface Component {
  pixels: number;
  left: number;
  right: number;
}

/**
 * The groups of set pixels of a mask that touch each other, corners too (8-connected).
 *
 * @returns the component of each pixel, −1 where it is not set, and what each component is
 */
export function componentsOf(
  mask: Uint8Array,
  width: number,
): { labels: Int32Array; components: Component[] } {
  const labels = new Int32Array(mask.length).fill(-1);
  const components: Component[] = [];
  const height = mask.length / width;
  let stack = new Int32Array(1024);
  for (let start = 0; start < mask.length; start += 1) {
    if (!mask[start] || labels[start] !== -1) continue;
    const label = components.length;
    const own: Component = { pixels: 0, left: width, right: -1 };
    let depth = 0;
    stack[depth++] = start;
    labels[start] = label;
    while (depth > 0) {
      const at = stack[--depth] ?? 0;
      const x = at % width;
      const y = (at - x) / width;
      own.pixels += 1;
      own.left = Math.min(own.left, x);
      own.right = Math.max(own.right, x);
      for (let ny = Math.max(0, y - 1); ny <= Math.min(height - 1, y + 1); ny += 1) {
        for (let nx = Math.max(0, x - 1); nx <= Math.min(width - 1, x + 1); nx += 1) {
          const near = ny * width + nx;
          if (!mask[near] || labels[near] !== -1) continue;
          labels[near] = label;
          if (depth === stack.length) {
            const grown = new Int32Array(2 * depth);
            grown.set(stack);
            stack = grown;
          }
          stack[depth++] = near;
        }
      }
    }
    components.push(own);
  }
  return { labels, components };
}

/** Takes the components that are not wanted out of a mask. */
export function keepComponents(
  mask: Uint8Array,
  width: number,
  isKept: (component: Component) => boolean,
): Component[] {
  const { labels, components } = componentsOf(mask, width);
  const kept = components.map(isKept);
  for (let at = 0; at < mask.length; at += 1) {
    if (mask[at] && !kept[labels[at] ?? 0]) mask[at] = 0;
  }
  return components.filter((_, at) => kept[at]);
}
