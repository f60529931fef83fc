import {
  byPlace,
  driversOf,
  instrumentsOfAll,
  plateOfAll,
  squarenessOfAll,
} from '../../../measures/metrology';
import { againstReference, MEASURED, type Section } from '../section';

/** How the deviation changes over the plate. */
export const plate: Section<'plate'> = {
  name: 'plate',
  needs: MEASURED,
  usesReference: false,
  compute: ({ index, measurements }) => {
    const measured = measurements();
    return measured && plateOfAll(index, measured);
  },
};

/** How far corners are from 90°, from sides and diagonals. */
export const squareness: Section<'squareness'> = {
  name: 'squareness',
  needs: [...MEASURED, 'squares'],
  usesReference: false,
  compute: ({ index, alpha, measurements, has }) => {
    const measured = measurements();
    return measured && has('squares') ? squarenessOfAll(index, measured, alpha) : null;
  },
};

/** Which dimensions drive the difference from the reference. */
export const drivers: Section<'drivers'> = {
  name: 'drivers',
  needs: MEASURED,
  usesReference: true,
  compute: (context) => {
    const measured = context.measurements();
    return measured && againstReference(context, (id, to) => driversOf(measured, id, to));
  },
};

/** What changed place by place of the plate, where the study asks what one change did. */
export const by_place: Section<'by_place'> = {
  name: 'by_place',
  needs: MEASURED,
  usesReference: true,
  compute: (context) => {
    const measured = context.measurements();
    if (!measured || context.index.study.meta.intent !== 'before-after') return null;
    return againstReference(context, (id, to) => byPlace(measured, id, to));
  },
};

/** What was read with each instrument, and how well that repeats. */
export const instruments: Section<'instruments'> = {
  name: 'instruments',
  needs: MEASURED,
  usesReference: false,
  compute: ({ index, measurements }) => {
    const measured = measurements();
    return measured && instrumentsOfAll(index, measured);
  },
};
