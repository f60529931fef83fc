export type { LineUpPage, Offered } from '../server/line-up/line-up';
