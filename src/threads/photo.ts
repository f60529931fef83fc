import { refused, WrongInputError } from '../core/model/faults';
import {
  blindPictures,
  cornersOfPart,
  examinePhoto,
  layPhoto,
  measureOnPhoto,
  type PhotoOutcome,
  type PhotoTask,
} from '../files/photos';

/** Worker thread: looks into photos, lays them onto their views, measures on them. */
export default async function run(task: PhotoTask): Promise<PhotoOutcome> {
  try {
    if (task.do === 'examine') return { facts: await examinePhoto(task.path) };
    if (task.do === 'corners') return { found: await cornersOfPart(task.path, task.codes) };
    if (task.do === 'lay') {
      return { laid: await layPhoto(task.path, task.toPicture, task.box, task.pxPerMm) };
    }
    if (task.do === 'blind') {
      return { blind: await blindPictures(task.frames, task.box, task.pxPerMm, task.levels) };
    }
    return {
      measured: await measureOnPhoto(task.path, task.measure, task.options, task.of),
    };
  } catch (error) {
    if (error instanceof WrongInputError || error instanceof RangeError) {
      return refused(error.message);
    }
    throw error;
  }
}
