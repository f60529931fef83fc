import type { FieldSpec } from '../records/fields';
import { RecordFields } from '../records/RecordForm';
import { useRecord, type Values } from '../records/use-record';

const factsIn = (answer: Record<string, unknown>): Values => answer.facts as Values;

/** What is known of a thing today, saved as it is typed; studies keep what they have. */
export function ItemFacts(props: {
  uid: string;
  name: string;
  facts: Values;
  version: number;
  fields: readonly FieldSpec[];
}) {
  const source = { path: `/things/${props.uid}`, fromAnswer: factsIn };
  const record = useRecord(source, props.facts, props.version);
  return <RecordFields record={record} fields={props.fields} label={`${props.name} today`} />;
}
