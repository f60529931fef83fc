import { tableSpec, isTableName } from '../core/model/study';
import { nameOfMarks, textOf, type ReportModel, type Text } from '../core/text/report';

type Contenders = Pick<ReportModel, 'contenders'>;

/** A contender’s name in full. */
export const nameIn = ({ contenders }: Contenders, id: string): string =>
  nameOfMarks(contenders)(id);

/** A line without marks. */
export const plainText = ({ contenders }: Contenders, text: Text): string =>
  textOf(text, nameOfMarks(contenders));

const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];

/** A day as people write it: `28 March 2026`. */
export function dayOf(iso: string): string {
  const date = new Date(iso);
  return `${date.getUTCDate()} ${MONTHS[date.getUTCMonth()] ?? ''} ${date.getUTCFullYear()}`;
}

/** A hash that people can compare: its head and its tail. */
export const shortHash = (sha256: string): string => `${sha256.slice(0, 6)}…${sha256.slice(-4)}`;

/** What the rows of a table are, as a person says it. */
export const titleOf = (table: string): string =>
  isTableName(table) ? tableSpec(table).title : table;
