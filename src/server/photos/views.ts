import type { App } from '../app';
import { VIEW_NAMES, type ViewName } from '../../core/geometry/mesh';
import type { Mark, ViewBox } from '../../core/measures/image';
import { findFile, findRow, type Database } from '../../data';
import { sheetOfFile } from '../artefacts/meshes';

/** What of an artefact stands beside a view, mm: so much around it is laid flat as well. */
const MARGIN_MM = 3;

export const isDrawnView = (view: string | null): view is ViewName =>
  VIEW_NAMES.some((name) => name === view);

/** The rectangle that an artefact fills on one of its views, mm, y upwards; null where it is not known. */
export async function viewBoxOf(
  app: App,
  db: Database,
  studyId: string,
  artefactId: string,
  view: string | null,
): Promise<ViewBox | null> {
  if (!isDrawnView(view)) return null;
  const { mesh } = await findRow(db, studyId, 'artefacts', { artefact_id: artefactId });
  const file = mesh === null ? null : await findFile(db, studyId, mesh);
  const sheet = file && (await sheetOfFile(app, file));
  if (!sheet) return null;
  const { left, top, width, height } = sheet.sides[view].box;
  return { x: left, y: -(top + height), w: width, h: height };
}

/** The rectangle in which marks lie. */
export function boxOfMarks(marks: readonly Mark[]): ViewBox {
  const [xs, ys] = [marks.map((mark) => mark.x_mm), marks.map((mark) => mark.y_mm)];
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  // Two marks on an upright or level line still have some room beside them.
  const [w, h] = [Math.max(...xs) - x, Math.max(...ys) - y];
  const least = Math.max(w, h) / 4;
  return { x, y, w: Math.max(w, least), h: Math.max(h, least) };
}

/** A rectangle with a margin around it. */
export const withMargin = ({ x, y, w, h }: ViewBox): ViewBox => ({
  x: x - MARGIN_MM,
  y: y - MARGIN_MM,
  w: w + 2 * MARGIN_MM,
  h: h + 2 * MARGIN_MM,
});
