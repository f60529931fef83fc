export { ledgerOf, whyNotNow, type Ledger, type LedgerEvent, type PrintState } from './ledger';
