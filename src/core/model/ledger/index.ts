export { ledgerOf, whyNotNow, type Ledger, type LedgerEvent } from './ledger';
export { firmwareIn, firmwareTurns, outdatedPrints } from './firmware';
