export { keyFrom, keyOfPath, tableOf } from './address';
export { checkRow } from './check';
export { removeRepeatable, removeRow } from './remove';
export { addRow, changeRow, historyOfRow, insertChecked, rowOf, rowsOf } from './rows';
