import { deleteRow, findRow, hasReadings, inChange, insertRow, listRows } from '../../data';
import { app } from '../app';
import { RequestError } from '../http/problem';

/**
 * Takes a dimension out. One that was ever read is kept as retired: its readings stay as they are,
 * nobody is asked to measure it any more, and it leaves the results.
 */
export async function retireDimension(
  studyId: string,
  artefactId: string,
  dimensionId: string,
  reason: string | null,
  who: string | null,
): Promise<{ isRetired: boolean }> {
  const { db } = app();
  const key = { artefact_id: artefactId, dimension_id: dimensionId };
  return inChange(db, async (transaction) => {
    const dimension = await findRow(db, studyId, 'dimensions', key, transaction);
    const squares = await listRows(db, studyId, 'squares', transaction);
    const square = squares.find(
      (row) =>
        row.artefact_id === artefactId &&
        [row.side_a, row.side_b, row.diagonal_1, row.diagonal_2].includes(dimensionId),
    );
    if (square) {
      throw new RequestError(422, `The square ${String(square.square_id)} needs this dimension.`);
    }
    if (await hasReadings(db, studyId, artefactId, dimensionId, transaction)) {
      const row = { ...key, at: new Date().toISOString(), reason };
      await insertRow(db, studyId, 'retired_dimensions', row, who, transaction);
      return { isRetired: true };
    }
    const places = await listRows(db, studyId, 'dimension_places', transaction);
    const place = places.find(
      (row) => row.artefact_id === artefactId && row.dimension_id === dimensionId,
    );
    if (place) {
      await deleteRow(db, studyId, 'dimension_places', key, place.row_version, who, transaction);
    }
    await deleteRow(db, studyId, 'dimensions', key, dimension.row_version, who, transaction);
    return { isRetired: false };
  });
}
