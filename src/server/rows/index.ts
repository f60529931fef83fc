export { keyFrom, keyOfPath, tableOf } from './address';
export { checkRow } from './check';
export {
  allDeletions,
  deleteFromStudy,
  deletionSchema,
  deletionsOf,
  previewDeletion,
  restoreToStudy,
} from './deletions';
export { removeRepeatable, removeRow } from './remove';
export { addRow, changeRow, historyOfRow, insertChecked, rowOf, rowsOf } from './rows';
