import { remembered } from './remembered';

export const OPERATOR_KEY = 'vergleich.operator';

/** The initials of who works at this browser; empty where nobody has said. */
export const readOperator = (): string => remembered(OPERATOR_KEY).trim();
