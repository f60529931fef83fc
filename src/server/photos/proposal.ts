import type { PhotoTask } from '../../files/photos';
import { createWriteStream } from 'node:fs';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import {
  CARD,
  convexHull,
  fourOf,
  inOrder,
  inverted,
  project,
  scaleOfCard,
  type FoundCard,
  type Mark,
  type Point,
} from '../../core/measures/image';
import { findFile, findPicture, findRow, readFile, type Database } from '../../data';
import { withFolder } from '../../files/temporary';
import type { App } from '../app';
import { sheetOfFile } from '../artefacts';
import { RequestError } from '../http/problem';
import { filedPhoto } from './filing';
import { registerPhoto } from './registration';
import { isDrawnView, viewBoxOf } from './views';

/** Marks that a person may accept, drag or leave. */
export interface Proposal {
  marks: Mark[];
  from: 'outline' | 'card';
  /** By how much the part is larger in the photo than in the drawing, by the card's scale; null without. */
  larger_than_drawn: number | null;
  /** How far the card's codes lie from where they should, mm; null without a card. */
  card_misfit_mm: number | null;
}

/**
 * Proposes marks for a filed photo: the corners of the part's outline, laid on those of its drawing;
 * where no outline is found, the bracket of the scale card.
 *
 * @throws RequestError where nothing can be proposed, with the reason
 */
export async function proposeMarks(app: App, studyId: string, path: string): Promise<Proposal> {
  const { db, photographers } = app;
  const { photo, artefactId } = await filedPhoto({ db, studyId }, path);
  const picture = await findPicture(db, studyId, path);
  if (picture?.state !== 'ready') throw new RequestError(409, 'The photo is not looked into yet.');
  const box = await viewBoxOf(app, db, studyId, artefactId, photo.view);
  const drawn = box && (await cornersDrawn(app, db, studyId, artefactId, photo.view));
  if (!box || !drawn) {
    throw new RequestError(
      422,
      'There is no drawing of this view to lay the photo on: set the marks by hand.',
    );
  }
  const outcome = await withFolder('corners', async (folder) => {
    const copy = join(folder, 'photo');
    await pipeline(readFile(db, picture.sha256), createWriteStream(copy));
    const task: PhotoTask = { do: 'corners', path: copy, codes: picture.codes ?? [] };
    return await photographers.run(task);
  });
  if (outcome.isRefused) throw new RequestError(422, `The photo ${outcome.message}.`);
  if (!('found' in outcome)) throw new Error('the thread did not look');
  const { card, corners } = outcome.found;
  const card_misfit_mm = card?.misfit_mm ?? null;
  if (corners) {
    const marks = corners.map(({ u, v }, at): Mark => {
      const { x = 0, y = 0 } = drawn[at] ?? {};
      return { u_px: u, v_px: v, x_mm: x, y_mm: y };
    });
    const larger =
      card && largerThanDrawn(card, marks, registerPhoto(marks, box).registration.px_per_mm);
    return { marks, from: 'outline', larger_than_drawn: larger, card_misfit_mm };
  }
  if (card) {
    const marks = marksOfCard(card, box);
    return { marks, from: 'card', larger_than_drawn: null, card_misfit_mm };
  }
  throw new RequestError(
    422,
    'No outline against a plain background and no scale card was found. Set the marks by hand.',
  );
}

/** The four corners of a view's outline, clockwise from the upper left, mm, y upwards. */
async function cornersDrawn(
  app: App,
  db: Database,
  studyId: string,
  artefactId: string,
  view: string | null,
): Promise<Point[] | null> {
  if (!isDrawnView(view)) return null;
  const { mesh } = await findRow(db, studyId, 'artefacts', { artefact_id: artefactId });
  const file = mesh === null ? null : await findFile(db, studyId, mesh);
  const sheet = file && (await sheetOfFile(app, file));
  if (!sheet) return null;
  // A drawing's lines are moves between points, v downwards.
  const numbers = (sheet.sides[view].visible.match(/-?\d+(?:\.\d+)?/g) ?? []).map(Number);
  const points = Array.from({ length: numbers.length >> 1 }, (_, at) => ({
    x: numbers[2 * at] ?? 0,
    y: numbers[2 * at + 1] ?? 0,
  }));
  const hull = convexHull(points);
  return hull.length < 4 ? null : inOrder(fourOf(hull)).map(({ x, y }) => ({ x, y: -y }));
}

/** By how much the part in the photo is larger than its drawing, going by the card. */
function largerThanDrawn(card: FoundCard, marks: readonly Mark[], pxPerMm: number): number {
  const middle = {
    x: marks.reduce((sum, mark) => sum + mark.u_px, 0) / marks.length,
    y: marks.reduce((sum, mark) => sum + mark.v_px, 0) / marks.length,
  };
  return pxPerMm / scaleOfCard(card, project(inverted(card.toPicture), middle)) - 1;
}

/** Marks at the corners of a view whose lower left lies in the card's bracket. */
const marksOfCard = (
  { toPicture }: FoundCard,
  { x, y, w, h }: { x: number; y: number; w: number; h: number },
): Mark[] =>
  [
    [0, h],
    [w, h],
    [w, 0],
    [0, 0],
  ].map(([dx = 0, dy = 0]) => {
    const at = project(toPicture, { x: CARD.zero.x + dx, y: CARD.zero.y + dy });
    return { u_px: at.x, v_px: at.y, x_mm: x + dx, y_mm: y + dy };
  });
