const SVG = 'http://www.w3.org/2000/svg';

/** What of an element's style makes how a drawn shape looks. */
const DRAWN = [
  'fill',
  'fill-opacity',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'stroke-linecap',
  'stroke-opacity',
  'opacity',
  'font-family',
  'font-size',
  'font-weight',
  'text-anchor',
  'dominant-baseline',
];

const isClear = (colour: string): boolean =>
  colour === 'transparent' || /^rgba\(.*, 0\)$/.test(colour);

/** An element of the page as a drawing of its own: shapes as they are, text as text, boxes and lines. */
export function svgOf(root: HTMLElement): SVGSVGElement {
  const frame = root.getBoundingClientRect();
  // What scrolls within it is drawn in its whole width.
  const whole = Math.max(root.scrollWidth, root.firstElementChild?.scrollWidth ?? 0);
  const [width, height] = [Math.ceil(whole), Math.ceil(frame.height)];
  const sheet = document.createElementNS(SVG, 'svg');
  set(sheet, { width, height, viewBox: `0 0 ${width} ${height}` });
  const paper = getComputedStyle(document.documentElement).getPropertyValue('--sheet').trim();
  sheet.append(set(document.createElementNS(SVG, 'rect'), { width, height, fill: paper }));
  const origin = { x: frame.left, y: frame.top };
  draw(root, sheet, origin);
  return sheet;
}

interface Point {
  x: number;
  y: number;
}

function set<Drawn extends Element>(
  element: Drawn,
  attributes: Readonly<Record<string, string | number>>,
): Drawn {
  for (const [name, value] of Object.entries(attributes)) element.setAttribute(name, String(value));
  return element;
}

function draw(node: Element, sheet: SVGSVGElement, origin: Point): void {
  const style = getComputedStyle(node);
  if (style.display === 'none' || style.visibility === 'hidden' || style.opacity === '0') return;
  if (node.matches('.sr-only, script, style, [data-leaving]')) return;
  const box = node.getBoundingClientRect();
  const at = { x: box.left - origin.x, y: box.top - origin.y };
  if (node instanceof SVGSVGElement) {
    sheet.append(drawnCopy(node, at, box));
    return;
  }
  drawBox(sheet, style, at, box);
  for (const child of node.childNodes) {
    if (child instanceof Element) draw(child, sheet, origin);
    else if (child instanceof Text) drawText(child, sheet, style, origin);
  }
}

/** A drawing of the page with its looks written into it. */
function drawnCopy(source: SVGSVGElement, at: Point, box: DOMRect): SVGSVGElement {
  const copy = source.cloneNode(true) as SVGSVGElement;
  // A drawing within a drawing is cut at its edges unless it says otherwise.
  set(copy, { ...at, width: box.width, height: box.height, overflow: 'visible' });
  copy.removeAttribute('class');
  const sources = source.querySelectorAll('*');
  copy.querySelectorAll('*').forEach((element, place) => {
    const own = sources[place];
    if (!own) return;
    const style = getComputedStyle(own);
    for (const name of DRAWN) {
      const value = style.getPropertyValue(name);
      if (value !== '' && !element.hasAttribute(name)) element.setAttribute(name, value);
      else if (value !== '' && /var\(/.test(element.getAttribute(name) ?? '')) {
        element.setAttribute(name, value);
      }
    }
    element.removeAttribute('class');
    element.removeAttribute('style');
  });
  return copy;
}

function drawBox(sheet: SVGSVGElement, style: CSSStyleDeclaration, at: Point, box: DOMRect): void {
  if (!isClear(style.backgroundColor)) {
    const fill = { ...at, width: box.width, height: box.height, fill: style.backgroundColor };
    const rect = set(document.createElementNS(SVG, 'rect'), fill);
    sheet.append(set(rect, { rx: Number.parseFloat(style.borderRadius) || 0 }));
  }
  const [right, bottom] = [at.x + box.width, at.y + box.height];
  const sides = [
    ['Top', at.x, at.y, right, at.y],
    ['Bottom', at.x, bottom, right, bottom],
    ['Left', at.x, at.y, at.x, bottom],
    ['Right', right, at.y, right, bottom],
  ] as const;
  for (const [side, x1, y1, x2, y2] of sides) {
    const width = Number.parseFloat(style.getPropertyValue(`border-${side.toLowerCase()}-width`));
    const stroke = style.getPropertyValue(`border-${side.toLowerCase()}-color`);
    if (!(width > 0) || isClear(stroke)) continue;
    const line = document.createElementNS(SVG, 'line');
    sheet.append(set(line, { x1, y1, x2, y2, stroke, 'stroke-width': width }));
  }
}

/** The lines of a text, each where it stands. */
function drawText(
  text: Text,
  sheet: SVGSVGElement,
  style: CSSStyleDeclaration,
  origin: Point,
): void {
  if (text.data.trim() === '') return;
  const range = document.createRange();
  let line: { top: number; left: number; bottom: number; said: string } | null = null;
  const end = () => {
    if (!line || line.said.trim() === '') return;
    const element = document.createElementNS(SVG, 'text');
    const size = Number.parseFloat(style.fontSize);
    set(element, {
      x: line.left - origin.x,
      y: (line.top + line.bottom) / 2 - origin.y + 0.36 * size,
      fill: style.color,
      'font-family': style.fontFamily,
      'font-size': style.fontSize,
      'font-weight': style.fontWeight,
      'xml:space': 'preserve',
    });
    element.textContent = line.said.replace(/\s+/g, ' ');
    sheet.append(element);
  };
  for (let at = 0; at < text.length; at += 1) {
    range.setStart(text, at);
    range.setEnd(text, at + 1);
    const [box] = range.getClientRects();
    if (!box) continue;
    if (!line || Math.abs(box.top - line.top) > 2) {
      end();
      line = { top: box.top, left: box.left, bottom: box.bottom, said: '' };
    }
    line.said += text.data[at] ?? '';
  }
  end();
}

/** A drawing as the text of a file. */
export const svgText = (drawing: SVGSVGElement): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n${new XMLSerializer().serializeToString(drawing)}`;

/** A drawing as a picture, twice as fine as it stands on the page. */
export async function pngOf(drawing: SVGSVGElement): Promise<Blob> {
  const scale = 2;
  const image = new Image();
  const address = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svgText(drawing))}`;
  image.src = address;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = scale * Number(drawing.getAttribute('width'));
  canvas.height = scale * Number(drawing.getAttribute('height'));
  const pen = canvas.getContext('2d');
  if (!pen) throw new Error('this browser cannot make pictures');
  pen.scale(scale, scale);
  pen.drawImage(image, 0, 0);
  return new Promise((resolve, reject) => {
    canvas.toBlob((blob) => (blob ? resolve(blob) : reject(new Error('no picture'))), 'image/png');
  });
}
