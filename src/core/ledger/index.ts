export { ledgerOf, whyNotNow, type Ledger, type LedgerEvent, type PrintState } from './ledger';
export { firmwareTurns, outdatedPrints } from './firmware';
