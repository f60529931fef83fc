export { ledgerOf, whyNotNow, type Ledger, type LedgerEvent, type PrintState } from './ledger';
export { firmwareIn, firmwareTurns, outdatedPrints } from './firmware';
