import { useEffect, useRef } from 'react';
import type { ViewBox } from '../../core/measures/image';
import { drawPhoto, type RectifiedPhoto, type Place, type Tiles } from './tiles';

interface PhotoCanvasProps {
  studyId: string;
  /** What is drawn, one over the other. */
  photos: readonly RectifiedPhoto[];
  /** How a second photo is put on the first. */
  mode: 'over' | 'split' | 'difference';
  /** Where the second begins, a share of the width. */
  split: number;
  /** By how much each photo is brightened. */
  gains: readonly number[];
  /** Whether contrast is raised about each photo's middle grey. */
  isStrong: boolean;
  tiles: Tiles;
  place: React.RefObject<Place>;
  /** The point of the view that lies under the loupe; null without one. */
  loupe?: React.RefObject<{ x: number; y: number } | null>;
  outlines: readonly { box: ViewBox; label: string; isStrong: boolean }[];
  /** Raised when what is drawn changes: a tile came, the place moved. */
  register: (draw: () => void) => () => void;
  label: string;
  height: number;
}

/** A window onto a view: photos laid flat, drawn at the common place. */
export function PhotoCanvas(props: PhotoCanvasProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const latest = useRef(props);
  const { register } = props;
  useEffect(() => {
    latest.current = props;
    paint(canvas.current, props);
  });
  useEffect(() => register(() => paint(canvas.current, latest.current)), [register]);
  useEffect(() => {
    const observer = new ResizeObserver(() => paint(canvas.current, latest.current));
    if (canvas.current) observer.observe(canvas.current);
    return () => observer.disconnect();
  }, []);
  return (
    <canvas
      ref={canvas}
      className={`block w-full cursor-grab touch-none bg-desk ${HEIGHTS[props.height] ?? ''}`}
      role="img"
      aria-label={props.label}
    />
  );
}

/** Heights of windows by how many rows of them there are. */
const HEIGHTS: Readonly<Record<number, string>> = {
  1: 'h-[52vh]',
  2: 'h-[30vh]',
  3: 'h-[24vh]',
  4: 'h-24',
};

function paint(canvas: HTMLCanvasElement | null, props: PhotoCanvasProps): void {
  const context = canvas?.getContext('2d', { alpha: false });
  if (!canvas || !context) return;
  const { studyId, photos, mode, split, gains, tiles, outlines } = props;
  const [width, height] = [canvas.clientWidth, canvas.clientHeight];
  if (canvas.width !== width) canvas.width = width;
  if (canvas.height !== height) canvas.height = height;
  const place = props.place.current;
  context.imageSmoothingEnabled = true;
  context.fillStyle = '#d5dade';
  context.fillRect(0, 0, width, height);
  photos.forEach((photo, at) => {
    context.save();
    if (at > 0 && mode === 'split') {
      context.beginPath();
      context.rect(split * width, 0, width, height);
      context.clip();
    }
    if (at > 0 && mode === 'difference') context.globalCompositeOperation = 'difference';
    const gain = gains[at] ?? 1;
    const filters = [
      gain === 1 ? null : `brightness(${gain.toFixed(3)})`,
      props.isStrong ? 'contrast(3)' : null,
    ].filter((one) => one !== null);
    if (filters.length > 0) context.filter = filters.join(' ');
    drawPhoto({ context, width, height }, tiles, studyId, photo, place);
    context.restore();
  });
  if (mode === 'split' && photos.length > 1) {
    context.fillStyle = '#7d1f55';
    context.fillRect(split * width - 1, 0, 2, height);
  }
  paintLoupe(context, width, height, props);
  for (const { box, label, isStrong } of outlines) {
    const left = (box.x - place.x) * place.scale + width / 2;
    const top = height / 2 - (box.y + box.h - place.y) * place.scale;
    context.strokeStyle = 'white';
    context.lineWidth = isStrong ? 4 : 3;
    context.strokeRect(left, top, box.w * place.scale, box.h * place.scale);
    context.strokeStyle = '#7d1f55';
    context.lineWidth = isStrong ? 2 : 1;
    context.strokeRect(left, top, box.w * place.scale, box.h * place.scale);
    if (label === '') continue;
    context.font = '11px sans-serif';
    const wide = context.measureText(label).width + 8;
    context.fillStyle = '#7d1f55';
    context.fillRect(left, top - 16, wide, 16);
    context.fillStyle = 'white';
    context.fillText(label, left + 4, top - 4);
  }
}

const LENS_PX = 84;
const LENS_POWER = 3;

/** The same point of every photo, enlarged where it is. */
function paintLoupe(
  context: CanvasRenderingContext2D,
  width: number,
  height: number,
  { studyId, photos, gains, tiles, isStrong, loupe, place: at }: PhotoCanvasProps,
): void {
  const point = loupe?.current;
  const [photo] = photos;
  if (!point || !photo) return;
  const place = at.current;
  const x = (point.x - place.x) * place.scale + width / 2;
  const y = height / 2 - (point.y - place.y) * place.scale;
  const scale = place.scale * LENS_POWER;
  context.save();
  context.beginPath();
  context.arc(x, y, LENS_PX, 0, 2 * Math.PI);
  context.clip();
  context.fillRect(0, 0, width, height);
  const gain = gains[0] ?? 1;
  context.filter = `brightness(${gain.toFixed(3)})${isStrong ? ' contrast(3)' : ''}`;
  drawPhoto({ context, width, height }, tiles, studyId, photo, {
    x: point.x - (x - width / 2) / scale,
    y: point.y + (y - height / 2) / scale,
    scale,
  });
  context.restore();
  context.strokeStyle = '#7d1f55';
  context.lineWidth = 2;
  context.beginPath();
  context.arc(x, y, LENS_PX, 0, 2 * Math.PI);
  context.stroke();
}
