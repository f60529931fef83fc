import { isOneOf } from '../../core/model/study';

/**
 * What was chosen of some values in a list.
 *
 * @throws RangeError where the list holds what is none of them
 */
export function chosenOf<Value extends string>(
  { target }: { target: { value: string } },
  values: readonly Value[],
): Value {
  const { value } = target;
  if (isOneOf(values, value)) return value;
  throw new RangeError(`${value} is no choice here`);
}
