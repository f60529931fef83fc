import { useSyncExternalStore } from 'react';
import { decimalSign, type DecimalSign } from './entry';

const never = () => () => undefined;

/** The decimal sign of the browser's language; a point where the page is drawn on the server. */
export const useDecimalSign = (): DecimalSign =>
  useSyncExternalStore(never, decimalSign, () => '.' as const);
